package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.SelectOption;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("The typed sentence, and sheets to start from")
class SentencePagesTest extends BrowserTest {

    private JsonNode visuals(long dashboard) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        return ana.read(ana.get("/api/dashboards/" + dashboard)).get("document").get("visuals");
    }

    private Page composing(long dashboard) {
        Page page = page("ana");
        page.navigate("/dashboards/" + dashboard + "/compose");
        page.waitForSelector(".sentence-field");
        return page;
    }

    @Test
    void isCompletedDrawnAndPutOnTheSheetWithKeysAlone() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "In words?");
        Page page = composing(dashboard);
        page.focus(".sentence-field");
        page.waitForSelector(".sentence-next li >> text=bars");
        page.keyboard().type("bars of litres by prod");
        page.waitForFunction(
                "() => [...document.querySelectorAll('.sentence-next li')].map(li => li.firstChild.data).join() === "
                        + "'product'");
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        waitForText(page.locator(".sentence-words"), "Bars: all values of product in Sales by sum of litres.");
        page.waitForSelector(".sentence-said .mini svg rect");
        assertThat(page.inputValue(".sentence-field")).isEqualTo("bars of litres by product ");
        page.keyboard().type("titled “Of what?”");
        waitForText(page.locator(".sentence-words"), "Bars: all values of product");
        page.keyboard().press("Enter");
        page.waitForFunction("() => document.querySelectorAll('[data-visual]').length === 4");
        assertThat(visuals(dashboard)
                        .valueStream()
                        .map(visual -> visual.get("title").asString()))
                .contains("Of what?");
        waitForText(page.locator(".dock-brief"), "Bars");
    }

    @Test
    void whatIsNotUnderstoodIsSaidAndNothingIsAdded() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Bananas?");
        Page page = composing(dashboard);
        page.fill(".sentence-field", "bars of litres by product, only where banana");
        page.keyboard().press("Enter");
        waitForText(page.locator(".said"), "“banana” was not understood");
        waitForText(page.locator(".sentence-unread"), "banana");
        assertThat(visuals(dashboard).size()).isEqualTo(3);
        page.fill(".sentence-field", "something or other");
        page.keyboard().press("Enter");
        waitForText(page.locator(".said"), "Begin with what it shall be");
        page.fill(".sentence-field", "bars of litrs by product");
        waitForText(page.locator(".sentence-said"), "“litrs” is read as “litre”");
    }

    @Test
    void whatMeansTwoThingsIsChosenInOnePress() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Two things?");
        Page page = composing(dashboard);
        page.fill(".sentence-field", "map of litres");
        waitForText(page.locator(".sentence-said"), "It could also be");
        page.click(".sentence-said .slot >> text=coloured by sum of litres");
        waitForText(page.locator(".sentence-words"), "coloured by sum of litres");
        assertThat(page.locator(".sentence-words").textContent()).doesNotContain("sized");
    }

    @Test
    void anEmptyPageBeginsWithASheetAndHomeShowsItSmall() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        ana.bring(Samples.sales(), "Sales of a starting sheet");
        long dashboard = ana.json("POST", "/api/dashboards", Map.of("title", "From a sheet?"))
                .get("id")
                .asLong();
        Page page = composing(dashboard);
        page.waitForSelector("[data-start=ONE_QUESTION] svg rect");
        page.selectOption(".dock select", new SelectOption().setLabel("Sales of a starting sheet"));
        page.click("[data-start=ONE_QUESTION]");
        page.waitForSelector(".visual-map canvas");
        page.waitForSelector(".visual-bars svg rect");
        waitForText(page.locator("#undo"), "visuals");
        assertThat(page.locator(".starts").count())
                .as("the page is not empty any more")
                .isZero();

        page.navigate("/");
        page.waitForSelector(".plan[data-dashboard='" + dashboard + "'] .plan-map .plan-mini svg");
        page.waitForSelector(".plan[data-dashboard='" + dashboard + "'] .plan-bars .plan-mini rect");
    }
}
