package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;

@DisplayName("The pages for bringing a table in")
class BringInPagesTest extends BrowserTest {

    private Page bring(Path file) {
        Page page = page("ana");
        page.navigate("/bring");
        page.setInputFiles("#file", file);
        return page;
    }

    @ParameterizedTest
    @CsvSource({"'', The file is empty", "'a,b', no row below it", "PK\u0003\u0004xxxxxxxx, archive is broken"})
    void aFileThatHoldsNoTableIsRefusedOnThePageAndAnotherCanBeChosen(String content, String sentence) {
        Page page = bring(RunningSarnik.file("bad.csv", content));
        waitForText(page.locator("#refusal"), sentence);
        page.setInputFiles("#file", Samples.sales());
        page.waitForURL("**/bring/*");
    }

    @Test
    void thePlacingFollowsTheColumnsThatAreChosen() {
        Page page = bring(Samples.sales());
        page.waitForURL("**/bring/*");
        waitForText(page.locator("#counts .good"), "5");
        page.selectOption("#town", "");
        waitForText(page.locator("#counts .good"), "6");
        page.selectOption("#province", "");
        page.selectOption("#country", "");
        waitForText(page.locator("#counts"), "Choose a column that tells where a row is.");
        page.selectOption("#way", "none");
        waitForText(page.locator("#counts"), "kept without a place");
    }

