package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikBrowser;
import tools.jackson.databind.JsonNode;

@DisplayName("Pages of a dashboard, and the first page of a dataset")
class SheetPagesTest extends BrowserTest {

    private JsonNode document(long dashboard) throws Exception {
        return sarnik.client("ana")
                .read(sarnik.client("ana").get("/api/dashboards/" + dashboard))
                .get("document");
    }

    @Test
    void areMadeNamedFilledAndReadWithKeysAlone() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Two pages?");
        Page page = sheet("ana", dashboard, "/compose");
        page.waitForSelector(".question");
        page.focus(".page-add");
        page.keyboard().press("Enter");
        // The new page is looked at, and its title is the first thing to say.
        waitForText(page.locator(".dock-brief"), "The second page");
        page.focus(".dock .slot[aria-label^='title']");
        page.keyboard().press("Enter");
        page.keyboard().type("One by one");
        page.keyboard().press("Enter");
        waitForText(page.locator(".page-title[aria-current]"), "One by one");
        page.waitForFunction("() => document.querySelectorAll('[data-visual]').length === 0");

        // What has the keyboard keeps it while the dock is shown anew, and what is asked is not forgotten.
        page.focus("text=Add something else");
        undoAndRedo(page, "One by one");
        waitForText(page.locator(".dock-brief"), "One by one");
        page.waitForFunction("() => document.activeElement.textContent === 'Add something else'");
        page.keyboard().press("Enter");
        page.focus(".question[data-question=EXACTLY]");
        page.keyboard().press("Enter");
        page.waitForSelector(".proposal[data-kind=table]");
        undoAndRedo(page, "One by one");
        page.waitForFunction("() => document.activeElement.textContent === 'What exactly?'");
        page.waitForSelector(".proposal[data-kind=table]");
        page.focus(".proposal[data-kind=table]");
        page.keyboard().press("Enter");
        page.waitForSelector("[data-visual] table");
        JsonNode made = document(dashboard);
        String second = made.get("pages").properties().stream()
                .filter(p -> p.getValue().get("title").asString().equals("One by one"))
                .findFirst()
                .orElseThrow()
                .getKey();
        assertThat(made.get("visuals")
                        .valueStream()
                        .filter(v -> v.get("page").asString().equals(second)))
                .hasSize(1);

        // Readers go from page to page; the address carries the page, and what was chosen stays.
        sarnik.client("ana").publish(dashboard);
        Page rui = sheet("rui", dashboard, "?f.f1=still");
        rui.click(".page-title >> text=One by one");
        rui.waitForSelector("[data-visual] table");
        assertThat(rui.url()).contains("g.page=" + second).contains("f.f1=still");
        assertThat(rui.locator("[data-visual=v1]").count()).isZero();
        waitForText(rui.locator("#showing"), "Now showing everything");
        rui.goBack();
        rui.waitForSelector("[data-visual=v1]");
        waitForText(rui.locator("#showing"), "still");
        rui.navigate("/dashboards/" + dashboard + "?g.page=" + second);
        rui.waitForSelector("[data-visual] table");
        assertThat(rui.locator(".page-title[aria-current]").textContent()).isEqualTo("One by one");
    }

    /** Takes the page's title back and gives it again; both have come back from the server then. */
    private static void undoAndRedo(Page page, String title) {
        page.waitForResponse(
                r -> r.url().endsWith("/undo"), () -> page.keyboard().press("Control+z"));
        page.waitForFunction(
                "t => !document.querySelector('.page-title[aria-current]').textContent.includes(t)", title);
        page.waitForResponse(
                r -> r.url().endsWith("/redo"), () -> page.keyboard().press("Control+Shift+z"));
        waitForText(page.locator(".page-title[aria-current]"), title);
    }

    @Test
    void areHiddenAndTakenAwayWithAWordAboutWhatGoes() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Hidden?");
        Page page = sheet("ana", dashboard, "/compose");
        page.waitForSelector(".question");
        page.click(".page-title[aria-current]");
        page.click("text=One more of it");
        waitForText(page.locator(".page-title[aria-current]"), "Page 1, again");
        int copied = document(dashboard).get("visuals").size();
        page.click(".page-title[aria-current]");
        page.click(".dock .slot[aria-label^='who finds it']");
        page.click(".popup-option >> text=hidden");
        page.waitForSelector(".page-title.is-hidden");

        sarnik.client("ana").publish(dashboard);
        Page rui = sheet("rui", dashboard, "");
        assertThat(rui.locator("#pages").isHidden()).as("one page is shown").isTrue();
        rui.navigate("/dashboards/" + dashboard + "?g.page=gone");
        waitForText(rui.locator("#misfits"), "page that this dashboard no longer has");

        page.click("text=Take away");
        page.waitForFunction("() => document.querySelectorAll('.page-title').length === 1");
        assertThat(document(dashboard).get("visuals").size()).isEqualTo(copied / 2);
        page.waitForSelector("[data-visual=v1]");
        page.click("#undo");
        page.waitForFunction("() => document.querySelectorAll('.page-title').length === 2");
        assertThat(document(dashboard).get("visuals").size()).isEqualTo(copied);
    }

    @Test
    void aDatasetMakesItsFirstPageByOnePress() throws Exception {
        long sales = sarnik.client("ana").bring(Samples.sales(), "Sales of a first page");
        Page page = page("ana");
        page.navigate("/datasets/" + sales);
        page.click("#first-page");
        page.waitForURL("**/compose");
        SarnikBrowser.drawn(page);
        assertThat(page.locator(".visual-map").count()).isOne();
        assertThat(page.locator(".visual-bars").count()).isOne();
        assertThat(page.locator(".visual-figure").count()).isPositive();
        assertThat(page.locator(".visual-misfit").count()).isZero();
        assertThat(page.locator("#strip .filter").count()).isPositive();
        assertThat(page.locator("#sheet-title input").inputValue()).endsWith("?");
        waitForText(page.locator(".said"), "litres is taken to add up, so summed");
        assertThat(page.locator("#undo").isDisabled())
                .as("there is nothing to take back of it")
                .isTrue();
    }
}
