package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.MapSamples.figure;
import static sarnik.app.testing.MapSamples.map;
import static sarnik.app.testing.MapSamples.sum;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.nio.file.Files;
import java.util.List;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import sarnik.demo.SarnikClient;
import sarnik.standins.RemoteTable;

@DisplayName("A map")
class MapTest extends MapBrowserTest {

    @Nested
    @DisplayName("of areas")
    class OfAreas {

        @Test
        void anAreaIsPickedByPressingItAndNarrowsTheRest() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")) + "," + figure(samples.provinces, "rate"));
            press(page, SORIA);
            // 42 · 53 mod 97
            waitForText(page.locator(".figure-number"), "92");
            assertThat(page.locator("#showing").textContent()).contains("Picked: Soria");
        }

        @Test
        void theRowTrailSaysHowManyRowsLackTheFigure() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")) + "," + figure(samples.provinces, "rate"));
            page.hover(".visual-figure");
            page.click(".visual-figure [title='Which rows are these?']");
            assertThat(page.locator(".trail li").first().textContent()).contains("52 rows");
            assertThat(page.locator(".trail .without").textContent())
                    .contains("Not in the figures: no value of “rate”")
                    .contains("2 rows");
        }

        @Test
        void thatManyRowsLackTheFigureIsToldBesideIt() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")) + "," + figure(samples.provinces, "rate"));
            assertThat(page.locator(".figure-sure").textContent()).as("2 of 52").isEmpty();
            press(page, TERUEL);
            waitForText(page.locator(".figure-sure"), "Not in the figures: no value of “rate”, 100 % of the rows.");
            page.keyboard().down("Shift");
            press(page, SORIA);
            page.keyboard().up("Shift");
            waitForText(page.locator(".figure-sure"), "50 % of the rows");
            waitForText(page.locator(".figure-number"), "92");
        }

        @Test
        void anAreaPickedNarrowsADatasetOfTowns() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")) + "," + figure(samples.towns, "litres"));
            press(page, MADRID);
            page.waitForFunction("() => document.querySelector('#showing').textContent.includes('Madrid')");
            page.hover(".visual-figure");
            page.click(".visual-figure [title='Which rows are these?']");
            assertThat(page.locator(".trail").textContent()).contains("Picked: Madrid");
        }

        @Test
        void pressingAClassOfTheKeyPicksItsAreas() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")) + "," + figure(samples.provinces, "rate"));
            Locator rows = page.locator(".map-key-row");
            int count = Integer.parseInt(rows.last().locator("span").last().textContent());
            assertThat(rows.last().textContent()).startsWith("no data");
            assertThat(count).isEqualTo(2);
            int highest = Integer.parseInt(rows.nth(3).locator("span").last().textContent());
            rows.nth(3).click();
            page.waitForFunction(
                    "n => new URLSearchParams(location.search).get('p.v1')?.split(',').length === n", highest);
        }

        @Test
        void whatLiesBeyondTheEndsCanBePicked() throws Exception {
            Page page = open(
                    "rui",
                    map("v1", 0, 18, "", provinces(",\"low\":10,\"high\":80")) + ","
                            + figure(samples.provinces, "rate"));
            Locator above = page.locator(".map-key-row:has-text('above 80')");
            int count = Integer.parseInt(above.locator("span").last().textContent());
            // Rates are i · 53 mod 97 for the provinces 1 to 52 but 16 and 44.
            assertThat(count).isEqualTo((int) IntStream.rangeClosed(1, 52)
                    .filter(i -> i != 16 && i != 44 && i * 53 % 97 > 80)
                    .count());
            above.click();
            page.waitForFunction(
                    "n => new URLSearchParams(location.search).get('p.v1')?.split(',').length === n", count);
        }

        @Test
        void theFiguresAreATableOneKeyAway() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")));
            page.focus(".map-view");
            page.keyboard().press("t");
            assertThat(page.locator(".sheet-dialog tbody tr").count()).isEqualTo(52);
            assertThat(page.locator(".sheet-dialog tbody tr")
                            .first()
                            .locator("td")
                            .last()
                            .textContent())
                    .isEqualTo("92");
        }

        @Test
        void colourMovesAndShapesStay() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces(",\"offered\":[{\"summary\":\"COUNT\"}]")));
            int[] asked = {0};
            page.onRequest(r -> {
                if (r.url().contains("/shapes/")) asked[0]++;
            });
            page.selectOption(".key-choice", "1");
            page.waitForFunction("() => document.querySelector('.key-choice').value === '1' && "
                    + "location.search.includes('s.v1.l1=1')");
            page.waitForFunction("() => document.querySelectorAll('.map-key-row').length === 1");
            assertThat(asked[0]).isZero();
        }
    }

    @Nested
    @DisplayName("with keys")
    class WithKeys {

        @Test
        void tabGoesThroughPlacesLargestFirstAndEnterPicks() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", symbols("")) + "," + figure(samples.towns, "litres"));
            Locator first = page.locator(".map-reach button").first();
            String words = first.getAttribute("aria-label");
            double amount = Double.parseDouble(words.replaceAll(".*litres ", "").replace(",", ""));
            assertThat(page.locator(".map-reach button").nth(1).getAttribute("aria-label"))
                    .satisfies(next -> assertThat(Double.parseDouble(
                                    next.replaceAll(".*litres ", "").replace(",", "")))
                            .isLessThanOrEqualTo(amount));
            first.focus();
            assertThat(page.locator(".tip").isVisible()).isTrue();
            page.keyboard().press("Enter");
            page.waitForFunction(
                    "() => document.querySelector('.map-reach button').getAttribute('aria-pressed') === 'true'");
            page.keyboard().press("Tab");
            assertThat(page.evaluate("() => document.activeElement.parentElement.previousElementSibling !== null"))
                    .isEqualTo(true);
        }

        @Test
        void theMapSaysWhatItShows() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")));
            String id = page.getAttribute(".map-view", "aria-describedby");
            assertThat(page.locator("#" + id).textContent())
                    .contains("52 areas of Provinces of Spain")
                    .contains("2 without data");
        }
    }

    @Nested
    @DisplayName("of symbols")
    class OfSymbols {

        @Test
        void aPickedPlaceIsToldOfWithThoseNearItAndMostLikeIt() throws Exception {
            Page page = open(
                    "rui",
                    map(
                            "v1",
                            0,
                            18,
                            "",
                            symbols(",\"tip\":{\"measures\":[{\"summary\":\"COUNT\"}],\"over\":\"day\"}")));
            page.locator(".map-reach button").first().press("Enter");
            page.waitForSelector(".told-box .told-chart");
            assertThat(page.locator(".told-box").textContent())
                    .contains("sum of litres")
                    .contains("number of rows");
            page.fill(".told-find [aria-label='How many alike']", "3");
            page.click(".told-find >> text=Pick the");
            page.waitForFunction("() => new URLSearchParams(location.search).get('p.v1')?.split(',').length === 4");
            assertThat(page.locator(".told-others").textContent()).contains("deviations away");
            page.fill(".told-find [aria-label='Kilometres']", "2000");
            page.click(".told-find >> text=Pick all within");
            page.waitForFunction("() => location.search.includes('p.v1=~near.2000000.')");
            page.waitForFunction("() => document.getElementById('showing').textContent.includes('within 2,000 km of')");
            assertThat(page.locator(".map-reach button[aria-pressed='true']").count())
                    .isGreaterThan(50);
        }

        @Test
        void theReaderChoosesWhatSizesStandFor() throws Exception {
            Page page = open(
                    "rui",
                    map(
                            "v1",
                            0,
                            18,
                            "",
                            ("\"dataset\":%d,\"size\":{%s,\"rule\":\"AREA\",\"radius\":24,"
                                            + "\"offered\":[{\"summary\":\"COUNT\"}]}")
                                    .formatted(samples.towns, sum("litres"))));
            String before = page.locator(".map-reach button").first().getAttribute("aria-label");
            assertThat(before).contains("sum of litres");
            page.selectOption("[aria-label='What sizes stand for']", "1");
            page.waitForFunction("() => document.querySelector('.map-reach "
                    + "button').getAttribute('aria-label').includes('number of rows 1')");
            assertThat(page.url()).contains("s.v1.l1.size=1");
        }

        @Test
        void aPlaceIsToldOfInTheAuthorsWords() throws Exception {
            Page page = open(
                    "rui",
                    map(
                            "v1",
                            0,
                            18,
                            "",
                            symbols(",\"tip\":{\"measures\":[{\"summary\":\"COUNT\"}],\"text\":\"{place} has "
                                    + "{number of rows} row and <i>no more</i>\"}")));
            page.locator(".map-reach button").first().press("Enter");
            page.waitForSelector(".told-box .told-text");
            assertThat(page.locator(".told-text").textContent()).endsWith("has 1 row and <i>no more</i>");
        }

        @Test
        void onAPhoneWhatIsToldStandsBelowTheMapAndLeavesItItsRoom() throws Exception {
            Page page = phone("rui");
            page.navigate("/dashboards/" + samples.dashboard("Phone", map("v1", 0, 18, "", symbols(""))));
            drawn(page);
            page.locator(".map-reach button").first().press("Enter");
            page.waitForSelector(".told-box .told-find");
            BoundingBox view = box(page.locator(".map-view"));
            assertThat(view.height).isGreaterThan(300);
            assertThat(box(page.locator(".told-box")).y).isGreaterThan(view.y + view.height);
            assertThat(page.locator(".tip").isVisible()).isFalse();
        }

        @Test
        void aRingDrawnByHandPicksWhatLiesWithin() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", symbols("")));
            page.focus(".map-view");
            page.keyboard().press("l");
            page.waitForSelector(".map-ring");
            double[][] ring = {{-4.6, 39.9}, {-3.0, 39.9}, {-3.0, 41.0}, {-4.6, 41.0}};
            for (int i = 0; i < ring.length; i++) {
                double[] at = onScreen(page, ring[i][0], ring[i][1]);
                page.mouse().move(at[0], at[1]);
                if (i == 0) page.mouse().down();
            }
            page.mouse().up();
            page.waitForFunction("() => new URLSearchParams(location.search).get('p.v1')?.split(',').length > 3");
            waitForText(page.locator("#showing"), "Alcal");
            assertThat(page.locator(".map-ring").count()).isZero();
        }

        @Test
        void crowdsOpenAsOneZooms() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", symbols(",\"gather\":true")));
            page.waitForFunction("() => [...document.querySelectorAll('.map-reach button')].some(b => "
                    + "b.textContent.includes('places around'))");
            double zoom = zoom(page, 0);
            int before = page.locator(".map-reach button").count();
            page.click("[aria-label=Nearer]");
            page.click("[aria-label=Nearer]");
            page.waitForFunction("z => document.querySelector('.map-view').olMap.getView().getZoom() > z + 1.5", zoom);
            page.waitForFunction("n => document.querySelectorAll('.map-reach button').length > n", before);
        }

        @Test
        void layersAreTurnedOffAndOnByTheReaderAndTheAddressSaysSo() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces(""), symbols(",\"hidden\":true")));
            assertThat(page.locator(".key-name").allTextContents()).containsExactly("Towns", "Rates");
            page.check(".key-name >> text=Towns");
            page.waitForFunction("() => location.search.includes('h.v1=l2') && document.querySelectorAll('.key-layer "
                    + "h3').length === 2");
            page.reload();
            drawn(page);
            assertThat(page.isChecked(".key-layer:has-text('Towns') input")).isTrue();
        }
    }

    @Nested
    @DisplayName("for getting about")
    class GettingAbout {

        @Test
        void twoMapsMoveTogether() throws Exception {
            Page page = open(
                    "rui",
                    map("v1", 0, 12, "\"together\":\"both\"", symbols("")) + ","
                            + map("v2", 12, 12, "\"together\":\"both\"", provinces("")));
            double before = zoom(page, 1);
            page.locator("[aria-label=Nearer]").first().click();
            page.waitForFunction(
                    "z => document.querySelectorAll('.map-view')[1].olMap.getView().getZoom() > z + 0.9", before);
        }

        @Test
        void aPlaceIsFoundAndFlownTo() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", symbols("")));
            page.click("[aria-label='Find a place']");
            page.fill(".popup input", "Benavente");
            page.click(".popup-option:has-text('Zamora')");
            page.waitForFunction("() => document.querySelector('.map-view').olMap.getView().getZoom() > 9.9");
        }

        @Test
        void savedViewsAreGoneToAndTheStartIsGoneBackTo() throws Exception {
            String more = "\"start\":{\"west\":-10,\"south\":36,\"east\":4,\"north\":44},"
                    + "\"views\":{\"w1\":{\"name\":\"Madrid\",\"order\":1,\"extent\":{\"west\":-4,\"south\":40,"
                    + "\"east\":-3,\"north\":41}}}";
            Page page = open("rui", map("v1", 0, 18, more, symbols("")));
            double start = zoom(page, 0);
            page.click("[aria-label='Saved views']");
            page.click(".popup-option >> text=Madrid");
            page.waitForFunction("z => document.querySelector('.map-view').olMap.getView().getZoom() > z + 2", start);
            page.click("[aria-label='Back to the start']");
            page.waitForFunction(
                    "z => Math.abs(document.querySelector('.map-view').olMap.getView().getZoom() - z) < 0.01", start);
        }

        @Test
        void theReaderChangesTheGroundForThisVisitAndPutsItBack() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", symbols("")));
            page.click("[aria-label=Ground]");
            page.click(".popup-option >> text=Nothing");
            page.waitForFunction("() => !document.querySelector('.map-credit').textContent.includes('Natural Earth')");
            page.click("[aria-label=Ground]");
            page.click(".popup-option >> text=Put it back");
            page.waitForFunction("() => document.querySelector('.map-credit').textContent.includes('Natural Earth')");
        }

        @Test
        void aGroundThatDoesNotAnswerIsSaidAndTheMapStays() throws Exception {
            Page page = page("rui");
            page.navigate("/dashboards/"
                    + samples.dashboard(
                            "Ground",
                            map("v1", 0, 18, "\"ground\":{\"mood\":\"source:Gone\",\"detail\":2}", symbols(""))));
            drawn(page);
            waitForText(page.locator(".map-notes"), "The ground Gone has been taken away");
            assertThat(page.locator(".map-reach button").count()).isGreaterThan(10);
        }

        @Test
        void aGroundThatDoesNotAnswerIsSaidToo() throws Exception {
            SarnikClient steward = sarnik.client("marta");
            RemoteTable remote = RemoteTable.start(0, () -> 1);
            addGround(steward, remote, "Silent");
            remote.close();
            Page page =
                    open("rui", map("v1", 0, 18, "\"ground\":{\"mood\":\"source:Silent\",\"detail\":2}", symbols("")));
            waitForText(page.locator(".map-notes"), "Silent does not answer");
            assertThat(page.locator(".map-reach button").count()).isGreaterThan(10);
        }

        private static void addGround(SarnikClient steward, RemoteTable remote, String name) throws Exception {
            steward.send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + remote.port());
            steward.send(
                    "POST",
                    "/grounds",
                    "application/x-www-form-urlencoded",
                    "name=" + name + "&credit=" + name + "+made+up&nearest=12&address=http%3A%2F%2F127.0.0.1%3A"
                            + remote.port() + "%2Froads%2F%7Bz%7D%2F%7Bx%7D%2F%7By%7D.mvt");
        }

        @Test
        void whatIsWithheldIsNotGivenToReadersButToAuthors() throws Exception {
            String visuals =
                    map("v1", 0, 18, "\"withheld\":[\"ZOOM\",\"SEARCH\",\"PICTURE\"],\"locked\":false", symbols(""));
            Page page = open("rui", visuals);
            assertThat(page.locator("[aria-label=Nearer]").count()).isZero();
            assertThat(page.locator("[aria-label='Take along']").count()).isZero();
            Page author = page("ana");
            author.navigate("/dashboards/" + samples.dashboard("Withheld", visuals) + "/compose");
            drawn(author);
            assertThat(author.locator("[aria-label=Nearer]").count()).isEqualTo(1);
        }

        @Test
        void theNeedleTurnsWithTheMeridians() throws Exception {
            for (String projection : List.of("mercator", "equal-area")) {
                Page page = open(
                        "rui",
                        map(
                                "v1",
                                0,
                                18,
                                "\"projection\":\"" + projection
                                        + "\",\"start\":{\"west\":-10,\"south\":35,\"east\":5,\"north\":45}",
                                provinces("")));
                page.evaluate("() => { const view = document.querySelector('.map-view').olMap.getView(); "
                        + "view.setCenter([view.getCenter()[0] + 1.5e6, view.getCenter()[1]]); }");
                page.waitForFunction(
                        "turns => (Math.abs(Number(document.querySelector('.map-north').dataset.degrees)) > 3) "
                                + "=== turns",
                        projection.equals("equal-area"));
            }
        }

        @Test
        void aGroundOfVectorTilesIsDrawnForTheHour() throws Exception {
            try (RemoteTable remote = RemoteTable.start(0, () -> 1)) {
                addGround(sarnik.client("marta"), remote, "Ways");
                Page page = open(
                        "rui", map("v1", 0, 18, "\"ground\":{\"mood\":\"source:Ways\",\"detail\":2}", symbols("")));
                String hasRoads = "() => [...document.querySelectorAll('.ground-pictures canvas')].some(c => { const { "
                        + "data } = c.getContext('2d').getImageData(0, 0, c.width, c.height); for (let i = 3; i "
                        + "< data.length; i += 4) if (data[i] > 100) return true; return false; })";
                page.waitForFunction(hasRoads);
                assertThat(page.textContent(".map-credit")).contains("GSHHG").contains("Ways made up");
                page.waitForResponse(
                        r -> r.url().contains("/api/grounds/Ways/") && r.url().contains("night=true"),
                        () -> page.click("#mood"));
                page.waitForFunction(hasRoads);
                assertThat(page.locator(".map-notes").isVisible())
                        .as("nothing is amiss")
                        .isFalse();
                page.click("#mood");
            }
        }

        @Test
        void anEqualAreaMapHasTicksOfDegreesToo() throws Exception {
            Page page = open(
                    "rui",
                    map("v1", 0, 18, "\"projection\":\"equal-area\"", provinces("")) + ","
                            + figure(samples.provinces, "rate"));
            assertThat(page.locator(".map-ticks").textContent())
                    .contains("40°N")
                    .contains("W");
            page.locator(".map-reach button").first().press("Enter");
            waitForText(page.locator(".figure-number"), "92");
        }
    }

    @Nested
    @DisplayName("to take along")
    class TakeAlong {

        private Download take(Page page, String what) {
            page.click("[aria-label='Take along']");
            return page.waitForDownload(() -> page.click(".popup-option:has-text('" + what + "')"));
        }

        @Test
        void goesAsAPictureOfOneOrTwoTimesTheSize() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")));
            var once = ImageIO.read(take(page, "Picture, PNG").path().toFile());
            var twice = ImageIO.read(take(page, "twice the size").path().toFile());
            assertThat(twice.getWidth()).isBetween(2 * once.getWidth() - 2, 2 * once.getWidth() + 2);
            BoundingBox map = box(page.locator(".map-view"));
            assertThat(once.getWidth()).as("the map and its key").isGreaterThan((int) map.width);
        }

        @Test
        void goesAsADrawingMadeOnTheServer() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", provinces("")));
            String svg = Files.readString(take(page, "Drawing, SVG").path());
            assertThat(svg)
                    .startsWith("<svg")
                    .contains("<title>Map</title>")
                    .contains("url(#none)")
                    .contains("Instituto Geográfico Nacional");
        }

        @Test
        void itsRowsInSightGoAsATable() throws Exception {
            Page page = open(
                    "rui",
                    map(
                            "v1",
                            0,
                            18,
                            "\"rows\":\"all\",\"start\":{\"west\":-4,\"south\":40,\"east\":-3.4,\"north\":40.8}",
                            symbols("")));
            List<String> lines =
                    Files.readAllLines(take(page, "Rows in sight, CSV").path());
            assertThat(lines.get(0)).startsWith("town,province,country,product,litres,day");
            assertThat(lines).anyMatch(l -> l.startsWith("Madrid,")).noneMatch(l -> l.startsWith("Barcelona,"));
        }

        @Test
        void itsPlacesGoAsTablesAndGeoJson() throws Exception {
            Page page = open("rui", map("v1", 0, 18, "", symbols("")));
            List<String> lines = Files.readAllLines(take(page, "figures, CSV").path());
            assertThat(lines.get(0)).isEqualTo("\ufeffplace,in,sum of litres,longitude,latitude");
            assertThat(lines).hasSizeGreaterThan(30);
            assertThat(lines.subList(1, lines.size())).allMatch(l -> l.matches(".*,[\\d.]+,-?[\\d.]+,-?[\\d.]+"));
            String json = Files.readString(take(page, "GeoJSON").path());
            assertThat(json)
                    .startsWith("{\"type\":\"FeatureCollection\"")
                    .containsPattern("\"sum of litres\":[\\d.]+}");
        }
    }
}
