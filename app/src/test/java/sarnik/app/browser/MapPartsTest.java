package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.MapSamples.figure;
import static sarnik.app.testing.MapSamples.map;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.Geolocation;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.RunningSarnik;

@DisplayName("What a map has besides the layers of its data")
class MapPartsTest extends MapBrowserTest {

    @Nested
    @DisplayName("without data")
    class WithoutData {

        private static final String OUTLINES =
                "\"kind\":\"OUTLINES\",\"set\":\"Provinces of Spain\",\"label\":{},\"border\":1.5";

        @Test
        void outlinesAloneAreWhereTheMapStarts() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", OUTLINES));
            page.waitForFunction("() => document.querySelector('.map-view').dataset.shaped > 0");
            assertThat((boolean) page.evaluate("""
                    () => { const map = document.querySelector('.map-view').olMap;
                      const [west, south, east, north] = map.getView().calculateExtent();
                      // The Canary Islands and Catalonia, metres of Web Mercator.
                      return west < -1.98e6 && east > 3.5e5 && south < 3.25e6 && north > 5.4e6; }""")).isTrue();
            assertThat(page.locator(".map-credit").textContent()).contains("Instituto Geográfico Nacional");
            assertThat(page.locator(".map-notes").isVisible()).isFalse();
        }

        @Test
        void theyAreTurnedOnAndOffAndFiguresAreThoseOfTheData() throws Exception {
            Page page = open(
                    "rui",
                    map(
                            "v1",
                            0,
                            18,
                            "",
                            "\"dataset\":%d".formatted(samples.towns),
                            OUTLINES,
                            "\"kind\":\"PICTURES\",\"set\":\"Gone\""));
            page.waitForFunction("() => document.querySelector('.map-view').dataset.shaped > 0");
            assertThat(page.locator(".map-notes").textContent()).contains("The source Gone has been taken away");
            Locator names = page.locator(".key-name");
            assertThat(names.allTextContents()).contains("Gone", "Provinces of Spain");
            names.filter(new Locator.FilterOptions().setHasText("Provinces of Spain"))
                    .locator("input")
                    .uncheck();
            page.waitForFunction("() => location.search.includes('h.v1=l2')");
            page.click("[aria-label='The figures as a table']");
            page.waitForSelector(".sheet-dialog table tbody tr");
            assertThat(page.locator(".sheet-dialog thead").textContent()).contains("number of rows");
        }
    }

    @Nested
    @DisplayName("with far-off parts")
    class WithFarOffParts {

        /** Seventy towns close together and three on the Canary Islands. */
        private long islands() throws Exception {
            StringBuilder rows = new StringBuilder("spot,lat,lon,litres\n");
            for (int i = 0; i < 70; i++)
                rows.append("m%d,%.3f,%.3f,1\n".formatted(i, 38.5 + i % 8 * 0.6, -7 + i / 8 * 0.9));
            rows.append("i1,28.1,-15.4,100\ni2,28.3,-16.5,200\ni3,28.9,-13.6,300\n");
            return sarnik.client("ana").bring(RunningSarnik.file("islands.csv", rows.toString()), "Zz islands");
        }

        @Test
        void theyStandInAFrameThatIsPressedAsTheMapIs() throws Exception {
            long islands = islands();
            String layer = "\"dataset\":%d".formatted(islands);
            Page page = open("rui", map("v1", 0, 18, "\"insets\":true", layer) + "," + figure(islands, "litres"));
            page.waitForSelector(".map-inset canvas");
            assertThat(page.locator(".map-inset").count()).isEqualTo(1);
            assertThat(page.locator(".map-inset .ol-scale-line").textContent()).contains("km");
            assertThat(page.locator(".map-away").isVisible())
                    .as("nothing is beyond the edge")
                    .isFalse();
            waitForText(page.locator(".figure-number"), "670");
            BoundingBox frame = page.locator(".map-inset").boundingBox();
            // The eastern island, by the formula of Web Mercator.
            double x = 6_378_137 * Math.toRadians(-13.6);
            double y = 6_378_137 * Math.log(Math.tan(Math.PI / 4 + Math.toRadians(28.9) / 2));
            List<?> at = (List<?>) page.evaluate(
                    "at => document.querySelector('.map-inset').olMap.getPixelFromCoordinate(at)", List.of(x, y));
            page.mouse()
                    .click(frame.x + ((Number) at.get(0)).doubleValue(), frame.y + ((Number) at.get(1)).doubleValue());
            page.waitForFunction("() => new URLSearchParams(location.search).has('p.v1')");
            waitForText(page.locator(".figure-number"), "300");
            page.evaluate("() => document.querySelector('.map-view').olMap.getView().setZoom(3)");
            page.waitForFunction("() => document.querySelector('.map-inset').hidden");
        }

        @Test
        void withoutThemTheyAreToldOf() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", "\"dataset\":%d".formatted(islands())));
            page.waitForSelector(".map-away >> text=3 places lie beyond the edge");
            assertThat(page.locator(".map-inset").count()).isZero();
        }
    }

    @Test
    void aNoteBesideAPlaceIsToldToThoseWhoCannotSeeIt() throws Exception {
        String towns = "\"dataset\":%d".formatted(samples.towns);
        Page page = open("rui", map("v1", 0, 18, "", towns));
        Locator first = page.locator(".map-reach button").first();
        first.waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.ATTACHED));
        first.focus();
        page.keyboard().press("Enter");
        page.waitForFunction("() => new URLSearchParams(location.search).has('p.v1')");
        String id = (String) page.evaluate("() => new URLSearchParams(location.search).get('p.v1')");
        Page noted = open(
                "rui",
                map("v1", 0, 18, "\"pinned\":[{\"at\":\"%s\",\"text\":\"Closed in May\"}]".formatted(id), towns));
        assertThat(noted.locator("[id^=summary]").textContent()).containsPattern("Note at .+: Closed in May\\.");
    }

    @Test
    void showsWhereTheReaderIsOnlyWhereAskedAndGiven() throws Exception {
        String towns = "\"dataset\":%d".formatted(samples.towns);
        Page page = open("rui", map("v1", 0, 18, "", towns));
        page.context().grantPermissions(List.of("geolocation"));
        page.context().setGeolocation(new Geolocation(41.764, -2.469).setAccuracy(40));
        page.click("[aria-label='Find a place']");
        page.click(".popup-option >> text=Where I am");
        page.waitForSelector(".said >> text=within 40 m");
        page.waitForFunction("() => document.querySelector('.map-view').olMap.getView().getZoom() > 12");
        Page other = open("rui", map("v1", 0, 18, "\"withheld\":[\"HERE\"]", towns));
        other.click("[aria-label='Find a place']");
        assertThat(other.locator(".popup-option >> text=Where I am").count()).isZero();
    }
}
