package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.BoundingBox;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import tools.jackson.databind.JsonNode;

@DisplayName("Composing")
class ComposingTest extends BrowserTest {

    private long dashboard;

    @BeforeEach
    void aDashboard() throws Exception {
        dashboard = Samples.dashboard(sarnik.client("ana"), "Composing?");
    }

    private Page compose(String name) {
        Page page = sheet(name, dashboard, "/compose");
        page.waitForSelector(".question");
        return page;
    }

    private JsonNode document() throws Exception {
        return sarnik.client("ana")
                .read(sarnik.client("ana").get("/api/dashboards/" + dashboard))
                .get("document");
    }

    private static void choose(Page page, String slot, String option) {
        page.click(".dock .slot[aria-label^='" + slot + "']");
        page.click(".popup-option >> text=" + option);
        page.waitForCondition(() -> page.locator(".popup").count() == 0);
    }

    @Test
    void aSlotChangesTheVisualAndUndoTakesItBack() throws Exception {
        Page page = compose("ana");
        page.click("[data-visual=v2] .visual-title");
        choose(page, "measure", "number of rows");
        waitForText(page.locator(".figure-number"), "6");
        waitForText(page.locator("#undo"), "Undo the measure of the figure “Litres”");
        page.click("#undo");
        waitForText(page.locator(".figure-number"), "179");
        page.keyboard().press("Control+Shift+Z");
        waitForText(page.locator(".figure-number"), "6");
        assertThat(document().at("/visuals/v2/measure/summary").asString()).isEqualTo("COUNT");
    }

    @Test
    void whatIsChosenBeforeTheFiguresHaveComeStaysChosen() {
        Page page = page("ana");
        AtomicReference<Route> held = new AtomicReference<>();
        page.route("**/frames", held::set);
        page.navigate("/dashboards/" + dashboard + "/compose");
        page.click("[data-visual=v2] .visual-title");
        page.waitForSelector(".dock .slot[aria-label^='measure']");
        page.waitForCondition(() -> held.get() != null);
        held.get().resume();
        page.unroute("**/frames");
        waitForText(page.locator(".figure-number"), "179");
        assertThat(page.locator("[data-visual=v2].is-selected").count()).isEqualTo(1);
        assertThat(page.locator(".dock .slot[aria-label^='measure']").count()).isEqualTo(1);
    }

    @Test
    void theSentenceGrowsAsTheNeedGrows() throws Exception {
        Page page = compose("ana");
        page.click("[data-visual=v3] .visual-title");
        choose(page, "rule", "product is still");
        waitForText(page.locator(".dock-brief"), "only where product is still");
        page.click(".dock .slot[aria-label^='rule']");
        page.click("text=Leave rule out");
        waitForText(page.locator(".dock-brief"), "+ rule");
        page.click("text=Finish");
        page.click(".dock .slot[aria-label^='title']");
        page.fill(".popup input", "Best <towns>");
        page.keyboard().press("Enter");
        waitForText(page.locator("[data-visual=v3] .visual-title"), "Best <towns>");
        assertThat(document().at("/visuals/v3/title").asString()).isEqualTo("Best <towns>");
    }

    @Test
    void aSlotIsChosenWithKeysAlone() {
        Page page = compose("ana");
        page.focus("[data-visual=v1] .visual-title");
        Locator classes = page.locator(".dock .slot[aria-label^='number of classes']");
        classes.waitFor();
        classes.focus();
        page.keyboard().press("Enter");
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        waitForText(page.locator(".dock-brief"), "in three natural classes");
        assertThat(page.evaluate("() => document.activeElement.dataset.slot"))
                .isEqualTo("/visuals/v1/layers/l1/colour/classes");
    }

    @Test
    void aVisualIsMovedWithTheMouseAndWithKeys() throws Exception {
        Page page = compose("ana");
        BoundingBox title = box(page.locator("[data-visual=v2] .visual-title"));
        page.mouse().move(title.x + 20, title.y + 8);
        page.mouse().down();
        page.mouse().move(title.x + 60, title.y + 20);
        page.mouse().move(title.x + 360, title.y + 8, new com.microsoft.playwright.Mouse.MoveOptions().setSteps(5));
        page.mouse().up();
        waitForText(page.locator("#undo"), "the place on the sheet");
        int moved = document().at("/visuals/v2/at/x").asInt();
        assertThat(moved).isEqualTo(18);
        page.focus("[data-visual=v2] .visual-title");
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Shift+ArrowLeft");
        page.waitForCondition(() -> at("/visuals/v2/at/w") == 5);
        assertThat(at("/visuals/v2/at/y")).isPositive();
    }

    private int at(String pointer) {
        try {
            return document().at(pointer).asInt();
        } catch (Exception failed) {
            throw new IllegalStateException(failed);
        }
    }

