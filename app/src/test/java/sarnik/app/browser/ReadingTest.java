package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;

@DisplayName("Reading")
class ReadingTest extends BrowserTest {

    private static long dashboard;

    @BeforeEach
    void aDashboard() throws Exception {
        if (dashboard != 0) return;
        dashboard = Samples.dashboard(sarnik.client("ana"), "Reading?");
        sarnik.client("ana").publish(dashboard);
    }

    @Test
    void aBarPickNarrowsTheMapAndTheFigureAndIsReleasedByPickingAgain() {
        Page page = sheet("rui", dashboard, "");
        page.click(".bar[data-key] >> nth=0");
        waitForText(page.locator(".figure-number"), "100");
        assertThat(page.locator(".bar.is-picked").count()).isEqualTo(1);
        assertThat(page.locator(".bar.is-dim").count()).isEqualTo(3);
        page.click(".bar.is-picked");
        waitForText(page.locator(".figure-number"), "179");
        assertThat(page.url()).doesNotContain("p.v3");
    }

    @Test
    void aPageThatIsLeftSaysThatNobodyWaitsForItsQuestion() {
        Page page = sheet("rui", dashboard, "");
        page.evaluate("dispatchEvent(new PageTransitionEvent('pagehide'))");
        page.route("**/frames", route -> {
            /* The answer takes long. */
        });
        Request asked = page.waitForRequest("**/frames", () -> page.click(".bar[data-key] >> nth=0"));
        Request left = page.waitForRequest(
                "**/api/questions", () -> page.evaluate("dispatchEvent(new PageTransitionEvent('pagehide'))"));
        assertThat(left.method()).isEqualTo("DELETE");
        assertThat(left.headers().get("sarnik-page"))
                .isNotBlank()
                .isEqualTo(asked.headers().get("sarnik-page"));
        assertThat(left.response().status()).isEqualTo(204);
    }

    @Test
    void aBoxDraggedWithAltPicksWhatItHolds() {
        Page page = sheet("rui", dashboard, "");
        double[] burgos = onScreen(page, -3.70184, 42.35022);
        double[] soria = onScreen(page, -2.46883, 41.76401);
        page.keyboard().down("Alt");
        page.mouse().move(burgos[0] - 25, burgos[1] - 25);
        page.mouse().down();
        page.mouse().move(burgos[0] + 10, burgos[1] + 10);
        page.mouse().move(soria[0] + 25, soria[1] + 25);
        page.mouse().up();
        page.keyboard().up("Alt");
        waitForText(page.locator(".figure-number"), "72");
        assertThat(page.locator("#showing").textContent()).contains("Picked: Burgos and Soria");
    }

    @Test
    void barsAndTheirPicksWorkWithKeysAlone() {
        Page page = sheet("rui", dashboard, "");
        page.focus(".bar >> nth=1");
        page.keyboard().press("Enter");
        waitForText(page.locator(".figure-number"), "42");
        page.focus(".bar >> nth=2");
        page.keyboard().press("Shift+Enter");
        waitForText(page.locator(".figure-number"), "72");
        assertThat(page.getAttribute(".bar >> nth=1", "aria-pressed")).isEqualTo("true");
    }

    @Test
    void theMapMovesAndZoomsWithKeysAndItsTicksFollow() {
        Page page = sheet("rui", dashboard, "");
        page.focus(".map-view");
        String before = page.locator(".map-ticks").innerHTML();
        assertThat(page.locator(".map-ticks").textContent()).contains("N").contains("W");
        page.keyboard().press("ArrowLeft");
        page.waitForCondition(() -> !page.locator(".map-ticks").innerHTML().equals(before));
        double zoom = zoom(page);
        page.keyboard().press("-");
        page.waitForCondition(() -> zoom(page) < zoom);
    }

    private static double zoom(Page page) {
        return ((Number) page.evaluate("() => document.querySelector('.map-view').olMap.getView().getZoom()"))
                .doubleValue();
    }

    @Test
    void theWheelScrollsPastTheMapUntilItIsPressed() {
        Page page = sheet("rui", dashboard, "");
        BoundingBox map = box(page.locator(".map-view"));
        page.mouse().move(map.x + map.width / 2, map.y + 40);
        double zoom = zoom(page);
        page.mouse().wheel(0, -300);
        page.waitForSelector(".map-hint.is-on");
        page.waitForTimeout(300);
        assertThat(zoom(page)).isEqualTo(zoom);
        page.focus(".map-view");
        page.mouse().wheel(0, -300);
        page.waitForCondition(() -> zoom(page) > zoom);
    }

