package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.RunningSarnik;
import tools.jackson.databind.JsonNode;

@DisplayName("The placing sheet")
class PlacingSheetTest extends BrowserTest {

    private Page page;

    @BeforeEach
    void aSheet() throws Exception {
        var ana = sarnik.client("ana");
        JsonNode taken = ana.read(ana.upload(
                RunningSarnik.file(
                        "v.csv",
                        "town,country,n\nSoria,Spain,1\nVillaseca del Eco,Spain,2\nOtro "
                                + "Espejismo,Spain,3\nVillaseca del Eco,Spain,4\nToledo,Atlantis,5\n"),
                "v.csv"));
        Map<String, Object> placing = Map.of("type", "name", "town", "town", "country", "country");
        String id = ana.json(
                        "POST",
                        "/api/bring/" + taken.get("id").asString() + "/keep",
                        Map.of("name", "Sheet", "placing", placing))
                .get("id")
                .asString();
        page = page("ana");
        page.navigate("/datasets/" + id);
        page.click("text=Work through the doubtful ones");
        page.waitForSelector("#words li");
    }

    @Test
    void theCommonestWordsStandFirstWithWhatIsWrong() {
        assertThat(page.locator("#words li").first().innerText().replaceAll("\\s+", " "))
                .isEqualTo("– Villaseca del Eco, Spain 2 rows, nowhere yet");
        assertThat(page.textContent("#reason")).contains("No town is called");
        assertThat(page.locator("#words li").count()).isEqualTo(3);
    }

    @Test
    void everythingIsDecidedWithTheKeyboard() {
        page.focus("#words");
        page.keyboard().press("s");
        page.keyboard().type("Zamora, Spain");
        page.waitForSelector(".offer:has-text('Zamora')");
        page.keyboard().press("Enter");
        waitForText(page.locator("#words li").first(), "Zamora");
        waitForText(page.locator("#chosen"), "Otro Espejismo");
        page.keyboard().press("x");
        waitForText(page.locator("#words li:has-text('Otro Espejismo')"), "left out");
        waitForText(page.locator("#chosen"), "Toledo, Atlantis");
        page.keyboard().press("1");
        waitForText(page.locator("#counts .good"), "4");
        page.keyboard().press("b");
        waitForText(page.locator("#counts .watch"), "1");
    }

    @Test
    void severalAreDecidedOnAtOnceAndAllOfOneReason() {
        page.focus("#words");
        page.keyboard().press(" ");
        page.keyboard().press("ArrowDown");
        page.keyboard().press(" ");
        waitForText(page.locator("#chosen"), "2 sets of words");
        page.keyboard().press("x");
        page.waitForCondition(() -> page.locator("#words .is-decided").count() == 2);
        page.selectOption(
                "#reasons",
                page.locator("#reasons option:has-text('is known, but')").getAttribute("value"));
        page.waitForCondition(() -> page.locator("#words li").count() == 1);
        page.click("#take-all");
        waitForText(page.locator("#counts .good"), "2");
        assertThat(page.locator("#counts .watch b").textContent()).isEqualTo("0");
    }

    @Test
    void thePlacedOnesAreShownWhenAskedFor() {
        page.selectOption("#show", "PLACED");
        page.waitForCondition(() -> page.locator("#words li").count() == 1);
        assertThat(page.locator("#words li").first().innerText()).contains("Soria, Spain");
        assertThat(page.textContent("#reason")).contains("The name fits");
        page.selectOption("#show", "ALL");
        page.waitForCondition(() -> page.locator("#words li").count() == 4);
    }

    @Test
    void aPressOnTheMapPutsThemThere() {
        var map = page.locator("#placing-map .map-view").boundingBox();
        page.mouse().click(map.x + map.width / 2 + 30, map.y + map.height / 2 + 20);
        waitForText(page.locator("#words li").first(), "✓");
        waitForText(page.locator("#counts .bad"), "1");
        page.reload();
        assertThat(page.locator("#words li").first().innerText()).contains("✓");
    }
}
