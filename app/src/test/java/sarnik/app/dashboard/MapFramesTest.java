package sarnik.app.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.testing.MapSamples;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@ExtendWith(RunningSarnik.class)
@DisplayName("Frames of maps over HTTP")
class MapFramesTest {

    private static final JsonMapper MAPPER = JsonMapper.shared();
    private static final Map<String, Object> SPAIN =
            Map.of("zoom", 5.5, "west", -10, "south", 35, "east", 5, "north", 44);

    private static MapSamples samples;
    private static long dashboard;

    private SarnikClient rui;

    @BeforeEach
    void aMap(RunningSarnik sarnik) throws Exception {
        rui = sarnik.client("rui");
        if (samples != null) return;
        samples = new MapSamples(sarnik.client("ana"));
        dashboard = samples.dashboard(
                "Frames",
                MapSamples.map(
                        "v1",
                        0,
                        18,
                        "",
                        "\"dataset\":%d,\"size\":{%s,\"rule\":\"AREA\",\"radius\":20},\"tip\":{\"over\":\"day\"}"
                                .formatted(samples.towns, MapSamples.sum("litres"))));
    }

    private JsonNode frames(Map<String, Object> asked) throws Exception {
        return rui.json("POST", "/api/dashboards/" + dashboard + "/frames", asked);
    }

    private HttpResponse<String> post(String what, Map<String, Object> body) throws Exception {
        return rui.send(
                "POST",
                "/api/dashboards/" + dashboard + "/" + what,
                "application/json",
                MAPPER.writeValueAsString(body));
    }

    @Test
    void placesTravelOnceAndFiguresEachTime() throws Exception {
        JsonNode first = frames(Map.of("state", ""));
        String tag = first.get("drawings")
                .get("v1")
                .get("layers")
                .get(0)
                .get("places")
                .asString();
        assertThat(first.get("places").get(tag).get("names").size()).isEqualTo(60);
        assertThat(first.get("places").get(tag).has("index")).isFalse();
        JsonNode second = frames(Map.of("state", "", "known", List.of(tag)));
        assertThat(second.get("places").isEmpty()).isTrue();
        assertThat(second.get("drawings").get("v1"))
                .isEqualTo(first.get("drawings").get("v1"));
        assertThat(frames(Map.of("state", "", "known", List.of("another")))
                        .get("places")
                        .has(tag))
                .isTrue();
    }

    private String somePlace() throws Exception {
        JsonNode first = frames(Map.of("state", ""));
        return first.get("places")
                .get(first.get("drawings")
                        .get("v1")
                        .get("layers")
                        .get(0)
                        .get("places")
                        .asString())
                .get("ids")
                .get(0)
                .asString();
    }

    private Map<String, Object> place(Object... more) throws Exception {
        Map<String, Object> asked =
                new HashMap<>(Map.of("state", "", "visual", "v1", "layer", "l1", "place", somePlace()));
        for (int i = 0; i < more.length; i += 2) asked.put((String) more[i], more[i + 1]);
        return asked;
    }

    @Test
    void aPlaceIsToldOfAndItsLikesAreFound() throws Exception {
        JsonNode told = MAPPER.readTree(post("places/told", place()).body());
        assertThat(told.get("lines").get(0).get("words").asString()).isEqualTo("sum of litres");
        assertThat(told.get("chart").get("labels").size()).isEqualTo(1);
        assertThat(MAPPER.readTree(post("places/others", place("count", 4)).body())
                        .size())
                .isEqualTo(5);
        assertThat(MAPPER.readTree(post("places/others", place("metres", 3_000_000))
                                .body())
                        .size())
                .isEqualTo(60);
    }

    @Test
    void whatCannotBeToldIsSaid() throws Exception {
        assertThat(post("places/told", place("layer", "l9")).body()).contains("This layer has been taken away");
        assertThat(post("places/told", place("visual", "v9")).body()).contains("This map has been taken away");
        assertThat(post("places/others", place()).body()).contains("within which distance");
        assertThat(post("places/others", place("place", "nowhere", "count", 3)).body())
                .isEqualTo("[]");
    }

    private static Map<String, Object> picture(Object... more) {
        Map<String, Object> asked =
                new HashMap<>(Map.of("state", "", "visual", "v1", "sight", SPAIN, "width", 400, "height", 300));
        for (int i = 0; i < more.length; i += 2) asked.put((String) more[i], more[i + 1]);
        return asked;
    }

    @Test
    void aMapIsMadeAPictureWithoutABrowser() throws Exception {
        HttpResponse<String> svg = post("pictures", picture("form", "svg"));
        assertThat(svg.headers().firstValue("Content-Type").orElseThrow()).startsWith("image/svg+xml");
        assertThat(svg.body()).startsWith("<svg").contains("sum of litres");
        HttpResponse<String> png = post("pictures", picture("form", "png", "ratio", 2));
        assertThat(png.headers().firstValue("Content-Type")).contains("image/png");
    }

