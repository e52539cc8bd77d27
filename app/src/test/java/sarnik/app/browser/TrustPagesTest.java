package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("How far figures can be trusted, on a page")
class TrustPagesTest extends BrowserTest {

    private static final String SHEET = """
            [{"op":"add","path":"/visuals/v1","value":{"type":"map","page":"p1","at":{"x":0,"y":0,"w":12,"h":11},"title":"Rates",
               "layers":{"l1":{"kind":"AREAS","order":1,"dataset":%1$d,"opacity":0.9,"set":"Provinces of Spain",
                 "colour":{"measure":{"summary":"FORMULA","column":"rate"},"classes":4,"palette":"rust"}}}}},
             {"op":"add","path":"/visuals/v2","value":{"type":"bars","page":"p1","at":{"x":12,"y":0,"w":12,"h":11},"title":"Bars","dataset":%1$d,
               "category":"water","measure":{"summary":"FORMULA","column":"rate"}}},
             {"op":"add","path":"/visuals/v3","value":{"type":"difference","page":"p1","at":{"x":0,"y":11,"w":12,"h":9},"title":"Difference","dataset":%1$d,
               "measure":{"summary":"FORMULA","column":"rate"},"columns":["water","age"]}},
             {"op":"add","path":"/visuals/v4","value":{"type":"unlikely","page":"p1","at":{"x":12,"y":11,"w":12,"h":9},"title":"Unlikely","dataset":%1$d,
               "category":"@place","measure":{"summary":"FORMULA","column":"rate"}}},
             {"op":"add","path":"/visuals/v5","value":{"type":"figure","page":"p1","at":{"x":0,"y":20,"w":6,"h":4},"title":"People","dataset":%1$d,
               "measure":{"summary":"SUM","column":"people"}}},
             {"op":"add","path":"/links/k1","value":{"from":"v1"}},{"op":"add","path":"/links/k3","value":{"from":"v3"}},
             {"op":"add","path":"/links/k4","value":{"from":"v4"}}]
            """;

    private static final List<String> PROVINCES = List.of(
            "Soria",
            "Zamora",
            "Burgos",
            "Palencia",
            "Valladolid",
            "León",
            "Salamanca",
            "Ávila",
            "Segovia",
            "Teruel",
            "Huesca",
            "Zaragoza",
            "Guadalajara",
            "Cuenca",
            "Toledo",
            "Cáceres");

    private SarnikClient ana;
    private long dashboard;

    @BeforeEach
    void aSheet() throws Exception {
        ana = sarnik.client("ana");
        StringBuilder rows = new StringBuilder("province,country,water,age,cases,people\n");
        for (int p = 0; p < PROVINCES.size(); p++)
            for (String age : List.of("0-64", "65+"))
                for (String water : List.of("well", "mains")) {
                    int people = p == 1 ? 100 : 4000;
                    int cases = p == 0 ? people / 10 : people / 200 + (water.equals("well") ? p % 3 : 0);
                    rows.append("%s,Spain,%s,%s,%d,%d\n".formatted(PROVINCES.get(p), water, age, cases, people));
                }
        long dataset = ana.bring(RunningSarnik.file("rates.csv", rows.toString()), "Zz rates");
        ana.read(ana.describe(
                dataset,
                "calculations",
                Map.of(
                        "formulas",
                        List.of(Map.of("name", "rate", "text", "SUM(cases) * 1000.0 / SUM(people)", "measure", true)),
                        "rules",
                        List.of())));
        JsonNode made = ana.json("POST", "/api/dashboards", Map.of("title", "Rates"));
        dashboard = made.get("id").asLong();
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                SHEET.formatted(dataset),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        ana.publish(dashboard);
    }

    @Test
    void ratesOfFewAreHatchedAndWhereTheyMayLieIsTold() {
        Page page = sheet("rui", dashboard, "");
        Locator key = page.locator(
                "[data-visual=v1] .map-key-row", new Page.LocatorOptions().setHasText("fewer than 20 counted"));
        key.waitFor();
        assertThat(key.locator(".is-unsure").count()).isEqualTo(1);
        assertThat(key.innerText()).endsWith("1");
        // A place tells it, whether it is pressed or reached by keys.
        page.locator("[data-visual=v1] .map-reach button", new Page.LocatorOptions().setHasText("Zamora"))
                .first()
                .press("Enter");
        Locator told = page.locator("[data-visual=v1] .told-box");
        told.locator("text=may well lie (95 %)").waitFor();
        assertThat(told.innerText()).contains("unsure");
        assertThat(page.locator("[data-visual=v2] .bar .sure").count()).isEqualTo(2);
    }

    @Test
    void whatWasGuessedIsChangedInOnePress() {
        Page page = sheet("ana", dashboard, "/compose");
        page.click("[data-visual=v1] .visual-title");
        Locator slot = page.locator(".dock .slot", new Page.LocatorOptions().setHasText("(guessed)"));
        slot.waitFor();
        assertThat(slot.innerText()).isEqualTo("+ how sure: taken as events, of which each may have several (guessed)");
        slot.click();
        page.click("text=no rate, so nothing is marked");
        page.locator("[data-visual=v1] .map-key-row", new Page.LocatorOptions().setHasText("fewer than 20 counted"))
                .waitFor(new Locator.WaitForOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.DETACHED));
        page.locator(".dock .slot", new Page.LocatorOptions().setHasText("+ more than chance"))
                .click();
        page.click("text=high and low ones together");
        page.locator("[data-visual=v1] .map-key-row", new Page.LocatorOptions().setHasText("no more than chance"))
                .waitFor();
    }

    @Test
    void whatMakesTheDifferenceIsAskedOfAPickAndPickedItself() {
        Page page = sheet("rui", dashboard, "");
        page.locator("[data-visual=v3]", new Page.LocatorOptions().setHasText("Pick a place, a bar"))
                .waitFor();
        page.locator("[data-visual=v4] .unlikely-row").first().click();
        Locator line = page.locator("[data-visual=v3] button.parting-line").first();
        line.waitFor();
        assertThat(page.locator("[data-visual=v3] .parting-head").innerText())
                .startsWith("rate: 100 of what is picked");
        page.waitForFunction(
                "() => document.querySelector('[data-visual=v5] .figure-number').textContent.replace(/\\s/g, ' ') "
                        + "=== '16 k'");
        page.locator("[data-visual=v3] button.parting-line", new Page.LocatorOptions().setHasText("well"))
                .click();
        page.waitForFunction(
                "() => document.querySelector('[data-visual=v5] .figure-number').textContent.replace(/\\s/g, ' ') "
                        + "=== '8 k'");
        assertThat(page.url()).contains("v3=");
        assertThat(page.locator("[data-visual=v3] button.parting-line[aria-pressed=true]")
                        .count())
                .isEqualTo(1);
    }

    @Test
    void valuesThatStandOutSayWhy() {
        Page page = sheet("rui", dashboard, "");
        Locator first = page.locator("[data-visual=v4] .unlikely-row").first();
        first.waitFor();
        assertThat(first.innerText()).contains("Soria").contains("neighbours have");
        assertThat(first.locator(".unlikely-mark").count()).isEqualTo(1);
        SarnikBrowser.drawn(page);
    }
}
