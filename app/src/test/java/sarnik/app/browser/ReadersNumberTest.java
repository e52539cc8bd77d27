package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.MapSamples.map;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("A number that the reader sets")
class ReadersNumberTest extends MapBrowserTest {

    private static final String ABOUT =
            ",\"palette\":\"rust to loch\",\"centre\":{\"about\":\"PARAMETER\",\"parameter\":\"n1\"}";
    private static final String NUMBER =
            ",{\"op\":\"add\",\"path\":\"/parameters\",\"value\":{\"n1\":{\"name\":\"Wanted\",\"order\":1,"
                    + "\"value\":30,\"low\":0,\"high\":90}}}";

    private long dashboard() throws Exception {
        return samples.dashboard(
                "Wanted", map("v1", 0, 18, "", provinces(ABOUT).replace("\"palette\":\"loch\",", "")), NUMBER);
    }

    private static void set(Page page, String number) {
        page.fill(".filter-number", number);
        page.keyboard().press("Tab");
    }

    @Test
    void turnsTheScaleAndStandsInTheAddress() throws Exception {
        Page page = sheet("rui", dashboard(), "");
        assertThat(page.inputValue(".filter-number")).isEqualTo("30");
        assertThat(page.textContent(".map-key")).contains("– 30");
        set(page, "60");
        waitForText(page.locator(".map-key"), "– 60");
        assertThat(page.url()).endsWith("?v.n1=60");
        assertThat(page.textContent("#showing")).contains("Wanted 60");
        page.reload();
        drawn(page);
        waitForText(page.locator(".map-key"), "– 60");
        page.click("[title='Take away: Wanted 60']");
        waitForText(page.locator(".map-key"), "– 30");
        assertThat(page.inputValue(".filter-number")).isEqualTo("30");
    }

    @Test
    void beyondItsBoundsIsNotTaken() throws Exception {
        Page page = sheet("rui", dashboard(), "");
        set(page, "91");
        assertThat(page.evaluate("document.querySelector('.filter-number').validity.rangeOverflow"))
                .isEqualTo(true);
        assertThat(page.url()).doesNotContain("v.n1");
        page.navigate(page.url().replaceFirst("\\?.*", "") + "?v.n1=91");
        drawn(page);
        waitForText(page.locator("#misfits"), "beyond what it can be");
    }

    @Test
    void isAddedNamedAndChosenAsACentreAndTakesTheCentreAlongWhenItGoes() throws Exception {
        Page page = page("ana");
        page.navigate("/dashboards/" + samples.dashboard("Composed", map("v1", 0, 18, "", provinces(""))) + "/compose");
        drawn(page);
        page.click("[data-question=LET_CHOOSE]");
        page.click(".proposal:has-text('A number, about which scales can turn')");
        waitForText(page.locator(".dock-brief"), "The reader sets the number “Number 1”");
        page.click(".slot[aria-label^='name:']");
        page.fill(".popup input", "Fair rate");
        page.keyboard().press("Enter");
        waitForText(page.locator("#strip"), "Fair rate");
        page.click(".slot[aria-label^='first value:']");
        page.fill(".popup input", "40");
        page.keyboard().press("Enter");
        waitForText(page.locator(".dock-brief"), "at first 40");
        page.click(".visual-map .visual-title");
        page.click(".slot[aria-label^='centre:']");
        page.click(".popup-option:has-text('“Fair rate”')");
        waitForText(page.locator(".map-key"), "– 40");
        page.click("#strip .filter-name:has-text('Fair rate')");
        waitForText(page.locator(".dock-brief"), "The reader sets");
        page.click(".dock-side >> text=Take away");
        page.waitForFunction("() => !document.querySelector('.filter-number')");
        page.click(".visual-map .visual-title");
        waitForText(page.locator(".dock-brief"), "+ centre");
        assertThat(page.textContent("#undo")).contains("taking away the number Fair rate");
    }
}
