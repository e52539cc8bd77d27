package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.file.Path;
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
    @CsvSource({"'', The file is empty", "'a,b', no row below it", "PK\u0003\u0004xxxxxxxx, ZIP archive"})
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
        assertThat(page.inputValue("[data-column=code]")).isEqualTo("WHOLE");
        page.selectOption("[data-column=code]", "TEXT");
        page.waitForSelector("[data-column=code][data-set=true]");
        assertThat(page.inputValue("[data-column=code]")).isEqualTo("TEXT");
        assertThat(page.getAttribute("[data-column=town]", "data-set")).isNotEqualTo("true");
    }

    @Test
    void troublesAreListedWithLineColumnAndReason() {
        String rows = "Soria,1\n".repeat(60) + "Burgos,many\nZamora\n";
        Page page = bring(RunningSarnik.file("troubles.csv", "town,n\n" + rows));
        page.waitForURL("**/bring/*");
        assertThat(page.locator("#troubles tbody tr").allTextContents()).containsExactly(
                "62nmanyThis is not a whole number; the cell is taken as missing.", "63the rowZamoraThe row has 1 of 2 cells; the rest are taken as missing.");
    }

    @Test
    void newerRowsAreLookedAtServedAndTakenBack() throws Exception {
        long sales = sarnik.client("ana").bring(Samples.sales(), "Newer sales");
        Page page = page("ana");
        page.navigate("/datasets/" + sales);
        page.setInputFiles("#file", RunningSarnik.file("june.csv", Samples.SALES + "Soria,Soria,Spain,2026-06-01,still,5\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.locator("#troubles").count()).as("no table of troubles where there are none").isZero();
        assertThat(page.locator("#diff").innerText().replaceAll("\\s+", " ")).isEqualTo("6 the same 1 added 0 gone");
        page.click("#serve");
        page.waitForURL("**/datasets/*");
        waitForText(page.locator("#versions tr:has-text('served')"), "june.csv");
        page.click("[data-serve$='/1/serve']");
        waitForText(page.locator("#versions tr:has(b)"), "sales.csv");
    }

    @Test
    void coordinatesWordsAndCodesAreOfferedAsWaysOfPlacing() {
        Page page = bring(RunningSarnik.file("probes.csv", "probe,latitude,longitude,where,code\nP1,41.764,-2.469,\"Soria, Spain\",42\nP2,42.34,-3.70,\"Burgos, Spain\",09\n"));
        page.waitForURL("**/bring/*");
        assertThat(page.inputValue("#way")).isEqualTo("coordinates");
        waitForText(page.locator("#counts .good"), "2");
        page.selectOption("#way", "words");
        page.selectOption("#column", "where");
        waitForText(page.locator("#counts .good"), "2");
        page.selectOption("#way", "code");
        page.selectOption("#column", "code");
        waitForText(page.locator("#counts .good"), "2");
        assertThat(page.locator("#placing-map .map-view").getAttribute("data-places")).isEqualTo("2");
    }

    @Test
    void aReaderDoesNotComeHere() {
        Page page = page("rui");
        assertThat(page.locator("text=Bring a table in").count()).isZero();
        assertThat(page.navigate("/bring").status()).isEqualTo(403);
        assertThat(page.textContent("main")).contains("This is not open to you");
    }
}
