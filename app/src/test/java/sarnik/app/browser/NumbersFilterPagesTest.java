package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("A range of numbers in the strip")
class NumbersFilterPagesTest extends BrowserTest {

    private Page composed() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "How many litres?");
        JsonNode opened = ana.read(ana.get("/api/dashboards/" + dashboard));
        long dataset =
                opened.get("document").get("visuals").get("v2").get("dataset").asLong();
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                "[{\"op\":\"add\",\"path\":\"/filters/f3\",\"value\":{\"type\":\"numbers\",\"page\":\"p1\","
                        + "\"order\":3,\"dataset\":"
                        + dataset + ",\"column\":\"litres\",\"title\":\"Litres\"}}]",
                "If-Match",
                "\"" + opened.get("revision").asLong() + "\""));
        return sheet("ana", dashboard, "");
    }

    @Test
    void isDraggedTypedAndStandsInTheAddress() throws Exception {
        Page page = composed();
        String before = page.textContent(".figure-number");
        page.waitForSelector(".spread rect");
        BoundingBox spread = page.locator(".spread").boundingBox();
        // The upper handle is dragged to the left, and the figures follow before it is let go.
        page.mouse().move(spread.x + spread.width - 5, spread.y + spread.height - 4);
        page.mouse().down();
        page.mouse()
                .move(spread.x + spread.width / 2, spread.y + spread.height - 4, new Mouse.MoveOptions().setSteps(10));
        page.waitForFunction("before => document.querySelector('.figure-number').textContent !== before", before);
        page.mouse().up();
        page.waitForFunction("() => location.search.includes('f.f3=')");
        waitForText(page.locator("#showing"), "Litres up to");
        assertThat(page.locator(".spread rect.is-out").count()).isBetween(6, 20);
        // However far it was dragged, it is one step back.
        page.goBack();
        waitForText(page.locator("#showing"), "Now showing everything");
        waitForText(page.locator(".figure-number"), before);

        page.fill("[data-filter-part=f3-from]", "25");
        page.keyboard().press("Tab");
        waitForText(page.locator("#showing"), "Litres from 25");
        assertThat(page.url()).contains("f.f3=25..");
        // Upside down it is turned round.
        page.fill("[data-filter-part=f3-to]", "10");
        page.keyboard().press("Tab");
        waitForText(page.locator("#showing"), "Litres from 10 to 25");
        page.focus("[data-filter-part=f3-to-handle]");
        page.keyboard().press("End");
        waitForText(page.locator("#showing"), "Litres from 10");
        page.navigate(page.url().replaceFirst("f\\.f3=[^&]*", "f.f3=many"));
        drawn(page);
        waitForText(page.locator("#misfits"), "range of numbers");
    }
}
