package sarnik.app.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import sarnik.demo.SarnikDevice;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@ExtendWith(RunningSarnik.class)
@DisplayName("Feeds")
class FeedsTest {

    private static final JsonMapper JSON = new JsonMapper();

    private RunningSarnik sarnik;
    private SarnikClient ana;

    @BeforeEach
    void begin(RunningSarnik running) {
        sarnik = running;
        ana = sarnik.client("ana");
    }

    /** A feed whose messages are read as they are guessed. */
    private record Feed(long id, String token, long devices, long readings) {}

    private HttpResponse<String> send(long feed, String token, String type, String body) throws Exception {
        return new SarnikDevice(sarnik.base()).send(feed, token, type, body);
    }

    private JsonNode sent(Feed feed, String body) throws Exception {
        HttpResponse<String> answer = send(feed.id, feed.token, "application/json", body);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    private static String reading(String device, Instant at, String values) {
        return "{\"device\": \"%s\", \"time\": \"%s\", %s}".formatted(device, at, values);
    }

    private Feed feed(String name, String sample) throws Exception {
        JsonNode made = ana.json("POST", "/api/feeds", Map.of("name", name));
        long id = made.get("id").asLong();
        String token = made.get("token").asString();
        HttpResponse<String> first = send(id, token, "application/json", sample);
        assertThat(first.statusCode()).as("kept to look at").isEqualTo(202);
        JsonNode guess = ana.read(ana.get("/api/feeds/" + id + "/guess"));
        keep(id, guess.get("shape"));
        JsonNode now = now(id);
        return new Feed(
                id,
                token,
                now.get("devicesDataset").asLong(),
                now.get("readingsDataset").asLong());
    }

    private JsonNode now(long feed) throws Exception {
        return ana.read(ana.get("/api/feeds/" + feed));
    }

    private void keep(long feed, JsonNode shape) throws Exception {
        HttpResponse<String> kept = ana.send(
                "PUT",
                "/api/feeds/" + feed + "/shape",
                "application/json",
                shape.toString(),
                "If-Match",
                "\"" + now(feed).get("revision").asLong() + "\"");
        assertThat(kept.statusCode()).as(kept.body()).isEqualTo(204);
    }

    private void settings(Feed feed, String settings) throws Exception {
        HttpResponse<String> kept = ana.send(
                "PUT",
                "/api/feeds/" + feed.id + "/settings",
                "application/json",
                "{\"settings\": " + settings + "}",
                "If-Match",
                "\"" + now(feed.id).get("revision").asLong() + "\"");
        assertThat(kept.statusCode()).as(kept.body()).isEqualTo(204);
    }

    /** A dashboard of bars over a dataset; what each says, by its label. */
    private List<String> bars(long dataset, String category, String measure) throws Exception {
        JsonNode made = ana.json("POST", "/api/dashboards", Map.of("title", "Live?"));
        long id = made.get("id").asLong();
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + id,
                Samples.JSON_PATCH,
                """
                [{"op":"add","path":"/visuals/v1","value":{"type":"bars","page":"p1","at":{"x":0,"y":0,"w":12,"h":6},"title":"",
                   "dataset":%d,"category":"%s","measure":%s}}]""".formatted(dataset, category, measure),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        return drawn(id);
    }

    private List<String> drawn(long dashboard) throws Exception {
        JsonNode frames = ana.json("POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", ""));
        List<String> said = new ArrayList<>();
        JsonNode drawing = frames.at("/drawings/v1");
        assertThat(drawing.has("bars")).as(drawing.toString()).isTrue();
        drawing.get("bars")
                .forEach(b ->
                        said.add(b.get("label").asString() + " " + b.get("text").asString()));
        return said;
    }

    @Test
    void takeReadingsOnceAndShowThemAsDatasets() throws Exception {
        Instant now = Instant.now().minusSeconds(60);
        Feed feed = feed("Probes taken", reading("p1", now, "\"temperature\": 12.5, \"open\": true"));
        JsonNode first = sent(
                feed,
                "[" + reading("p1", now, "\"temperature\": 12.5, \"open\": true") + ","
                        + reading("p2", now, "\"temperature\": 14") + "]");
        assertThat(first.get("taken").asInt()).isEqualTo(2);
        // The same again, and what was missing of one of them.
        JsonNode again = sent(
                feed,
                "[" + reading("p1", now, "\"temperature\": 99, \"open\": false") + ","
                        + reading("p2", now, "\"open\": false") + "]");
        assertThat(again.get("alike").asInt()).isEqualTo(1);
        assertThat(again.get("taken").asInt()).isEqualTo(1);
        // A late one finds its place.
        sent(feed, reading("p1", now.minusSeconds(3600), "\"temperature\": 2.5"));
        String mean = "{\"summary\":\"AVERAGE\",\"column\":\"temperature\"}";
        sarnik.bean(RunningFeeds.class).pass();
        assertThat(bars(feed.readings, "device", mean)).containsExactly("p2 14.0", "p1 7.5");
        assertThat(bars(feed.devices, "device", mean)).containsExactly("p2 14.0", "p1 12.5");
        assertThat(bars(feed.devices, "state", "{\"summary\":\"COUNT\"}")).containsExactly("good 2");
    }

