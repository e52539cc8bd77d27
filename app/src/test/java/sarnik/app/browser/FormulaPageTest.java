package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;

@DisplayName("The page of formulas")
class FormulaPageTest extends BrowserTest {

    private Page page(long dataset) {
        Page page = page("ana");
        page.navigate("/datasets/" + dataset + "/formulas");
        return page;
    }

    private static void write(Page page, String text) {
        page.click(".cm-content");
        page.keyboard().press("Control+A");
        page.keyboard().insertText(text);
    }

    @Test
    void showsTheResultOnRealRowsWhileOneWritesAndKeepsIt() throws Exception {
        long sales = sarnik.client("ana").bring(Samples.sales(), "Written over");
        Page page = page(sales);
        waitForText(page.locator("#idle"), "Choose a formula at the left");
        page.click("[data-new=column]");
        page.fill("#name", "twice");
        write(page, "litres * 2");
        waitForText(page.locator("#trouble"), "It gives whole number.");
        assertThat(page.locator("#result th").allInnerTexts()).containsExactly("litres", "twice");
        page.click("#keep");
        waitForText(page.locator(".said"), "Kept.");
        page.click("[data-new=measure]");
        page.fill("#name", "mean of twice");
        write(page, "SUM(twice) / COUNT(*)");
        waitForText(page.locator("#trouble"), "It gives a measure.");
        // That the column before was kept is still said: what counts is the answer to this one.
        page.waitForResponse(
                answer ->
                        answer.request().method().equals("PUT") && answer.url().endsWith("/calculations"),
                () -> page.click("#keep"));
        page.reload();
        assertThat(page.locator("#list button").allInnerTexts().toString())
                .contains("twice")
                .contains("mean of twice");
        page.navigate("/datasets/" + sales);
        waitForText(page.locator("#calculations"), "SUM(twice) / COUNT(*)");
        page.waitForSelector("[data-sort=twice]");
    }

    @Test
    void marksTheWordThatIsMeantAndSaysWhatWouldFit() throws Exception {
        long sales = sarnik.client("ana").bring(Samples.sales(), "Written wrong");
        Page page = page(sales);
        page.click("[data-new=rule]");
        write(page, "litrs > 3");
        waitForText(page.locator("#trouble.is-wrong"), "Did you mean “litres”?");
        page.waitForSelector(".cm-lintRange-error");
        assertThat(page.locator(".cm-lintRange-error").first().innerText()).isEqualTo("litrs");
        page.click("#keep");
        waitForText(page.locator("#refusal"), "cannot be kept");
        write(page, "litres > 3");
        waitForText(page.locator("#trouble"), "It gives yes/no.");
        page.click("#keep");
        waitForText(page.locator(".said"), "Kept.");
        page.click("#remove");
        waitForText(page.locator("#idle"), "Choose a formula");
    }

    @Test
    void completesColumnsAndFunctions() throws Exception {
        long sales = sarnik.client("ana").bring(Samples.sales(), "Completed");
        Page page = page(sales);
        page.click("[data-new=column]");
        page.click(".cm-content");
        page.keyboard().type("prov");
        page.waitForSelector(".cm-tooltip-autocomplete li:has-text('province')");
        // The list takes keys only once it has stood for a moment, so that typing on is not caught by it.
        page.waitForTimeout(150);
        page.keyboard().press("Enter");
        waitForText(page.locator("#trouble"), "It gives text.");
    }
}
