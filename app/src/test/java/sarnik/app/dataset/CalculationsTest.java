package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.time.Clock;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Formulas and rules of a dataset")
class CalculationsTest {

    private RunningSarnik sarnik;
    private SarnikClient ana;
    private long dashboard;
    private long sales;

    @BeforeEach
    void aDashboard(RunningSarnik running) throws Exception {
        sarnik = running;
        ana = running.client("ana");
        dashboard = Samples.dashboard(ana, "Calculated?");
        sales = ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
    }

    private static Map<String, Object> formula(String name, String text, boolean measure) {
        return Map.of("name", name, "text", text, "measure", measure);
    }

    private HttpResponse<String> keep(List<Map<String, Object>> formulas, List<String> rules) throws Exception {
        return ana.describe(sales, "calculations", Map.of("formulas", formulas, "rules", rules));
    }

    private JsonNode frame(String visual) throws Exception {
        return ana.json("POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", ""))
                .at("/drawings/" + visual);
    }

    @Test
    void aColumnIsThereForVisualsAndHoldsAtEveryRefresh() throws Exception {
        assertThat(keep(
                                List.of(formula("double", "litres * 2", false), formula("more", "double + 1", false)),
                                List.of())
                        .statusCode())
                .isEqualTo(204);
        DatasetService datasets = sarnik.bean(DatasetService.class);
        assertThat(datasets.needed(sales).dataset().table().column("more").text(0))
                .isEqualTo(String.valueOf(Long.parseLong(datasets.needed(sales)
                                        .dataset()
                                        .table()
                                        .column("litres")
                                        .text(0))
                                * 2
                        + 1));
        assertThat(ana.get("/datasets/" + sales).body()).contains("litres * 2").contains(">double<");
        JsonNode taken = ana.read(ana.upload(RunningSarnik.file("s.csv", Samples.SALES), "s.csv", "?dataset=" + sales));
        ana.read(ana.send("POST", "/api/bring/" + taken.get("id").asString() + "/serve", "application/json", ""));
        assertThat(datasets.needed(sales).dataset().table().find("more")).isPresent();
        assertThat(datasets.needed(sales).columns()).doesNotContain("more");
    }

    @Test
    void whatSpeaksOfTodayIsCalculatedAnewTomorrowAndNothingElse() throws Exception {
        Descriptions descriptions = sarnik.bean(Descriptions.class);
        assertThat(descriptions.find(sales).orElseThrow().dependsOnToday()).isFalse();
        keep(List.of(formula("age", "CURRENT_DATE - day", false)), List.of());
        assertThat(descriptions.find(sales).orElseThrow().dependsOnToday()).isTrue();
        assertThat(sarnik.bean(DatasetService.class)
                        .needed(sales)
                        .dataset()
                        .table()
                        .column("age")
                        .text(0))
                .isEqualTo(String.valueOf(
                        ChronoUnit.DAYS.between(LocalDate.parse("2026-01-01"), LocalDate.now(Clock.systemUTC()))));
    }

    @Test
    void aMeasureIsOfferedInBriefsAndDrawn() throws Exception {
        keep(List.of(formula("litres a row", "SUM(litres) / COUNT(*)", true)), List.of());
        JsonNode opened = ana.read(ana.get("/api/dashboards/" + dashboard));
        assertThat(ana.get("/api/dashboards/" + dashboard + "/briefs/v2").body())
                .contains("litres a row");
        String patch = "[{\"op\":\"replace\",\"path\":\"/visuals/v2/measure\",\"value\":{\"summary\":\"FORMULA\","
                + "\"column\":\"litres a row\"}}]";
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                patch,
                "If-Match",
                "\"" + opened.get("revision").asLong() + "\""));
        assertThat(frame("v2").get("type").asString()).isNotEqualTo("misfit");
        assertThat(frame("v2").toString()).contains("litres a row");
        keep(List.of(), List.of());
        assertThat(frame("v2").get("why").asString()).contains("no measure “litres a row”");
    }

    @Test
    void aStandingRuleIsTheFirstStepOfEveryTrail() throws Exception {
        keep(List.of(), List.of("litres IS NOT NULL AND town = 'Soria'"));
        JsonNode steps = frame("v2").at("/trail/steps");
        assertThat(steps.get(0).get("words").asString()).isEqualTo("All rows");
        assertThat(steps.get(1).get("words").asString())
                .isEqualTo("Always only rows where litres IS NOT NULL AND town = 'Soria'");
        assertThat(steps.get(1).get("left").asInt())
                .isLessThan(steps.get(0).get("left").asInt());
    }

    @Test
    void whatDoesNotWorkIsRefusedWithTheWordThatIsMeant() throws Exception {
        assertThat(keep(List.of(formula("x", "litrs * 2", false)), List.of()).body())
                .contains("Did you mean “litres”?");
        assertThat(keep(List.of(formula("litres", "1 + 1", false)), List.of()).body())
                .contains("is taken");
        assertThat(keep(List.of(formula("@x", "1 + 1", false)), List.of()).statusCode())
                .isEqualTo(400);
        assertThat(keep(List.of(), List.of("litres * 2")).body()).contains("A standing rule is a condition");
        assertThat(keep(List.of(formula("a", "b + 1", false), formula("b", "a + 1", false)), List.of())
                        .body())
                .as("in a circle")
                .contains("no column “b”");
    }

    @Test
    void whatHasNoValueInSomeRowsIsKeptAndSaid() throws Exception {
        assertThat(keep(List.of(formula("odd", "1 / (CHAR_LENGTH(town) - 5)", false)), List.of())
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.get("/datasets/" + sales).body()).contains("no value: division by zero");
    }

    @Test
    void aFormulaWhoseColumnHasGoneIsLeftOutAndSaid() throws Exception {
        keep(List.of(formula("double", "litres * 2", false)), List.of("litres > 0"));
        JsonNode taken = ana.read(ana.upload(
                RunningSarnik.file("s.csv", "town,province,country,day,product\nSoria,Soria,Spain,2026-01-01,still\n"),
                "s.csv",
                "?dataset=" + sales));
        ana.read(ana.send("POST", "/api/bring/" + taken.get("id").asString() + "/serve", "application/json", ""));
        assertThat(ana.get("/datasets/" + sales).body()).contains("double: There is no column “litres”");
    }

    @Test
    void isTriedOnRealRowsBeforeItIsKept() throws Exception {
        JsonNode tried = ana.json(
                "POST",
                "/api/datasets/" + sales + "/formulas/try",
                Map.of(
                        "before",
                        List.of(formula("double", "litres * 2", false)),
                        "text",
                        "double > 3 AND town LIKE 'S%'",
                        "kind",
                        "rule"));
        assertThat(tried.get("gives").asString()).isEqualTo("yes/no");
        assertThat(tried.get("header").toString()).contains("double").contains("town");
        JsonNode measure = ana.json(
                "POST", "/api/datasets/" + sales + "/formulas/try", Map.of("text", "COUNT(*)", "kind", "measure"));
        assertThat(measure.at("/rows/0/1").asString()).isEqualTo("6");
        JsonNode wrong = ana.json(
                "POST", "/api/datasets/" + sales + "/formulas/try", Map.of("text", "litres + town", "kind", "column"));
        assertThat(wrong.at("/trouble/from").asInt()).isEqualTo(9);
        assertThat(wrong.at("/trouble/words").asString()).contains("||");
        JsonNode distance = ana.json(
                "POST",
                "/api/datasets/" + sales + "/formulas/try",
                Map.of("text", "ROUND(distance(place, point(-2.46883, 41.76401)) / 1000, 1)", "kind", "column"));
        assertThat(distance.at("/rows/0/0").asString()).as("Soria itself").isEqualTo("0.0");
    }

    @Test
    void noFigureIsShownWhereARuleDoesNotWorkWithNewerRows() throws Exception {
        keep(List.of(), List.of("product = 'still'"));
        JsonNode newer = ana.read(ana.upload(
                RunningSarnik.file("newer.csv", Samples.SALES.replaceAll(",(product|still|warm),", ",")),
                "newer.csv",
                "?dataset=" + sales));
        assertThat(ana.get(newer.get("address").asString()).body())
                .contains("What always holds for these rows does not work without them: product = &#39;still&#39;.");
        ana.json("POST", "/api/bring/" + newer.get("id").asString() + "/serve?append=false", "");
        JsonNode drawings = ana.json("POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", ""))
                .get("drawings");
        for (String visual : List.of("v1", "v2", "v3"))
            assertThat(drawings.get(visual).toString())
                    .contains("always shows only rows where product = 'still', which does not work")
                    .doesNotContain("179");
        // What can be mended can be opened.
        for (String page : List.of("/dashboards/" + dashboard, "/dashboards/" + dashboard + "/compose"))
            assertThat(ana.get(page).statusCode()).isEqualTo(200);
        assertThat(ana.get("/datasets/" + sales).body()).contains("There is no column");
        assertThat(keep(List.of(), List.of()).statusCode()).isEqualTo(204);
        assertThat(frame("v2").toString()).contains("179");
    }

    @Test
    void itsPageShowsThemAndWhatCanBeCompleted() throws Exception {
        keep(List.of(formula("double", "litres * 2", false)), List.of());
        assertThat(ana.get("/datasets/" + sales + "/formulas").body())
                .contains("litres * 2")
                .contains("PERCENTILE_CONT")
                .contains("the row\\u0027s place".replace("\\u0027", "'"));
    }

    @Test
    void aTieLetsAPickNarrowAnotherDataset() throws Exception {
        JsonNode taken = ana.read(ana.upload(
                RunningSarnik.file("prices.csv", "drink,price\nstill,0.18\nwarm,0.30\nice,0.5\n"), "prices.csv"));
        Map<String, Object> keep = new java.util.HashMap<>(Map.of("name", "Prices"));
        keep.put("placing", null);
        long prices =
                Long.parseLong(ana.json("POST", "/api/bring/" + taken.get("id").asString() + "/keep", keep)
                        .get("id")
                        .asString());
        Map<String, Object> tie = Map.of("column", "drink", "dataset", sales, "equals", "product");
        assertThat(ana.json("POST", "/api/datasets/" + prices + "/ties/match", tie)
                        .get("words")
                        .asString())
                .contains("of 3 rows find a partner over there")
                .contains("of 6 rows");
        JsonNode opened = ana.read(ana.get("/api/dashboards/" + dashboard));
        String bars = "[{\"op\":\"add\",\"path\":\"/visuals/p1\",\"value\":{\"type\":\"bars\",\"page\":\"p1\","
                + "\"at\":{\"x\":0,\"y\":30,\"w\":6,\"h\":6},\"title\":\"\",\"dataset\":"
                + sales
                + ",\"category\":\"product\",\"measure\":{\"summary\":\"COUNT\"},\"rank\":null,\"rule\":null}},"
                + "{\"op\":\"add\",\"path\":\"/visuals/p2\",\"value\":{\"type\":\"figure\","
                + "\"page\":\"p1\",\"at\":{\"x\":6,\"y\":30,\"w\":6,\"h\":6},\"title\":\"\",\"dataset\":"
                + prices
                + ",\"measure\":{\"summary\":\"COUNT\"},\"rule\":null}},{\"op\":\"add\","
                + "\"path\":\"/links/k9\",\"value\":{\"from\":\"p1\"}}]";
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                bars,
                "If-Match",
                "\"" + opened.get("revision").asLong() + "\""));
        Map<String, Object> picked = Map.of("state", "p.p1=still");
        assertThat(ana.json("POST", "/api/dashboards/" + dashboard + "/frames", picked)
                        .at("/drawings/p2/full")
                        .asString())
                .as("not tied yet")
                .isEqualTo("3");
        ana.read(ana.describe(prices, "ties", List.of(tie)));
        assertThat(ana.json("POST", "/api/dashboards/" + dashboard + "/frames", picked)
                        .at("/drawings/p2/full")
                        .asString())
                .isEqualTo("1");
        assertThat(ana.get("/datasets/" + prices).body()).contains("means the same as");
        assertThat(ana.describe(
                                prices,
                                "ties",
                                List.of(Map.of("column", "drink", "dataset", sales, "equals", "height")))
                        .body())
                .contains("no column “height”");
        assertThat(ana.send(
                                "POST",
                                "/api/datasets/" + prices + "/ties/match",
                                "application/json",
                                "{\"column\":\"drink\",\"dataset\":" + prices + ",\"equals\":\"drink\"}")
                        .statusCode())
                .isEqualTo(400);
    }
}