    @Test
    void aTypeIsSetByHandAndTheEffectSeenAtOnce() {
        Page page = bring(RunningSarnik.file("codes.csv", "town,code\nSoria,12\nBurgos,13\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.inputValue(".type-choice[data-column=code]")).isEqualTo("WHOLE");
        page.selectOption(".type-choice[data-column=code]", "TEXT");
        page.waitForSelector(".type-choice[data-column=code][data-set=true]");
        assertThat(page.inputValue(".type-choice[data-column=code]")).isEqualTo("TEXT");
        assertThat(page.getAttribute(".type-choice[data-column=town]", "data-set"))
                .isNotEqualTo("true");
    }

    @Test
    void troublesAreListedWithLineColumnAndReason() {
        String rows = "Soria,1\n".repeat(60) + "Burgos,many\nZamora\n";
        Page page = bring(RunningSarnik.file("troubles.csv", "town,n\n" + rows));
        page.waitForURL("**/bring/*");
        assertThat(page.locator("#troubles tbody tr").allTextContents())
                .containsExactly(
                        "62nmanyThis is not a whole number; the cell is taken as missing.",
                        "63the rowZamoraThe row has 1 of 2 cells; the rest are taken as missing.");
    }

    @Test
    void newerRowsAreLookedAtServedAndTakenBack() throws Exception {
        long sales = sarnik.client("ana").bring(Samples.sales(), "Newer sales");
        Page page = page("ana");
        page.navigate("/datasets/" + sales);
        page.setInputFiles(
                "#file", RunningSarnik.file("june.csv", Samples.SALES + "Soria,Soria,Spain,2026-06-01,still,5\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.locator("#troubles").count())
                .as("no table of troubles where there are none")
                .isZero();
        assertThat(page.locator("#diff").innerText().replaceAll("\\s+", " ")).isEqualTo("6 the same 1 added 0 gone");
        page.click("#serve");
        page.waitForURL("**/datasets/*");
        waitForText(page.locator("#versions tr:has-text('served')"), "june.csv");
        page.click("[data-serve$='/1/serve']");
        waitForText(page.locator("#versions tr:has(b)"), "sales.csv");
    }

    @Test
    void coordinatesWordsAndCodesAreOfferedAsWaysOfPlacing() {
        Page page = bring(RunningSarnik.file(
                "probes.csv",
                "probe,latitude,longitude,where,code\nP1,41.764,-2.469,\"Soria, "
                        + "Spain\",42\nP2,42.34,-3.70,\"Burgos, Spain\",09\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.inputValue("#way")).isEqualTo("coordinates");
        waitForText(page.locator("#counts .good"), "2");
        page.selectOption("#way", "words");
        page.selectOption("#column", "where");
        waitForText(page.locator("#counts .good"), "2");
        page.selectOption("#way", "code");
        page.selectOption("#column", "code");
        waitForText(page.locator("#counts .good"), "2");
        assertThat(page.locator("#placing-map .map-view").getAttribute("data-places"))
                .isEqualTo("2");
    }

    @Test
    void theFormIsCorrectedColumnsAreLeftOutAndWordsForNoValueAreTaken() {
        Page page = bring(
                RunningSarnik.file("wide.csv", "town;2023;2024;2025;note\nSoria;1.500;-;3;x\nBurgos;2.500;4;5;y\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.locator("#missing-offer").innerText()).contains("“-” 1 times");
        scriptIsThere(page);
        page.click("#take-missing");
        page.waitForSelector(
                "#missing-offer",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.DETACHED));
        scriptIsThere(page);
        page.selectOption("[data-shape=decimalMark]", "COMMA");
        waitForText(page.locator("#columns tbody tr >> nth=0"), "1500");
        scriptIsThere(page);
        page.click("[data-drop=note]");
        page.waitForSelector("[data-bring-back=note]");
        scriptIsThere(page);
        page.click("#turn");
        page.waitForSelector("#turned");
        scriptIsThere(page);
        page.fill("[data-turn=period]", "year");
        page.press("[data-turn=period]", "Tab");
        page.waitForSelector("[data-source=year]");
        assertThat(page.locator("#columns .column-name")
                        .evaluateAll("names => names.map(n => n.value)")
                        .toString())
                .isEqualTo("[town, year, value]");
        scriptIsThere(page);
        page.fill("[data-source=value]", "litres");
        page.press("[data-source=value]", "Tab");
        page.waitForSelector("[data-source=value][value=litres]");
        scriptIsThere(page);
        page.click("#turn-back");
        page.waitForSelector("[data-source='2024']");
    }

    @Test
    void whatIsChangedWhileTheFileIsReadAgainGoesAlong() {
        Page page = bring(RunningSarnik.file("hasty.csv", "town;litres;note\nSoria;-;x\nBurgos;2;y\n"));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        List<Route> sent = new ArrayList<>();
        page.route("**/intake", sent::add);
        page.evaluate("() => { document.getElementById('take-missing').click(); "
                + "const name = document.querySelector('[data-source=litres]'); name.value = 'amount'; "
                + "name.dispatchEvent(new Event('change', { bubbles: true })); "
                + "document.querySelector('[data-drop=note]').click(); }");
        page.waitForCondition(() -> !sent.isEmpty());
        page.evaluate("() => fetch('/css/sarnik.css').then(css => css.text())");
        assertThat(sent).as("one after the other").hasSize(1);
        sent.get(0).resume();
        page.waitForCondition(() -> sent.size() == 2);
        sent.get(1).resume();
        page.waitForSelector("[data-bring-back=note]");
        page.waitForSelector("[data-source=litres][value=amount]");
        assertThat(page.locator("#missing-offer").count()).isZero();
    }

    @Test
    void projectedCoordinatesAreGuessedAndSeenOnTheMapBeforeTheyAreAccepted() {
        Page page = bring(RunningSarnik.file(
                "utm.csv",
                "town,province,country,x,y\nSoria,Soria,Spain,544153,4623774\nBurgos,Burgos,Spain,"
                        + "442224,4688751\nZamora,Zamora,Spain,270700,4598700\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.inputValue("#way")).isEqualTo("coordinates");
        assertThat(page.inputValue("#epsg")).isEqualTo("25830");
        waitForText(page.locator("#alike"), "The numbers fit");
        waitForText(page.locator("#counts .good"), "0");
        waitForText(page.locator("#doubts"), "The numbers fit");
        assertThat(page.locator("#doubts").innerText())
                .as("the same town is no other")
                .doesNotContain("It might also be Soria");
        page.click("#alike button:has-text('25830')");
        waitForText(page.locator("#counts .good"), "3");
        assertThat(page.locator("#alike button").count()).isZero();
        page.fill("#epsg", "99999");
        page.press("#epsg", "Tab");
        waitForText(page.locator("#refusal"), "no system 99999");
        page.fill("#epsg", "25830");
        page.press("#epsg", "Tab");
        waitForText(page.locator("#counts .good"), "3");
    }

    @Test
    void originAndDestinationAreTwoPlacingsOfOneTable() {
        Page page = bring(RunningSarnik.file(
                "sent.csv",
                "depot,destination,pieces\n\"Soria, Spain\",\"Zamora, Spain\",3\n\"Soria, "
                        + "Spain\",\"Burgos, Spain\",4\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.inputValue("#way")).isEqualTo("from-to");
        assertThat(page.inputValue("[data-end=from] [data-part=column]")).isEqualTo("depot");
        waitForText(page.locator("#counts .good"), "2");
        page.waitForSelector("#placing-map .map-view[data-places='3']");
        page.click("#keep");
        page.waitForURL("**/datasets/*");
        waitForText(page.locator("#placing"), "Placed: from the words in depot to the words in destination.");
    }

    @Test
    void severalColumnsAreLeftOutAtOnce() {
        Page page = bring(RunningSarnik.file("broad.csv", "town,a,b,c,d\nSoria,1,2,3,4\nBurgos,1,2,3,4\n"));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        page.click("#which-columns summary");
        page.click("[data-keep-all='']");
        page.click("#keep-columns");
        waitForText(page.locator("#refusal"), "choose at least one");
        page.check("[data-keep=town]");
        page.check("[data-keep=c]");
        page.click("#keep-columns");
        page.waitForFunction(
                "() => [...document.querySelectorAll('#columns .column-name')].map(n => n.value).join() === 'town,c'");
        assertThat(page.locator("[data-bring-back]").count()).isEqualTo(3);
        scriptIsThere(page);
        page.click("#which-columns summary");
        page.click("[data-keep-all=true]");
        page.click("#keep-columns");
        page.waitForFunction("() => document.querySelectorAll('#columns .column-name').length === 5");
    }

    @Test
    void cellsThatDoNotFitAreShoutedAndKeptAsTextByOnePress() {
        Page page = bring(RunningSarnik.file("fees.csv", "town,fee\n" + "Soria,3\n".repeat(60) + "Burgos,waived\n"));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        waitForText(page.locator("[data-as-text=fee]"), "1 left out: keep as text");
        page.click("[data-as-text=fee]");
        page.waitForSelector(
                "[data-as-text=fee]",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.DETACHED));
        assertThat(page.inputValue("[data-column=fee]")).isEqualTo("TEXT");
    }

    @Test
    void originAndDestinationMayBePlacedInDifferentWays() {
        Page page = bring(RunningSarnik.file(
                "drives.csv",
                "depot,destination,north,east\n\"Soria, Spain\",Lot 7,41.50,-5.74\n\"Soria, Spain\",Lot "
                        + "9,42.34,-3.70\n"));
        page.waitForURL("**/bring/*");
        page.selectOption("#way", "from-to");
        page.selectOption("[data-end=from] [data-part=way]", "words");
        page.selectOption("[data-end=from] [data-part=column]", "depot");
        page.selectOption("[data-end=to] [data-part=way]", "coordinates");
        page.selectOption("[data-end=to] [data-part=column]", "north");
        page.selectOption("[data-end=to] [data-part=lon]", "east");
        waitForText(page.locator("#counts .good"), "2");
        page.waitForSelector("#placing-map .map-view[data-places='3']");
        assertThat(page.isVisible("[data-end=from] [data-part=lon]")).isFalse();
        page.click("#keep");
        page.waitForURL("**/datasets/*");
        waitForText(page.locator("#placing"), "Placed: from the words in depot to the coordinates in north and east.");
    }

    @Test
    void aTieSaysHowManyRowsFindAPartnerBeforeItIsKept() throws Exception {
        sarnik.client("ana")
                .bring(
                        RunningSarnik.file(
                                "taps.csv",
                                "tap,town,province,country\nTY1,Soria,Soria,Spain\nTY2,Burgos,Burgos,Spain\nTY3,"
                                        + "Zamora,Zamora,Spain\n"),
                        "Taps");
        Page page = bring(RunningSarnik.file("uses.csv", "at,n\nTY1,3\nTY2,4\nTY9,1\nTY1,2\nTY2,8\nTY1,1\n"));
        page.waitForURL("**/bring/*");
        page.selectOption("#way", "tie");
        page.selectOption("#tie-target", "tap in Taps");
        page.selectOption("#tie-column", "at");
        waitForText(
                page.locator("#counts"),
                "83.3 % of 6 rows find a partner over there; 66.7 % of 3 rows over there find one here.");
    }

    @Test
    void pastedCellsAreLookedAtAsAFileIs() {
        Page page = page("ana");
        page.navigate("/bring");
        page.click("text=Paste cells instead");
        page.fill("#cells", "town\tlitres\nSoria\t3\nZamora\t4\n");
        page.click("#paste");
        page.waitForURL("**/bring/*");
        waitForText(page.locator("main"), "2 rows, 2 columns; CSV, UTF-8, tabs between cells");
    }

    @Test
    void areasBecomeABoundarySetByWhichRowsArePlaced() {
        Page page = bring(RunningSarnik.file(
                "wards.geojson",
                "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\","
                        + "\"properties\":{\"id\":\"N\",\"ward\":\"North\"},"
                        + "\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[-7,41],[-1,41],[-1,44],"
                        + "[-7,44],[-7,41]]]}}]}"));
        page.waitForURL("**/bring/*");
        page.click("#areas summary");
        page.fill("[data-area=name]", "Wards");
        page.selectOption("[data-area=code]", "id");
        page.selectOption("[data-area=areaName]", "ward");
        page.click("#keep-areas");
        waitForText(page.locator("#areas-kept"), "1 areas are kept.");
        page.click("text=See them");
        page.waitForSelector(".area-sheet path");
        page.hover("#area-table tbody tr");
        page.waitForSelector(".area-sheet path.is-lit");
        Page rows = bring(RunningSarnik.file("counts.csv", "ward,n\nnorth,3\nsouth,4\n"));
        rows.waitForURL("**/bring/*");
        rows.selectOption("#way", "area");
        rows.selectOption("#area-set", "Wards");
        rows.selectOption("#area-column", "ward");
        waitForText(rows.locator("#counts .good"), "1");
        waitForText(rows.locator("#doubts"), "No area of “Wards”");
        rows.click("#keep");
        rows.waitForURL("**/datasets/*");
        waitForText(rows.locator("#empty-areas"), "Every area of Wards has a row.");
    }

    @Test
    void aDatasetsRowsAreFoundSortedAndTurnedPageByPage() throws Exception {
        String many = java.util.stream.IntStream.range(0, 120)
                .mapToObj(i -> (i % 2 == 0 ? "Soria" : "Zamora") + ",Spain," + i)
                .collect(java.util.stream.Collectors.joining("\n"));
        long id = sarnik.client("ana")
                .bring(RunningSarnik.file("many.csv", "town,country,n\n" + many + "\n"), "Many rows");
        Page page = page("ana");
        page.navigate("/datasets/" + id);
        waitForText(page.locator("#page"), "120 rows, page 1 of 3");
        page.click("#on");
        waitForText(page.locator("#page"), "page 2 of 3");
        page.click("[data-sort=n]");
        page.click("[data-sort=n]");
        waitForText(page.locator("#row-table tbody tr >> nth=0"), "119");
        assertThat(page.locator("th[aria-sort=descending]").innerText()).contains("n");
        page.fill("#find", "soria");
        waitForText(page.locator("#page"), "60 rows with “soria”, page 1 of 2");
        page.fill("[data-about=source]", "The town hall");
        page.press("[data-about=source]", "Tab");
        waitForText(page.locator(".said"), "Kept.");
        page.reload();
        waitForText(page.locator("main"), "source: The town hall");
    }

    @Test
    void aReaderDoesNotComeHere() {
        Page page = page("rui");
        assertThat(page.locator("text=Bring a table in").count()).isZero();
        assertThat(page.navigate("/bring").status()).isEqualTo(403);
        assertThat(page.textContent("main")).contains("This is not open to you");
    }

    /** The page has come anew; its script is there when the map is. */
    private static void scriptIsThere(Page page) {
        page.waitForSelector("#placing-map .map-view");
    }

    @Test
    void datesThatCanBeReadEitherWayFollowTheCountryOfTheRowsAndAreTurnedByOnePress() {
        Page page = bring(RunningSarnik.file(
                "visits.csv",
                "town,state,when,paid\nAustin,TX,01/02/2021,$5.20\nReno,NV,03/04/2021,$7.10\nDallas,TX,"
                        + "05/06/2021,$1.00\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.locator("#days").textContent())
                .contains("The dates in when can be read either way", "month first", "United States");
        assertThat(page.locator("#columns tbody tr").first().textContent())
                .contains("2021-01-02")
                .contains("5.2");
        assertThat(page.locator("#columns thead").textContent()).contains("in $");
        page.click("#turn-days");
        page.waitForCondition(
                () -> page.locator("#columns tbody tr").first().textContent().contains("2021-02-01"));
        assertThat(page.locator("#days").count()).as("it has been said").isZero();
        assertThat(page.locator("#columns thead").textContent()).contains("day first");
    }

    @Test
    void numbersWhoseMarksCanBeReadEitherWayAreSaidAndTurnedByOnePress() {
        Page page = bring(RunningSarnik.file(
                "volumes.csv", "town,country,litres\nSoria,Spain,\"1,204\"\nBurgos,Spain,\"2,310\"\n"));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        assertThat(page.locator("#marks").textContent())
                .contains("Numbers such as “1,204” in litres can be read either way. They are taken as 1204.");
        page.click("#turn-marks");
        page.waitForCondition(
                () -> page.locator("#columns tbody tr").first().textContent().contains("1.204"));
        assertThat(page.locator("#marks").count()).as("it has been decided").isZero();
    }

    @Test
    void numbersThatStandBesideEachPeriodAreSaidAndLeftOutByOnePress() {
        Page page = bring(
                RunningSarnik.file(
                        "wide.csv",
                        "town,lat,lon,inhabitants,2023,2024,2025\nSoria,41.7641,-2.4731,39000,1,2,3\nBurgos,42.3409,-3.6997,175000,4,5,6\n"));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        assertThat(page.locator("#repeated-said").count()).isZero();
        page.click("#turn");
        page.waitForSelector("#repeated-said");
        scriptIsThere(page);
        assertThat(page.locator("#repeated-said").textContent())
                .contains("stands beside each of them now, and a sum would count it as often", "“inhabitants”.");
        page.click("#drop-repeated");
        page.waitForSelector("[data-bring-back=inhabitants]");
        assertThat(page.locator("#repeated-said").count()).isZero();
    }

    @Test
    void rowsThatAreMeantInAnotherWayThanTheyStandAreSaidAndMendedByOnePress() {
        Page page = bring(RunningSarnik.file("groups.csv", """
                        region,town,lat,lon,litres
                        North,Soria,41.7641,-2.4731,3
                        ,Burgos,42.3409,-3.6997,5
                        region,town,lat,lon,litres
                        South,Cádiz,36.5271,-6.2886,7
                        ,Jerez,36.6850,-6.1261,9
                        Source: the waterworks,,,,
                        """));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        assertThat(page.locator("#names-said").textContent())
                .containsSubsequence("Left out as the names of the columns once more", "1 row");
        assertThat(page.locator("#lone-said").textContent())
                .containsSubsequence("words in one cell only", "1 row", "“Source: the waterworks”");
        page.click("#lone-said >> text=Leave such rows out");
        page.waitForSelector("#lone-said >> text=Left out since");
        scriptIsThere(page);
        assertThat(page.locator("#lone-said").textContent())
                .contains("Left out since they have words in one cell only");
        assertThat(page.locator("#gaps-said").textContent()).containsSubsequence("“region”", "2 rows have");
        page.click("#gaps-said button");
        page.waitForSelector("#downs-said");
        scriptIsThere(page);
        assertThat(page.locator("#downs-said").textContent()).containsSubsequence("“region”", "in", "2 rows");
        assertThat(page.locator("main").textContent()).contains("4 rows, 5 columns");
        page.fill("#name", "Groups of towns");
        page.click("#keep");
        page.waitForURL("**/datasets/*");
        // What was decided holds for newer rows.
        page.setInputFiles(
                "#file",
                RunningSarnik.file(
                        "newer.csv",
                        "region,town,lat,lon,litres\nNorth,Soria,41.7641,-2.4731,3\n,Burgos,42.3409,-3.6997,5\n* a note,,,,\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.locator("#diff").innerText().replaceAll("\\s+", " "))
                .isEqualTo("2 the same 0 changed 0 added 2 gone");
    }

    @Test
    void newerRowsInAnotherUnitAreSaidAndNotPutBelowTheOthers() throws Exception {
        Page page = bring(RunningSarnik.file("prices.csv", "town,price\nSoria,€5\nBurgos,€6\n"));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        page.click("#keep");
        page.waitForURL("**/datasets/*");
        page.setInputFiles("#file", RunningSarnik.file("newer.csv", "town,price\nSoria,$5\nTotal,$8\nLerma,$7\n"));
        page.waitForURL("**/bring/*");
        page.waitForSelector("body[data-ready=true]");
        assertThat(page.locator(".units-said").innerText()).contains("“price” is in $, and was in € before.");
        assertThat(page.isDisabled("#append")).isTrue();
        HttpResponse<String> below = sarnik.client("ana")
                .send(
                        "POST",
                        "/api/bring/" + page.url().replaceAll(".*/", "") + "/serve?append=true",
                        "application/json",
                        "");
        assertThat(below.body()).contains("cannot be put below the others");
        // What is asked of the rows of a file is asked of newer ones too, and holds from then on.
        assertThat(page.locator("#categories-said").innerText()).contains("1 row", "“Total” in “town”");
        page.click("[data-sums][data-to=true]");
        page.waitForSelector("text=Left out as totals of a category");
        page.waitForSelector("body[data-ready=true]");
        page.click("#serve");
        page.waitForURL("**/datasets/*");
        assertThat(page.inputValue("[data-unit=price]")).isEqualTo("$");
        page.setInputFiles("#file", RunningSarnik.file("third.csv", "town,price\nSoria,$5\nTotal,$8\nLerma,$9\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.locator(".units-said").count()).isZero();
        assertThat(page.locator("main").innerText()).contains("Left out as", "third.csv has 2 rows");
    }

    @Test
    void hiddenRowsAndMonthsOfAYearAreSaidAndChangedByOnePress() {
        StringBuilder rows = new StringBuilder();
        for (String row :
                List.of("town,year,Jan,Feb,Mar", "Soria,2023,1,2,3", "Burgos,2023,4,5,6", "Soria,2024,7,8,9")) {
            rows.append("<table:table-row").append(row.startsWith("Burgos") ? " table:visibility=\"filter\">" : ">");
            for (String cell : row.split(","))
                rows.append("<table:table-cell office:value-type=\"string\"><text:p>")
                        .append(cell)
                        .append("</text:p></table:table-cell>");
            rows.append("</table:table-row>");
        }
        Page page = bring(RunningSarnik.file("months.fods", """
                        <?xml version="1.0"?><office:document xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0"
                        xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0"
                        xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"
                        office:mimetype="application/vnd.oasis.opendocument.spreadsheet"><office:body><office:spreadsheet>
                        <table:table table:name="Rows">%s</table:table>
                        </office:spreadsheet></office:body></office:document>""".formatted(rows)));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        assertThat(page.locator("#hidden-said").innerText()).contains("Not shown by the sheet", "1 row");
        assertThat(page.locator("#turn-offer").innerText())
                .contains("3 columns are named by periods (Jan …) of the year in “year”");
        page.click("#hidden-said button");
        page.waitForSelector("#hidden-said >> text=Left out since");
        scriptIsThere(page);
        page.click("#turn");
        page.waitForSelector("#turned");
        scriptIsThere(page);
        assertThat(page.inputValue("[data-turn=year]")).isEqualTo("year");
        assertThat(page.locator("#repeated-said").count())
                .as("nobody adds up years")
                .isZero();
        assertThat(page.locator("#columns tbody").innerText())
                .contains("2023-01-01", "2024-03-01")
                .doesNotContain("Burgos");
        page.fill("[data-turn=year]", "jahr");
        page.press("[data-turn=year]", "Tab");
        page.waitForSelector("text=no column “jahr” that says of which year");
        page.fill("[data-turn=year]", "");
        page.press("[data-turn=year]", "Tab");
        page.waitForSelector("#columns tbody >> text=Jan");
    }

    @Test
    void rowsThatWouldBeCountedTwiceAreSaidAndLeftOutByOnePress() {
        Page page = bring(RunningSarnik.file(
                "people.csv",
                "town,country,sex,people\nSoria,Spain,women,19\nSoria,Spain,men,20\nSoria,Spain,Total,39\nBurgos,Spain,"
                        + "women,90\nBurgos,Spain,men,84\nBurgos,Spain,Total,174\nBurgos,Spain,women,90\n"
                        + "Average,,,71\n"));
        page.waitForURL("**/bring/*");
        scriptIsThere(page);
        assertThat(page.locator("#categories-said").textContent())
                .contains("Likely to be totals of a category", "2 rows", "“Total” in “sex”");
        page.click("#categories-said button");
        page.waitForCondition(
                () -> page.locator("#categories-said").textContent().contains("Left out as totals of a category"));
        scriptIsThere(page);
        assertThat(page.locator("#columns tbody").textContent()).doesNotContain("Total");
        page.click("#categories-said button");
        page.waitForCondition(
                () -> page.locator("#categories-said").textContent().contains("Likely to be totals of a category"));
        scriptIsThere(page);
        assertThat(page.locator("#again-said").textContent())
                .contains("and counted twice if they stand there by mistake: ", "1 row.");
        page.click("#again-said button");
        page.waitForCondition(
                () -> page.locator("#again-said").textContent().contains("Left out since they are the same"));
        assertThat(page.locator("#columns tbody").textContent()).containsOnlyOnce("90");
        scriptIsThere(page);
        assertThat(page.locator("#statistics-said").textContent())
                .contains("Likely to be worked out from the others", "1 row", "(“Average”).");
        page.click("#statistics-said button");
        page.waitForCondition(() ->
                page.locator("#statistics-said").textContent().contains("Left out as worked out from the others"));
        assertThat(page.locator("#columns tbody").textContent()).doesNotContain("Average");
    }
}
