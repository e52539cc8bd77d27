package sarnik.app.dashboard;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Dashboards over the JSON interface")
class DashboardEditsTest {

    private SarnikClient ana;
    private SarnikClient berta;
    private String path;

    @BeforeEach
    void aDashboard(RunningSarnik sarnik) throws Exception {
        ana = sarnik.client("ana");
        berta = sarnik.client("berta");
        path = "/api/dashboards/" + Samples.dashboard(ana, "Where?");
        ana.json("PUT", path + "/shared", true);
    }

    private static String set(String path, String json) {
        return "[{\"op\":\"add\",\"path\":\"%s\",\"value\":%s}]".formatted(path, json);
    }

    private HttpResponse<String> edit(SarnikClient who, long revision, String patch) throws Exception {
        return who.send("PATCH", path, Samples.JSON_PATCH, patch, "If-Match", "\"" + revision + "\"");
    }

    private JsonNode now() throws Exception {
        return ana.read(ana.get(path));
    }

    private HttpResponse<String> step(SarnikClient who, String name, long revision) throws Exception {
        return who.send("POST", path + "/" + name, "application/json", "", "If-Match", "\"" + revision + "\"");
    }

    @Test
    void anEditIsARevisionAndTheETag() throws Exception {
        HttpResponse<String> answer = edit(ana, 2, set("/title", "\"Who?\""));
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(answer.headers().firstValue("ETag")).contains("\"3\"");
        assertThat(now().get("document").get("title").asString()).isEqualTo("Who?");
    }

    @Test
    void anEditWithoutItsRevisionIsRefused() throws Exception {
        assertThat(ana.send("PATCH", path, Samples.JSON_PATCH, set("/title", "\"x\""))
                        .statusCode())
                .isEqualTo(428);
        assertThat(ana.send("PATCH", path, Samples.JSON_PATCH, set("/title", "\"x\""), "If-Match", "\"soon\"")
                        .statusCode())
                .isEqualTo(400);
        assertThat(ana.send("PATCH", path, Samples.JSON_PATCH, "nonsense", "If-Match", "\"2\"")
                        .body())
                .contains("JSON Patch");
        assertThat(now().get("revision").asLong()).isEqualTo(2);
    }

    @Test
    void aStaleEditIsRefusedAndNothingIsLost() throws Exception {
        edit(berta, 2, set("/title", "\"Berta's?\""));
        HttpResponse<String> stale = edit(ana, 2, set("/title", "\"Ana's?\""));
        assertThat(stale.statusCode()).isEqualTo(412);
        assertThat(Samples.parse(stale.body()).get("detail").asString())
                .isEqualTo("berta has changed this dashboard meanwhile: the dashboard's title.");
        assertThat(now().get("document").get("title").asString()).isEqualTo("Berta's?");
    }

    @Test
    void editsAtOneMomentAreTakenOnceEach() throws Exception {
        var pool = Executors.newFixedThreadPool(4);
        List<Callable<Integer>> tries = IntStream.range(0, 8)
                .mapToObj(i -> (Callable<Integer>)
                        () -> edit(i % 2 == 0 ? ana : berta, 2, set("/visuals/v1/title", "\"" + i + "\""))
                                .statusCode())
                .toList();
        int taken = 0;
        for (Future<Integer> answer : pool.invokeAll(tries)) {
            assertThat(answer.get()).isIn(200, 412);
            if (answer.get() == 200) taken++;
        }
        pool.shutdown();
        assertThat(taken).isEqualTo(1);
        assertThat(now().get("revision").asLong()).isEqualTo(3);
    }

    @Test
    void undoAndRedoWalkTheOwnHistory() throws Exception {
        edit(ana, 2, set("/title", "\"One?\""));
        edit(ana, 3, set("/title", "\"Two?\""));
        assertThat(now().get("undo").asString()).isEqualTo("the dashboard's title");
        step(ana, "undo", 4);
        assertThat(now().get("document").get("title").asString()).isEqualTo("One?");
        step(ana, "undo", 5);
        assertThat(now().get("document").get("title").asString()).isEqualTo("Where?");
        step(ana, "redo", 6);
        step(ana, "redo", 7);
        assertThat(now().get("document").get("title").asString()).isEqualTo("Two?");
        assertThat(now().get("redo").isNull()).isTrue();
        step(ana, "undo", 8);
        assertThat(now().get("document").get("title").asString())
                .as("an edit that was redone can be undone again")
                .isEqualTo("One?");
    }

    @Test
    void aNewEditEndsWhatCouldBeRedone() throws Exception {
        edit(ana, 2, set("/title", "\"One?\""));
        step(ana, "undo", 3);
        edit(ana, 4, set("/visuals/v1/title", "\"Else\""));
        assertThat(now().get("redo").isNull()).isTrue();
        assertThat(step(ana, "redo", 5).statusCode()).isEqualTo(400);
    }

    @Test
    void undoNeverTakesBackWhatSomebodyElseDid() throws Exception {
        edit(ana, 2, set("/title", "\"Ana's?\""));
        edit(berta, 3, set("/title", "\"Berta's?\""));
        HttpResponse<String> answer = step(ana, "undo", 4);
        assertThat(answer.statusCode()).isEqualTo(409);
        assertThat(answer.body()).contains("somebody has changed or removed the same thing");
        assertThat(now().get("document").get("title").asString()).isEqualTo("Berta's?");
        step(berta, "undo", 4);
        assertThat(now().get("document").get("title").asString()).isEqualTo("Ana's?");
    }