    @Test
    void takingAVisualAwayTakesItsLinksAlong() throws Exception {
        Page page = compose("ana");
        page.click("[data-visual=v3] .visual-title");
        page.click(".dock >> text=Take away");
        page.waitForCondition(() -> page.locator("[data-visual=v3]").count() == 0);
        assertThat(document().get("links").propertyNames()).containsExactly("k1");
        page.click("#undo");
        page.waitForSelector("[data-visual=v3] .bar");
        assertThat(document().get("links").propertyNames()).contains("k3");
    }

    @Test
    void twoPeopleKeepEachOthersWork() throws Exception {
        sarnik.client("ana").json("PUT", "/api/dashboards/" + dashboard + "/shared", true);
        Page ana = compose("ana");
        Page berta = compose("berta");
        ana.fill("#sheet-title input", "Ana's question?");
        ana.keyboard().press("Enter");
        waitForText(ana.locator("#undo"), "title");
        berta.click("[data-visual=v2] .visual-title");
        choose(berta, "measure", "number of rows");
        waitForText(
                berta.locator(".said"),
                "ana has changed this dashboard meanwhile: the dashboard's title. Your change is put on top.");
        assertThat(berta.inputValue("#sheet-title input")).isEqualTo("Ana's question?");
        assertThat(document().get("title").asString()).isEqualTo("Ana's question?");
        assertThat(at("/visuals/v2/at/w")).isEqualTo(6);

        ana.click("[data-visual=v2] .visual-title");
        choose(ana, "measure", "maximum of litres");
        waitForText(ana.locator(".said"), "Your own change to the same thing was not made");
        waitForText(ana.locator("[data-visual=v2] .figure-number"), "6");
        assertThat(document().at("/visuals/v2/measure/summary").asString()).isEqualTo("COUNT");
        ana.click(".said >> text=Make it all the same");
        waitForText(ana.locator("[data-visual=v2] .figure-number"), "100");
        assertThat(document().at("/visuals/v2/measure/summary").asString()).isEqualTo("MAXIMUM");
    }

    @Test
    void whatReadersTypeInAddressesOrFilesNeverRuns() throws Exception {
        Path file = RunningSarnik.file(
                "bad.csv",
                "town,province,country,<img src=x "
                        + "onerror=alert(1)>,v\nSoria,Soria,Spain,<script>alert(2)</script>,1\nBurgos,Burgos,"
                        + "Spain,\"'\"\"><svg onload=alert(3)>\",2\n");
        long bad = sarnik.client("ana").bring(file, "<i>Bad</i>");
        JsonNode opened = sarnik.client("ana").read(sarnik.client("ana").get("/api/dashboards/" + dashboard));
        String column = "<img src=x onerror=alert(1)>";
        Object patch = java.util.List.of(
                Map.of(
                        "op",
                        "replace",
                        "path",
                        "/visuals/v3",
                        "value",
                        Map.of(
                                "type",
                                "bars",
                                "page",
                                "p1",
                                "at",
                                Map.of("x", 12, "y", 4, "w", 12, "h", 6),
                                "title",
                                "<b>t</b>",
                                "dataset",
                                bad,
                                "category",
                                column,
                                "measure",
                                Map.of("summary", "COUNT"))),
                Map.of(
                        "op",
                        "replace",
                        "path",
                        "/filters/f1",
                        "value",
                        Map.of(
                                "type", "choice", "page", "p1", "order", 1, "dataset", bad, "column", column, "title",
                                "")));
        sarnik.client("ana")
                .read(sarnik.client("ana")
                        .send(
                                "PATCH",
                                "/api/dashboards/" + dashboard,
                                Samples.JSON_PATCH,
                                tools.jackson.databind.json.JsonMapper.builder()
                                        .build()
                                        .writeValueAsString(patch),
                                "If-Match",
                                "\"" + opened.get("revision").asLong() + "\""));
        Page page = compose("ana");
        page.click("[data-visual=v3] .visual-title");
        page.waitForSelector(".dock .slot[aria-label^='category']");
        page.click(".filter-choose");
        page.click(".popup label >> nth=0");
        page.waitForSelector("#showing b");
        assertThat(page.locator("img, script:not([src]):not([type='application/json']), svg[onload]")
                        .count())
                .isZero();
        assertThat(page.locator("[data-visual=v3] .visual-title").textContent()).isEqualTo("<b>t</b>");
    }

    @Test
    void aDashboardIsTakenAwayOnlyAfterAsking() {
        Page page = compose("ana");
        page.click("#remove-dashboard");
        waitForText(page.locator(".said"), "with its whole history");
        page.click(".said >> text=Take it away");
        page.waitForURL(sarnik.base() + "/");
        assertThat(page.navigate("/dashboards/" + dashboard).status()).isEqualTo(404);
        assertThat(page.textContent("main")).contains("no such dashboard");
    }
}
