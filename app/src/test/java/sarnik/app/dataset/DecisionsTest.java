package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.place.PlacedTable;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Decisions about placing")
class DecisionsTest {

    private static final String VISITS =
            "where,province,country,n\nSoria,Soria,Spain,1\nVillaseca del Eco,Soria,Spain,2\nToledo,Zamora,Spain,3\n";

    private RunningSarnik sarnik;
    private SarnikClient ana;
    private long visits;

    @BeforeEach
    void aDataset(RunningSarnik running) throws Exception {
        sarnik = running;
        ana = running.client("ana");
        JsonNode taken = ana.read(ana.upload(RunningSarnik.file("visits.csv", VISITS), "visits.csv"));
        Map<String, Object> placing =
                Map.of("type", "name", "town", "where", "province", "province", "country", "country");
        visits = Long.parseLong(ana.json(
                        "POST",
                        "/api/bring/" + taken.get("id").asString() + "/keep",
                        Map.of("name", "Visits", "placing", placing))
                .get("id")
                .asString());
    }

    private JsonNode decide(String town, String province, String place, boolean back) throws Exception {
        Map<String, Object> body = new HashMap<>();
        body.put("words", Map.of("town", town, "province", province, "country", "Spain"));
        body.put("place", place);
        body.put("back", back);
        return ana.json("POST", "/api/datasets/" + visits + "/decisions", body);
    }

    private String provinceOf(int row) {
        return sarnik.bean(DatasetService.class)
                .needed(visits)
                .dataset()
                .table()
                .column(PlacedTable.PROVINCE)
                .text(row);
    }

    @Test
    void aPlaceThatIsTakenHoldsAtOnceAndAtEveryRefresh() throws Exception {
        JsonNode sheet = decide("Villaseca del Eco", "Soria", "g3108681", false);
        assertThat(sheet.get("unplaced").asInt()).isZero();
        assertThat(sheet.get("open").get(0).get("state").asString()).isEqualTo("decided");
        assertThat(provinceOf(1)).isEqualTo("Soria");
        JsonNode newer = ana.read(ana.upload(
                RunningSarnik.file("v2.csv", VISITS + "Villaseca del Eco,Soria,Spain,9\n"),
                "v2.csv",
                "?dataset=" + visits));
        assertThat(ana.get(newer.get("address").asString()).body())
                .as("the look beforehand knows what was decided")
                .doesNotContain("No town is called");
        ana.read(ana.send("POST", "/api/bring/" + newer.get("id").asString() + "/serve", "application/json", ""));
        assertThat(provinceOf(3)).isEqualTo("Soria");
    }

    @Test
    void aPointPutByHandLiesWhereItWasPut() throws Exception {
        decide("Villaseca del Eco", "Soria", "c-2.50000,41.70000", false);
        assertThat(sarnik.bean(DatasetService.class)
                        .needed(visits)
                        .dataset()
                        .places()
                        .values())
                .anySatisfy(p -> assertThat(p.lat()).isEqualTo(41.7));
        assertThat(provinceOf(1)).isEqualTo("Soria");
    }

    @Test
    void rowsCanBeLeftOutAndTheDecisionTakenBack() throws Exception {
        assertThat(provinceOf(2)).as("doubtful, but taken").isNotNull();
        JsonNode out = decide("Toledo", "Zamora", null, false);
        assertThat(provinceOf(2)).isNull();
        assertThat(out.get("doubtful").asInt()).isZero();
        JsonNode back = decide("Toledo", "Zamora", null, true);
        assertThat(back.get("doubtful").asInt()).isEqualTo(1);
    }

    @Test
    void whatIsDecidedForAllHoldsForOtherDatasetsUnlessTheyDecideOtherwise() throws Exception {
        String other = "where,province,country,n\nVillafranca del Eco,Soria,Spain,1\n";
        Map<String, Object> placing =
                Map.of("type", "name", "town", "where", "province", "province", "country", "country");
        JsonNode before = ana.read(ana.upload(RunningSarnik.file("o.csv", other), "o.csv"));
        assertThat(ana.json("POST", "/api/bring/" + before.get("id").asString() + "/placing", placing)
                        .get("unplaced")
                        .asInt())
                .isEqualTo(1);
        Map<String, Object> words = Map.of("town", "Villafranca del Eco", "province", "Soria", "country", "Spain");
        ana.json(
                "POST",
                "/api/datasets/" + visits + "/decisions",
                Map.of("words", words, "place", "g3108681", "back", false, "shared", true));
        assertThat(ana.json("POST", "/api/bring/" + before.get("id").asString() + "/placing", placing)
                        .get("placed")
                        .asInt())
                .isEqualTo(1);
        long kept = Long.parseLong(ana.json(
                        "POST",
                        "/api/bring/" + before.get("id").asString() + "/keep",
                        Map.of("name", "Others", "placing", placing))
                .get("id")
                .asString());
        assertThat(sarnik.bean(DatasetService.class)
                        .needed(kept)
                        .dataset()
                        .table()
                        .column(PlacedTable.PROVINCE)
                        .text(0))
                .isEqualTo("Soria");
        Map<String, Object> out = new HashMap<>(Map.of("words", words, "back", false));
        out.put("place", null);
        ana.json("POST", "/api/datasets/" + kept + "/decisions", out);
        assertThat(sarnik.bean(DatasetService.class)
                        .needed(kept)
                        .dataset()
                        .table()
                        .column(PlacedTable.PROVINCE)
                        .isMissing(0))
                .as("its own decision holds")
                .isTrue();
    }

    @Test
    void aPlaceThatIsNotThereIsRefused() throws Exception {
        for (String place : new String[] {"g0", "nowhere", "c999,0", "c0,99"}) {
            var answer = ana.send(
                    "POST",
                    "/api/datasets/" + visits + "/decisions",
                    "application/json",
                    "{\"words\":{\"town\":\"x\",\"province\":null,\"country\":null},\"place\":\"" + place
                            + "\",\"back\":false}");
            assertThat(answer.statusCode()).as(place).isEqualTo(400);
            assertThat(answer.body()).contains("There is no place");
        }
        assertThat(ana.send("POST", "/api/datasets/" + visits + "/decisions", "application/json", "{\"back\":false}")
                        .body())
                .contains("Say which words");
        assertThat(ana.send(
                                "POST",
                                "/api/datasets/999999/decisions",
                                "application/json",
                                "{\"words\":{\"town\":\"x\"},\"place\":null,\"back\":false}")
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void theGazetteerIsSearchedByNameSlipAndLevel() throws Exception {
        assertThat(ana.read(ana.get("/api/places?name=Zaragzoa"))
                        .get(0)
                        .get("words")
                        .asString())
                .startsWith("Zaragoza");
        assertThat(ana.read(ana.get("/api/places?name=Toledo,%20Ohio"))
                        .get(0)
                        .get("words")
                        .asString())
                .contains("US");
        assertThat(ana.read(ana.get("/api/places?name=qqqqqq"))).isEmpty();
    }
}