    @Test
    void answerWhatIsLostAndChangedAndKeepItToBeLookedAt() throws Exception {
        Instant now = Instant.now();
        Feed feed = feed("Probes in trouble", reading("p1", now, "\"temperature\": 12.5"));
        HttpResponse<String> lost =
                send(feed.id, feed.token, "application/json", "{\"time\": \"" + now + "\", \"temperature\": 1}");
        assertThat(lost.statusCode()).isEqualTo(422);
        assertThat(lost.body()).contains("does not say which device");
        JsonNode odd = sent(
                feed,
                "[" + reading("p1", now, "\"temperature\": \"NaN\"") + ","
                        + reading("p1", now.minusSeconds(10L * 365 * 86_400), "\"temperature\": 1") + ","
                        + reading("p2", now.plusSeconds(9000), "\"temperature\": 3") + "]");
        assertThat(odd.get("taken").asInt()).isEqualTo(1);
        assertThat(odd.get("troubles").toString())
                .contains(
                        "which is no decimal number",
                        "readings are kept for 90 days",
                        "The clock of p2 is 2 hours ahead");
        assertThat(send(feed.id, feed.token, "application/json", "{broken").statusCode())
                .isEqualTo(422);
        String huge = "[" + "1".repeat(5 << 20) + "]";
        assertThat(send(feed.id, feed.token, "application/json", huge).statusCode())
                .isEqualTo(413);
        assertThat(send(feed.id, feed.token, "application/x-ndjson", huge).body())
                .contains("the longest is of");
        sarnik.bean(Troubles.class).keep();
        JsonNode troubles = now(feed.id).get("troubles");
        assertThat(troubles.toString())
                .contains("p2 is 2 hours ahead", "It is no JSON", "{broken", "the longest is of");
        assertThat(ana.send("DELETE", "/api/feeds/" + feed.id + "/troubles", "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(now(feed.id).get("troubles").isEmpty()).isTrue();
    }

    @Test
    void takeManyLinesAndHoldBackADeviceThatFloods() throws Exception {
        Instant now = Instant.now();
        Feed feed = feed("Probes that flood", reading("p1", now, "\"temperature\": 12.5"));
        StringBuilder lines = new StringBuilder();
        int flood = (int) RunningFeed.READINGS_A_SECOND * 600;
        for (int i = 0; i < flood; i++)
            lines.append(reading("p1", now.minusMillis(i), "\"temperature\": " + i % 50))
                    .append('\n');
        for (int i = 0; i < 200; i++)
            lines.append(reading("q" + i % 20, now.minusMillis(i), "\"temperature\": 1"))
                    .append("\n\n");
        lines.append("{\"half\": ");
        HttpResponse<String> answer = send(feed.id, feed.token, "application/x-ndjson", lines.toString());
        JsonNode said = JSON.readTree(answer.body());
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(said.get("taken").asInt()).isBetween(20_200, flood);
        assertThat(said.get("taken").asInt() + said.get("lost").asInt()).isEqualTo(flood + 201);
        assertThat(said.get("troubles").toString()).contains("p1 sends more than it may", "It is no JSON");
        sarnik.bean(RunningFeeds.class).pass();
        assertThat(bars(feed.readings, "device", "{\"summary\":\"COUNT\"}")).contains("q7 10", "q19 10");
    }

    @Test
    void takeNothingWithoutTheirToken() throws Exception {
        Instant now = Instant.now();
        Feed feed = feed("Probes kept", reading("p1", now, "\"temperature\": 12.5"));
        String reading = reading("p1", now, "\"temperature\": 1");
        for (String token : new String[] {null, "", "feed_wrong", feed.token + "x"})
            assertThat(send(feed.id, token, "application/json", reading).statusCode())
                    .isEqualTo(401);
        assertThat(send(999_999, feed.token, "application/json", reading).statusCode())
                .isEqualTo(401);
        String newer = ana.json("POST", "/api/feeds/" + feed.id + "/token", Map.of())
                .get("token")
                .asString();
        assertThat(send(feed.id, feed.token, "application/json", reading).statusCode())
                .isEqualTo(401);
        assertThat(send(feed.id, newer, "application/json", reading).statusCode())
                .isEqualTo(200);
        // It is its owner's and stewards'.
        assertThat(sarnik.client("rui").get("/api/feeds/" + feed.id).statusCode())
                .isEqualTo(403);
        assertThat(sarnik.client("marta").get("/api/feeds/" + feed.id).statusCode())
                .isEqualTo(200);
    }

    @Test
    void sayWhichDevicesAreToBeWatchedBadOrSilent() throws Exception {
        Instant now = Instant.now();
        Feed feed = feed("Probes watched", reading("p1", now, "\"turbidity\": 0.1"));
        settings(feed, """
                {"keepDays": 30, "windowHours": 24, "silentSeconds": 600, "trailMinutes": 30, "strangers": true,
                 "thresholds": [{"column": "turbidity", "side": "ABOVE", "watch": 1, "bad": 4, "back": 0.2, "seconds": 0}]}""");
        sent(
                feed,
                "[" + reading("p1", now, "\"turbidity\": 0.1") + "," + reading("p2", now, "\"turbidity\": 2") + ","
                        + reading("p3", now, "\"turbidity\": 4.2") + ","
                        + reading("p4", now.minusSeconds(900), "\"turbidity\": 0.1") + "]");
        sarnik.bean(RunningFeeds.class).pass();
        String count = "{\"summary\":\"COUNT\"}";
        assertThat(bars(feed.devices, "state", count))
                .containsExactlyInAnyOrder("good 1", "watch 1", "bad 1", "silent 1");
        assertThat(bars(feed.devices, "why", count)).contains("turbidity 4.2, above 4 1");
        // A program that begins anew knows the same, also since when.
        sarnik.bean(RunningFeeds.class).changed(feed.id);
        assertThat(bars(feed.devices, "state", count))
                .containsExactlyInAnyOrder("good 1", "watch 1", "bad 1", "silent 1");
        sent(feed, reading("p3", now.plusSeconds(1), "\"turbidity\": 3.9"));
        sarnik.bean(RunningFeeds.class).pass();
        assertThat(bars(feed.devices, "state", count))
                .as("it has not come back far enough")
                .contains("bad 1");
    }

    @Test
    void areAlwaysShownAsTheyAre() throws Exception {
        Feed feed = feed("Probes published", reading("p1", Instant.now(), "\"temperature\": 12.5"));
        bars(feed.devices, "device", "{\"summary\":\"COUNT\"}");
        long dashboard =
                ana.json("GET", "/api/dashboards", Map.of()).get(0).get("id").asLong();
        HttpResponse<String> frozen = ana.send(
                "POST",
                "/api/dashboards/" + dashboard + "/editions",
                "application/json",
                "{\"frozen\": [" + feed.devices + "]}");
        assertThat(frozen.statusCode()).isEqualTo(400);
        assertThat(frozen.body()).contains("come by themselves");
        HttpResponse<String> others =
                ana.send("POST", "/api/datasets/" + feed.devices + "/versions/1/serve", "application/json", "");
        assertThat(others.body()).contains("come by themselves");
        assertThat(ana.send("DELETE", "/api/datasets/" + feed.devices, "application/json", "")
                        .body())
                .contains("Take the feed away");
    }

    @Test
    void goWithTheirDatasetsUnlessADashboardShowsThem() throws Exception {
        Feed feed = feed("Probes that go", reading("p1", Instant.now(), "\"temperature\": 12.5"));
        assertThat(ana.send("DELETE", "/api/feeds/" + feed.id, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.get("/api/feeds/" + feed.id).statusCode()).isEqualTo(404);
        Feed used = feed("Probes that stay", reading("p1", Instant.now(), "\"temperature\": 12.5"));
        bars(used.devices, "device", "{\"summary\":\"COUNT\"}");
        HttpResponse<String> refused = ana.send("DELETE", "/api/feeds/" + used.id, "application/json", "");
        assertThat(refused.statusCode()).isEqualTo(409);
        assertThat(refused.body()).contains("Live?");
        assertThat(ana.get("/api/feeds/" + used.id).statusCode()).isEqualTo(200);
    }
}