    @Test
    void framesOfSeveralVisualsComeInOneAnswer() throws Exception {
        JsonNode frames = ana.json("POST", path + "/frames", Map.of("state", "f.f1=still", "ids", List.of("v2", "v3")));
        assertThat(frames.get("drawings").propertyNames()).containsExactly("v2", "v3");
        assertThat(frames.get("drawings").get("v2").get("full").asString()).isEqualTo("150");
        assertThat(frames.get("showing").get(0).get("words").asString()).isEqualTo("Product is still");
        assertThat(frames.get("state").asString()).isEqualTo("f.f1=still");
    }

    @Test
    void aStateThatNoLongerFitsIsSaidAndTheRestIsShown() throws Exception {
        JsonNode frames =
                ana.json("POST", path + "/frames", Map.of("state", "f.f1=beer&f.f9=x&p.v1=g1&f.f2=2026-02-01.."));
        assertThat(frames.get("misfits")).hasSize(3);
        assertThat(frames.get("state").asString()).isEqualTo("f.f2=2026-02-01..");
        assertThat(frames.get("drawings").get("v2").get("full").asString()).isEqualTo("49");
    }

    @Test
    void framesFollowTheNewestRevision() throws Exception {
        JsonNode before = ana.json("POST", path + "/frames", Map.of("state", "", "ids", List.of("v2")));
        assertThat(before.at("/drawings/v2/words").asString()).isEqualTo("sum of litres");
        edit(ana, 2, set("/visuals/v2/measure", "{\"summary\":\"COUNT\"}"));
        JsonNode after = ana.json("POST", path + "/frames", Map.of("state", "", "ids", List.of("v2")));
        assertThat(after.at("/drawings/v2/full").asString()).isEqualTo("6");
        step(ana, "undo", 3);
        assertThat(ana.json("POST", path + "/frames", Map.of("state", "", "ids", List.of("v2")))
                        .at("/drawings/v2/full")
                        .asString())
                .isEqualTo("179");
    }

    @Test
    void aDashboardThatIsClosedAgainIsGoneForReadersAtOnce(RunningSarnik sarnik) throws Exception {
        SarnikClient rui = sarnik.client("rui");
        ana.publish(Long.parseLong(path.substring(path.lastIndexOf('/') + 1)));
        for (boolean open : new boolean[] {true, false, true, false}) {
            ana.json("PUT", path + "/edition", open ? Map.of("number", 1) : Map.of());
            assertThat(rui.get(path).statusCode()).isEqualTo(open ? 200 : 404);
            assertThat(rui.send("POST", path + "/frames", "application/json", "{\"state\":\"\"}")
                            .statusCode())
                    .isEqualTo(open ? 200 : 404);
        }
    }

    @Test
    void whatAGestureTouchesIsToldWithTheDashboard() throws Exception {
        JsonNode touches = now().get("touches");
        assertThat(touches.get("v1").toString()).isEqualTo("[\"v2\",\"v3\"]");
        assertThat(touches.get("v2")).as("no link starts at the figure").isEmpty();
        assertThat(touches.get("f1")).hasSize(3);
        assertThat(now().at("/offers/f1/values").toString()).isEqualTo("[\"still\",\"warm\"]");
        assertThat(now().at("/offers/f2/from").asString()).isEqualTo("2026-01-01");
        assertThat(now().at("/offers/f2/to").asString()).isEqualTo("2026-02-03");
    }

    @Test
    void askingForAVisualThatIsNotThereIsAnswered() throws Exception {
        JsonNode frames = ana.json("POST", path + "/frames", Map.of("state", "", "ids", List.of("v77", "v2")));
        assertThat(frames.at("/drawings/v77/why").asString()).contains("taken away");
        assertThat(frames.at("/drawings/v2/full").asString()).isEqualTo("179");
        assertThat(ana.send("POST", path + "/frames", "application/json", "[]").statusCode())
                .isEqualTo(400);
    }

    @Test
    void briefsAndProposalsAreServed() throws Exception {
        JsonNode brief = ana.read(ana.get(path + "/briefs/v1"));
        assertThat(brief.get("parts").get(0).get("text").asString()).isEqualTo("A map");
        JsonNode opened = now();
        long dataset =
                opened.get("document").get("visuals").get("v2").get("dataset").asLong();
        JsonNode proposals = ana.read(ana.get(path + "/proposals?question=WHERE&dataset=" + dataset));
        assertThat(proposals.get(0).get("drawing").get("type").asString()).isEqualTo("map");
        HttpResponse<String> added = edit(ana, 2, proposals.get(0).get("ops").toString());
        assertThat(added.statusCode()).as(added.body()).isEqualTo(200);
        assertThat(ana.get(path + "/proposals?question=WHY&dataset=1").statusCode())
                .isEqualTo(400);
        assertThat(ana.get(path + "/briefs/v99").statusCode()).isEqualTo(422);
    }

    @Test
    void aDashboardThatIsTakenAwayIsGone() throws Exception {
        assertThat(ana.send("DELETE", path, "application/json", "").statusCode())
                .isEqualTo(204);
        assertThat(ana.get(path).statusCode()).isEqualTo(404);
        assertThat(edit(ana, 2, set("/title", "\"x\"")).statusCode()).isEqualTo(404);
    }

    @Test
    void aTitleIsNeeded() throws Exception {
        assertThat(ana.send("POST", "/api/dashboards", "application/json", "{\"title\":\" \"}")
                        .body())
                .contains("needs a title");
        assertThat(ana.send("POST", "/api/dashboards", "application/json", "{\"title\":\"" + "x".repeat(300) + "\"}")
                        .statusCode())
                .isEqualTo(400);
    }
}
