package sarnik.app.key;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@ExtendWith(RunningSarnik.class)
@DisplayName("Shared keys over HTTP")
class SharedKeysTest {

    private static final JsonMapper MAPPER = JsonMapper.shared();

    private SarnikClient ana;

    @BeforeEach
    void anAuthor(RunningSarnik sarnik) throws Exception {
        ana = sarnik.client("ana");
    }

    private HttpResponse<String> keep(String name, Map<String, Object> colour) throws Exception {
        return ana.send(
                "PUT",
                "/api/keys/" + name,
                "application/json",
                MAPPER.writeValueAsString(Map.of("words", "litres", "colour", colour)));
    }

    private HttpResponse<String> change(String form) throws Exception {
        return ana.send("POST", "/keys", "application/x-www-form-urlencoded", form);
    }

    /** A dashboard whose map wears a key; its id. */
    private long wearing(String key) throws Exception {
        long id = Samples.dashboard(ana, "Wears " + key);
        JsonNode opened = ana.read(ana.get("/api/dashboards/" + id));
        String patch = "[{\"op\":\"add\",\"path\":\"/visuals/v1/layers/l1/colour/key\",\"value\":\"" + key + "\"}]";
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + id,
                Samples.JSON_PATCH,
                patch,
                "If-Match",
                "\"" + opened.get("revision").asLong() + "\""));
        return id;
    }

    private JsonNode key(long dashboard) throws Exception {
        return ana.json("POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", "", "ids", List.of("v1")))
                .get("drawings")
                .get("v1")
                .get("layers")
                .get(0)
                .get("key");
    }

    @Test
    void areWornByEveryMapThatNamesThemAndChangedForAllAtOnce() throws Exception {
        assertThat(keep("ours", Map.of("palette", "rust", "breaks", List.of(10, 20), "low", 0, "high", 50))
                        .statusCode())
                .isEqualTo(204);
        long one = wearing("ours");
        long two = wearing("ours");
        for (long id : List.of(one, two))
            assertThat(key(id).get("breaks").toString()).isEqualTo("[10.0,20.0]");
        String page =
                change("name=ours&palette=lichen&breaks=15+30&low=0&high=60").body();
        assertThat(page).contains("Worn by “Wears ours”, “Wears ours”");
        for (long id : List.of(one, two)) {
            assertThat(key(id).get("breaks").toString()).isEqualTo("[15.0,30.0]");
            assertThat(key(id).get("high").asDouble()).isEqualTo(60);
        }
    }

    @Test
    void mayTurnAboutANumberOfTheDashboardThatWearsThem() throws Exception {
        assertThat(keep(
                                "wanted",
                                Map.of(
                                        "palette",
                                        "rust to loch",
                                        "centre",
                                        Map.of("about", "PARAMETER", "parameter", "n1")))
                        .statusCode())
                .isEqualTo(204);
        assertThat(keep("none", Map.of("palette", "mauve", "centre", Map.of("about", "PARAMETER", "parameter", "n1")))
                        .statusCode())
                .isEqualTo(400);
    }

    @Test
    void areAsLongAsADashboardsOwnScalesAndNoLonger() throws Exception {
        assertThat(keep(
                                "long",
                                Map.of(
                                        "palette",
                                        "rust",
                                        "breaks",
                                        IntStream.range(0, 10).boxed().toList()))
                        .statusCode())
                .isEqualTo(204);
        HttpResponse<String> longer = keep(
                "longer",
                Map.of(
                        "palette",
                        "rust",
                        "breaks",
                        IntStream.range(0, 11).boxed().toList()));
        assertThat(longer.statusCode()).isEqualTo(400);
        assertThat(longer.body()).contains("up to 10 own breaks");
        assertThat(keep("longer", Map.of("category", "c", "order", Collections.nCopies(101, "v")))
                        .statusCode())
                .isEqualTo(400);
    }

    @Test
    void stayWhileTheyAreWorn() throws Exception {
        keep("worn", Map.of("palette", "rust"));
        wearing("worn");
        assertThat(change("name=worn&palette=rust&remove=true").body())
                .contains("is needed by the dashboard “Wears worn”");
        keep("free", Map.of("palette", "rust"));
        assertThat(change("name=free&palette=rust&remove=true").body()).doesNotContain(">free<");
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "name=odd&palette=rust&breaks=1+x | “x” is not a number",
                "name=odd&palette=rust&breaks=5+3 | have to ascend",
                "name=odd&palette=mauve | no palette “mauve”",
                "name=odd&palette=rust&low=9&high=1 | has to lie below",
                "name=nobody&palette=rust | no such shared key"
            })
    void aScaleThatCannotBeMadeIsRefusedAndTheOldOneStays(String form, String why) throws Exception {
        keep("odd", Map.of("palette", "rust", "breaks", List.of(1, 2)));
        assertThat(change(form).body()).contains(why);
        assertThat(ana.get("/keys").body()).contains("value=\"1 2\"");
    }

    @Test
    void haveANameAndAScale() throws Exception {
        assertThat(keep("%20", Map.of("palette", "rust")).statusCode()).isEqualTo(400);
        assertThat(keep("x".repeat(121), Map.of("palette", "rust")).statusCode())
                .isEqualTo(400);
        assertThat(ana.send("PUT", "/api/keys/empty", "application/json", "{}").statusCode())
                .isEqualTo(400);
    }
}
