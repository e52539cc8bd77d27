package sarnik.app.boundary;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Boundary sets")
class BoundarySetsTest {

    /** Two service zones, of which one crosses itself, and one without a shape. */
    private static final String ZONES = """
            {"type": "FeatureCollection", "features": [
              {"type": "Feature", "properties": {"id": "N", "zone": "North"}, "geometry": {"type": "Polygon", "coordinates": [[[-7, 41], [-1, 41], [-1, 44], [-7, 44], [-7, 41]]]}},
              {"type": "Feature", "properties": {"id": "S", "zone": "South"}, "geometry": {"type": "Polygon", "coordinates": [[[-7, 37], [-1, 41], [-1, 37], [-7, 41], [-7, 37]]]}},
              {"type": "Feature", "properties": {"id": "E", "zone": "Empty"}, "geometry": null}]}""";

    private static JsonNode zones(SarnikClient client, String name) throws Exception {
        JsonNode taken = client.read(client.upload(RunningSarnik.file("zones.geojson", ZONES), "zones.geojson"));
        assertThat(client.get(taken.get("address").asString()).body()).contains("keep them as a boundary set");
        return client.json(
                "POST",
                "/api/bring/" + taken.get("id").asString() + "/areas",
                Map.of("name", name, "level", "zone", "code", "id", "areaName", "zone", "credit", "Aljibe"));
    }

    @Test
    void areBroughtInCheckedAndMended(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode kept = zones(ana, "Zones of service");
        assertThat(kept.get("areas").asInt()).isEqualTo(2);
        assertThat(kept.get("troubles").toString())
                .contains("South")
                .contains("mended")
                .contains("Empty")
                .contains("no shape");
        assertThat(ana.get(kept.get("address").asString()).body())
                .contains("2 areas, level zone; Aljibe")
                .contains("North");
        assertThat(ana.get("/boundary-sets").body())
                .contains("Zones of service")
                .contains("Municipalities of Spain")
                .contains("8,119");
    }

    @Test
    void placeRowsByCodeOrNameAndReportBothWays(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        zones(ana, "Zones for placing");
        JsonNode taken =
                ana.read(ana.upload(RunningSarnik.file("visits.csv", "where,n\nN,1\nnorth,2\nX,3\n"), "visits.csv"));
        Map<String, Object> placing = Map.of("type", "area", "column", "where", "set", "Zones for placing");
        JsonNode found = ana.json("POST", "/api/bring/" + taken.get("id").asString() + "/placing", placing);
        assertThat(found.get("placed").asInt()).isEqualTo(2);
        assertThat(found.get("unplaced").asInt()).isEqualTo(1);
        long id = Long.parseLong(ana.json(
                        "POST",
                        "/api/bring/" + taken.get("id").asString() + "/keep",
                        Map.of("name", "Visits", "placing", placing))
                .get("id")
                .asString());
        assertThat(ana.get("/datasets/" + id).body()).contains("1 of 2 areas of Zones for placing have no row: South.");
        JsonNode gone = ana.read(ana.upload(RunningSarnik.file("v.csv", "where\nN\n"), "v.csv"));
        assertThat(ana.send(
                                "POST",
                                "/api/bring/" + gone.get("id").asString() + "/placing",
                                "application/json",
                                "{\"type\":\"area\",\"column\":\"where\",\"set\":\"Nowhere\"}")
                        .body())
                .contains("has gone");
    }

    @Test
    void rollPlacesUpThroughAFormula(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = ana.bring(Samples.sales(), "Rolled up");
        JsonNode tried = ana.json(
                "POST",
                "/api/datasets/" + id + "/formulas/try",
                Map.of("text", "within(place, 'Communities of Spain')", "kind", "column"));
        assertThat(tried.at("/rows/0/0").asString()).isEqualTo("Castilla y León");
        JsonNode unknown = ana.json(
                "POST",
                "/api/datasets/" + id + "/formulas/try",
                Map.of("text", "within(place, 'Comunities of Spain')", "kind", "column"));
        assertThat(unknown.at("/trouble/words").asString()).contains("Did you mean “Communities of Spain”?");
    }

    @Test
    void sendTheirShapesApartAndOnlyWhenTheyChanged(RunningSarnik sarnik) throws Exception {
        SarnikClient rui = sarnik.client("rui");
        HttpResponse<String> far = rui.get("/api/boundary-sets/Provinces%20of%20Spain/shapes/FAR");
        HttpResponse<String> close = rui.get("/api/boundary-sets/Provinces%20of%20Spain/shapes/CLOSE");
        assertThat(rui.read(far).get("areas")).hasSize(52);
        assertThat(far.body().length()).isLessThan(close.body().length() / 4);
        assertThat(far.headers().firstValue("ETag")).isPresent();
        assertThat(rui.get("/api/boundary-sets/Provinces%20of%20Spain/shapes/FAR")
                        .headers()
                        .firstValue("ETag"))
                .isEqualTo(far.headers().firstValue("ETag"));
        assertThat(rui.get("/api/boundary-sets/Provinces%20of%20Spain/shapes/MIDDLING")
                        .statusCode())
                .isEqualTo(400);
        assertThat(rui.get("/api/boundary-sets/Nowhere/shapes/FAR").statusCode())
                .isEqualTo(404);
    }

    @Test
    void ofOneNameAreThereOnceAndShippedOnesStay(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        zones(ana, "Zones twice");
        JsonNode taken = ana.read(ana.upload(RunningSarnik.file("z.geojson", ZONES), "z.geojson"));
        for (String name : List.of("Zones twice", "Countries", " ", "O'Zones")) {
            assertThat(ana.send(
                                    "POST",
                                    "/api/bring/" + taken.get("id").asString() + "/areas",
                                    "application/json",
                                    "{\"name\":\"" + name + "\",\"code\":\"id\"}")
                            .statusCode())
                    .as(name)
                    .isEqualTo(400);
        }
        assertThat(ana.send("DELETE", "/api/boundary-sets/Countries", "application/json", "")
                        .body())
                .contains("ships with Sarnik");
        assertThat(ana.send("DELETE", "/api/boundary-sets/Zones%20twice", "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.get("/boundary-sets/Zones%20twice").statusCode()).isEqualTo(404);
    }
}
