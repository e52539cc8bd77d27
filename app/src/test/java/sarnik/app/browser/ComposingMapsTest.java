package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.MapSamples.map;
import static sarnik.app.testing.MapSamples.sum;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("A map being composed")
class ComposingMapsTest extends MapBrowserTest {

    private Page compose(String visuals) throws Exception {
        Page page = page("ana");
        page.navigate("/dashboards/" + samples.dashboard("Composed", visuals) + "/compose");
        drawn(page);
        page.click(".visual-map .visual-title");
        page.waitForSelector(".dock-brief");
        return page;
    }

    @Test
    void changesItsKindAndKeepsWhatItShowed() throws Exception {
        Page page = compose(map(
                "v1", 0, 18, "", symbols(",\"set\":\"Provinces of Spain\",\"colour\":{%s}".formatted(sum("litres")))));
        page.click(".slot[aria-label='kind of layer: symbols']");
        page.click(".popup-option >> text=areas");
        waitForText(page.locator(".dock-brief"), "A map of areas");
        page.click(".slot[aria-label='kind of layer: areas']");
        page.click(".popup-option:has-text('a mark for each place')");
        waitForText(page.locator(".dock-brief"), "sized by sum of litres");
    }

    @Test
    void breaksAreMovedWithKeysOverTheSpreadOfValues() throws Exception {
        Page page = compose(map("v1", 0, 18, "", provinces("")));
        page.click(".slot[aria-label^='breaks and ends']");
        assertThat(page.locator(".scale-break").count()).isEqualTo(3);
        assertThat(page.locator(".scale-drawing > rect").count()).isEqualTo(32);
        String before = page.getAttribute(".scale-break >> nth=0", "aria-valuenow");
        page.focus(".scale-break >> nth=0");
        page.keyboard().press("ArrowRight");
        assertThat(page.getAttribute(".scale-break >> nth=0", "aria-valuenow")).isNotEqualTo(before);
        page.fill("[aria-label=Breaks]", "10 50 40");
        page.keyboard().press("Tab");
        assertThat(page.locator(".popup").textContent()).contains("ascending");
        page.fill("[aria-label=Breaks]", "10 40 50 90");
        page.keyboard().press("Tab");
        page.click("text=Keep these breaks and ends");
        waitForText(page.locator(".dock-brief"), "with own breaks");
        waitForText(page.locator(".map-key"), "50 – 90");
    }

    @Test
    void aScaleBecomesASharedKeyThatIsChangedForAllAtOnce() throws Exception {
        Page page = compose(map("v1", 0, 18, "", provinces("")));
        page.click(".slot[aria-label^='shared key']");
        page.fill("[aria-label='Name of a new shared key']", "Rates of all");
        page.click("text=Make a shared key of this scale");
        waitForText(page.locator(".dock-brief"), "on the shared key “Rates of all”");
        String sheet = page.url();
        page.navigate("/keys");
        Locator key = page.locator(".key-line:has-text('Rates of all')");
        assertThat(key.textContent()).contains("Worn by “Composed");
        key.locator("[name=breaks]").fill("20 60");
        key.locator("text=Change it on all maps").click();
        page.navigate(sheet);
        drawn(page);
        waitForText(page.locator(".map-key"), "20 – 60");
    }

    @Test
    void aSavedViewAndAStartAreKeptFromWhatIsInSight() throws Exception {
        Page page = compose(map("v1", 0, 18, "", symbols("")));
        page.click(".dock-side >> text=Finish");
        page.click(".slot[aria-label^='saved view']");
        page.fill("[aria-label='Name of the saved view']", "All of it");
        page.keyboard().press("Enter");
        page.waitForSelector("[aria-label='Saved views']");
        page.click(".slot[aria-label^='start']");
        page.click("text=Start where the map is now");
        waitForText(page.locator(".dock-finish"), "where it was put");
    }

    @Test
    void aLayerIsAddedAndTakenAway() throws Exception {
        Page page = compose(map("v1", 0, 18, "", symbols("")));
        page.click(".slot[aria-label^='layer: + layer']");
        page.click(".popup-option:has-text('Map provinces')");
        waitForText(page.locator(".dock-brief"), "below it");
        page.locator(".slot[aria-label^='this layer']").first().click();
        page.waitForFunction("() => !document.querySelector('.dock-brief').textContent.includes('below it')");
    }

    @Test
    void readersAreGivenSomeControlsOnly() throws Exception {
        Page page = compose(map("v1", 0, 18, "", symbols("")));
        page.click(".dock-side >> text=Finish");
        page.click(".slot[aria-label^='controls for readers']");
        page.uncheck(".popup label:has-text('search of places') input");
        page.click("text=Give readers these");
        waitForText(page.locator(".dock-finish"), "all controls but 1");
    }
}