    @Test
    void filtersNarrowEverythingAndCanBeTakenAwayOneByOne() {
        Page page = sheet("rui", dashboard, "");
        page.click(".filter-choose");
        page.click(".popup label >> text=still");
        waitForText(page.locator(".figure-number"), "150");
        page.keyboard().press("Escape");
        page.click("[data-filter-part=f2-choose]");
        page.fill("[aria-label='Day from']", "2026-01-02");
        page.keyboard().press("Enter");
        waitForText(page.locator(".figure-number"), "140");
        assertThat(page.locator("#showing").textContent())
                .contains("Product is still")
                .contains("Day from 2 January 2026");
        page.click("[aria-label='Take away: Product is still']");
        waitForText(page.locator(".figure-number"), "169");
    }

    @Test
    void onlyWhatAGestureTouchesIsAskedForAgain() {
        Page page = sheet("rui", dashboard, "");
        List<String> asked = new java.util.ArrayList<>();
        page.onRequest(r -> {
            if (r.url().endsWith("/frames")) asked.add(r.postData());
        });
        page.click(".bar >> nth=0");
        waitForText(page.locator(".figure-number"), "100");
        assertThat(asked).singleElement().asString().contains("\"ids\":[\"v1\",\"v2\"]");
    }

    @Test
    void theFiguresStandInATableFromWhichCanBePickedToo() {
        Page page = sheet("rui", dashboard, "");
        page.hover(".visual-map");
        page.click(".visual-map [title='The figures as a table']");
        assertThat(page.locator(".sheet-dialog tbody tr").allTextContents())
                .containsExactly("ZamoraZamora100100", "BurgosBurgos4221", "SoriaSoria3015");
        page.check("[aria-label='Pick Soria']");
        waitForText(page.locator(".figure-number"), "30");
        page.click(".sheet-dialog >> text=Close");
        page.locator(".sheet-dialog").waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.DETACHED));
    }

    @Test
    void anAddressThatNoLongerFitsSaysSoAndShowsTheRest() {
        Page page = sheet("rui", dashboard, "?f.f1=beer&p.v9=x");
        assertThat(page.locator("#misfits").textContent())
                .contains("asks for beer")
                .contains("no longer has");
        waitForText(page.locator(".figure-number"), "179");
        assertThat(page.url()).doesNotContain("beer");
    }

    @Test
    void nothingLeftIsSaidOnTheVisual() {
        Page page = sheet("rui", dashboard, "?f.f2=2020-01-01..2020-01-02");
        assertThat(page.locator(".visual-figure .empty-note").textContent())
                .startsWith("No row is left after this step: Day from 1 January 2020");
    }

    @Test
    void onAPhoneTheVisualsStandBelowEachOtherAndNothingIsCutOff() {
        Page phone = phone("rui");
        phone.navigate("/dashboards/" + dashboard);
        drawn(phone);
        assertThat((Integer) phone.evaluate("() => document.documentElement.scrollWidth"))
                .isLessThanOrEqualTo(390);
        BoundingBox map = box(phone.locator(".visual-map"));
        BoundingBox figure = box(phone.locator(".visual-figure"));
        assertThat(figure.y).isGreaterThan(map.y + map.height - 1);
        assertThat(map.width).isGreaterThan(340);
        BoundingBox view = box(phone.locator(".map-view"));
        assertThat(box(phone.locator(".map-key")).y)
                .as("the key hides nothing of the map")
                .isGreaterThanOrEqualTo(view.y + view.height);
    }

    @Test
    void aVisualCanBeEnlargedAndPutBack() {
        Page page = sheet("rui", dashboard, "");
        page.hover(".visual-bars");
        page.click(".visual-bars [title=Enlarge]");
        assertThat(box(page.locator(".visual-bars")).width).isGreaterThan(1200);
        page.keyboard().press("Escape");
        assertThat(box(page.locator(".visual-bars")).width).isLessThan(700);
    }

    @Test
    void theMoodIsKept() {
        Page page = sheet("rui", dashboard, "");
        page.click("#mood");
        assertThat(page.getAttribute("html", "data-mood")).isEqualTo("night");
        page.reload();
        assertThat(page.getAttribute("html", "data-mood")).isEqualTo("night");
    }
}