    @Test
    void aPictureStandsOnTheGroundThatTheReaderHasChosen() throws Exception {
        String usual = post("pictures", picture("form", "svg")).body();
        String bare = post("pictures", picture("form", "svg", "ground", Map.of("mood", "plain", "detail", 1)))
                .body();
        String gone = post("pictures", picture("form", "svg", "ground", Map.of("mood", "source:Gone", "detail", 2)))
                .body();
        String tinted = post("pictures", picture("form", "svg", "ground", Map.of("mood", "tinted", "detail", 3)))
                .body();
        assertThat(usual.contains("Natural Earth · GeoNames · GSHHG") && usual.contains("stroke-dasharray"))
                .isTrue();
        assertThat(bare.contains("Natural Earth") || bare.contains("stroke-dasharray"))
                .as("nothing below")
                .isFalse();
        assertThat(gone).as("paper where the source has gone").isEqualTo(usual);
        assertThat(tinted.contains("data:image/png")).as("the relief").isTrue();
    }

    @ParameterizedTest
    @CsvSource({"10, 300", "400, 9000", "-5, 300"})
    void aPictureHasASizeThatCanBe(int width, int height) throws Exception {
        HttpResponse<String> answer = post("pictures", picture("width", width, "height", height));
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(answer.body()).contains("50 to 4000 pixels");
    }

    @ParameterizedTest
    @CsvSource({"4000, 3900, svg, 1", "2000, 2000, png, 2"})
    void aPictureHasNotMorePixelsThanTheServerHasRoomFor(int width, int height, String form, int ratio)
            throws Exception {
        HttpResponse<String> answer =
                post("pictures", picture("width", width, "height", height, "form", form, "ratio", ratio));
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(answer.body()).contains("12 million pixels");
    }

    @Test
    void theRowsInSightComeAsCsv(RunningSarnik sarnik) throws Exception {
        HttpResponse<String> rows = post(
                "rows",
                Map.of(
                        "state",
                        "",
                        "visual",
                        "v1",
                        "layer",
                        "l1",
                        "sight",
                        Map.of("zoom", 9, "west", -4, "south", 40, "east", -3.4, "north", 40.8)));
        assertThat(rows.headers().firstValue("Content-Type").orElseThrow()).startsWith("text/csv");
        assertThat(rows.body().lines().findFirst()).as("what the layer shows").hasValue("litres,day,lon,lat");
        JsonNode opened = sarnik.client("ana").read(sarnik.client("ana").get("/api/dashboards/" + dashboard));
        sarnik.client("ana")
                .read(sarnik.client("ana")
                        .send(
                                "PATCH",
                                "/api/dashboards/" + dashboard,
                                Samples.JSON_PATCH,
                                "[{\"op\":\"add\",\"path\":\"/visuals/v1/rows\",\"value\":\"all\"}]",
                                "If-Match",
                                "\"" + opened.get("revision").asLong() + "\""));
        sarnik.client("ana").publish(dashboard);
        rows = post(
                "rows",
                Map.of(
                        "state",
                        "",
                        "visual",
                        "v1",
                        "layer",
                        "l1",
                        "sight",
                        Map.of("zoom", 9, "west", -4, "south", 40, "east", -3.4, "north", 40.8)));
        assertThat(rows.body().lines().findFirst())
                .as("all, since the author says so")
                .hasValue("town,province,country,product,litres,day,lon,lat");
        assertThat(rows.body()).contains("Madrid").doesNotContain("Barcelona");
        assertThat(post("rows", Map.of("state", "", "visual", "v1", "layer", "l1"))
                        .statusCode())
                .isEqualTo(400);
        assertThat(post("rows", Map.of("state", "", "visual", "v1", "layer", "gone", "sight", SPAIN))
                        .body())
                .contains("taken away");
    }

    @Test
    void onlyAMapIsMadeOne() throws Exception {
        assertThat(post("pictures", picture("visual", "v9")).statusCode()).isEqualTo(400);
        Map<String, Object> blind = picture();
        blind.put("sight", null);
        assertThat(post("pictures", blind).statusCode()).isEqualTo(400);
    }

    @Test
    void documentsWithLayersThatAreNoneAreRefusedWithThePlace(RunningSarnik sarnik) throws Exception {
        SarnikClient author = sarnik.client("ana");
        JsonNode opened = author.read(author.get("/api/dashboards/" + dashboard));
        for (String value : List.of(
                "{\"order\":1,\"dataset\":1,\"opacity\":2}",
                "{\"kind\":\"BALLOONS\",\"order\":1,\"dataset\":1,\"opacity\":1}",
                "{\"order\":1,\"dataset\":1,\"opacity\":1,\"colour\":{}}")) {
            HttpResponse<String> refused = author.send(
                    "PATCH",
                    "/api/dashboards/" + dashboard,
                    Samples.JSON_PATCH,
                    "[{\"op\":\"add\",\"path\":\"/visuals/v1/layers/l2\",\"value\":" + value + "}]",
                    "If-Match",
                    "\"" + opened.get("revision").asLong() + "\"");
            assertThat(refused.statusCode()).isEqualTo(400);
            assertThat(refused.body()).contains("/visuals/v1/layers/l2");
        }
    }
}
