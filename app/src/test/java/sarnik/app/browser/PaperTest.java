package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;

@DisplayName("Paper")
class PaperTest extends BrowserTest {

    private static long dashboard;

    @BeforeEach
    void twoPages() throws Exception {
        if (dashboard != 0) return;
        SarnikClient ana = sarnik.client("ana");
        dashboard = Samples.dashboard(ana, "On paper?");
        long dataset = ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                ("[{\"op\":\"add\",\"path\":\"/pages/p2\",\"value\":{\"title\":\"Second\",\"order\":2}},"
                                + "{\"op\":\"add\",\"path\":\"/visuals/v8\",\"value\":{\"type\":\"figure\","
                                + "\"page\":\"p2\",\"at\":{\"x\":0,\"y\":0,\"w\":12,\"h\":8},"
                                + "\"title\":\"Rows\",\"dataset\":%d,\"measure\":{\"summary\":\"COUNT\"}}}]")
                        .formatted(dataset),
                "If-Match",
                "\"2\""));
        ana.publish(dashboard);
    }

    private static String pdf(Page page) {
        return new String(page.pdf(new Page.PdfOptions().setPreferCSSPageSize(true)), StandardCharsets.ISO_8859_1);
    }

    private static long count(String pdf, String pattern) {
        return Pattern.compile(pattern).matcher(pdf).results().count();
    }

    @Test
    void allPagesStandOnSheetsOfTheirOwnWithTitleAndWhatIsShown() {
        Page page = page("rui");
        page.navigate("/dashboards/" + dashboard + "?f.f1=still#print.A3.all");
        page.waitForSelector(
                "body[data-printed]",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED));
        assertThat(page.locator(".print-page").count()).isEqualTo(2);
        assertThat(page.locator(".print-page >> nth=0").textContent())
                .contains("On paper?", "Product is still", "150", "Burgos");
        assertThat(page.locator(".print-page >> nth=1").textContent()).contains("Second");
        assertThat(page.locator(".print-page .print-map").count())
                .as("the map is drawn anew")
                .isEqualTo(1);
        assertThat(page.locator(".print-page .visual-signs, .print-page canvas").count())
                .isZero();
        String pdf = pdf(page);
        assertThat(count(pdf, "/Type\\s*/Page\\b")).isEqualTo(2);
        assertThat(pdf).as("A3, lying").containsPattern("/MediaBox \\[0 0 119[01]\\S* 84[12]");
    }

    @Test
    void onePageIsOfferedAndThePageStandsAsBeforeAfterIt() {
        Page page = sheet("rui", dashboard, "");
        page.evaluate("window.print = () => { window.printedOn = document.querySelectorAll('.print-page').length; "
                + "dispatchEvent(new Event('afterprint')); }");
        page.click("#on-paper");
        page.selectOption("[aria-label=Paper]", "letter");
        page.click(".popup-option >> text=Print");
        page.waitForFunction("() => window.printedOn === 1");
        assertThat(page.locator(".print-page").count()).isZero();
        waitForText(page.locator(".figure-number"), "179");
    }
}
