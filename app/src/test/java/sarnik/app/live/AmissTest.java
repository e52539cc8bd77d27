package sarnik.app.live;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.Waiting.until;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.dataset.Live;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.demo.SarnikDevice;
import sarnik.live.DeviceState;
import sarnik.live.StateKeeper;
import sarnik.standins.Mailbox;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("What is amiss: seen, noted, told")
class AmissTest {

    private static final HttpClient DEVICES = HttpClient.newHttpClient();

    private RunningSarnik sarnik;
    private SarnikClient ana;

    @BeforeEach
    void begin(RunningSarnik running) {
        sarnik = running;
        ana = sarnik.client("ana");
    }

    private record Feed(long id, String token, long devices) {}

    private Feed feed(String name, String notices) throws Exception {
        JsonNode made = ana.json("POST", "/api/feeds", Map.of("name", name));
        long id = made.get("id").asLong();
        put(id, "shape", """
                {"readings": "", "device": "/d", "time": "/t", "form": "MILLISECONDS",
                 "fields": [{"at": "/v", "name": "heat", "type": "DECIMAL"}]}""");
        put(id, "settings", """
                {"settings": {"keepDays": 30, "windowHours": 24, "silentSeconds": 0, "trailMinutes": 0, "strangers": true,
                  "thresholds": [{"column": "heat", "side": "ABOVE", "watch": 20, "bad": 40, "back": 0, "seconds": 0}],
                  "notices": %s}}""".formatted(notices));
        JsonNode now = ana.read(ana.get("/api/feeds/" + id));
        return new Feed(
                id, made.get("token").asString(), now.get("devicesDataset").asLong());
    }

    private int put(long id, String what, String body) throws Exception {
        long revision = ana.read(ana.get("/api/feeds/" + id)).get("revision").asLong();
        return ana.send("PUT", "/api/feeds/" + id + "/" + what, "application/json", body, "If-Match", "" + revision)
                .statusCode();
    }

    private void send(Feed feed, String device, Instant at, double heat) throws Exception {
        HttpResponse<String> answer = new SarnikDevice(sarnik.base())
                .send(
                        feed.id,
                        feed.token,
                        "{\"d\": \"%s\", \"t\": %d, \"v\": %s}".formatted(device, at.toEpochMilli(), heat));
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    }

    private long dashboard(String title, long devices) throws Exception {
        long id = ana.json("POST", "/api/dashboards", Map.of("title", title))
                .get("id")
                .asLong();
        HttpResponse<String> edited = ana.send(
                "PATCH",
                "/api/dashboards/" + id,
                "application/json-patch+json",
                """
                [{"op": "add", "path": "/visuals/v1", "value": {"type": "figure", "page": "p1",
                   "at": {"x": 0, "y": 0, "w": 6, "h": 4}, "title": "Devices", "dataset": %d, "measure": {"summary": "COUNT"}}}]""".formatted(devices),
                "If-Match",
                "1");
        assertThat(edited.statusCode()).as(edited.body()).isLessThan(300);
        return id;
    }

    @Test
    void listsTheLongestFirstAndKeepsWhatIsNoted() throws Exception {
        Feed feed = feed("Boilers", "null");
        Instant now = Instant.now();
        send(feed, "b1", now.minusSeconds(60), 25);
        send(feed, "b2", now.minusSeconds(300), 45);
        send(feed, "b3", now.minusSeconds(100), 5);
        long dashboard = dashboard("Boilers", feed.devices);
        String address = "/api/dashboards/" + dashboard + "/amiss";
        until(() -> ana.read(ana.get(address)).get("amiss").size() == 2, "both are listed");
        JsonNode told = ana.read(ana.get(address));
        assertThat(told.get("shows").asBoolean()).isTrue();
        assertThat(told.at("/amiss/0/device").asString()).isEqualTo("b2");
        assertThat(told.at("/amiss/0/state").asString()).isEqualTo("BAD");
        assertThat(told.at("/amiss/0/why").asString()).isEqualTo("heat 45, above 40");
        assertThat(told.at("/amiss/1/state").asString()).isEqualTo("WATCH");

        long turn = told.at("/amiss/0/turn").asLong();
        assertThat(note(ana, address, turn, "Called the stoker").statusCode()).isEqualTo(204);
        JsonNode noted = ana.read(ana.get(address)).at("/amiss/0");
        assertThat(noted.get("seenBy").asString()).isEqualTo("ana");
        assertThat(noted.get("note").asString()).isEqualTo("Called the stoker");
        // The note is about that state: the next one begins without.
        send(feed, "b2", now, 5);
        until(() -> ana.read(ana.get(address)).get("amiss").size() == 1, "it is well again");
        assertThat(note(ana, address, turn, "late").statusCode()).isEqualTo(404);
        send(feed, "b2", now.plusMillis(10), 45);
        until(() -> ana.read(ana.get(address)).get("amiss").size() == 2, "it is bad again");
        assertThat(ana.read(ana.get(address)).at("/amiss/1/seenBy").isNull()).isTrue();

        // The history is a dataset like any other.
        long states = ana.json("POST", "/api/feeds/" + feed.id + "/parts", Map.of("part", "TURNS"))
                .get("dataset")
                .asLong();
        RunningFeeds feeds = sarnik.bean(RunningFeeds.class);
        var table = feeds.table(new Live(feed.id, Live.Part.TURNS));
        List<String> lines = new java.util.ArrayList<>();
        for (int row = 0; row < table.rows(); row++)
            if (table.column("device").text(row).equals("b2"))
                lines.add(table.column("state").text(row) + " "
                        + table.column("note").text(row));
        assertThat(lines).containsExactly("bad null", "good null", "bad Called the stoker");
        assertThat(ana.json("POST", "/api/feeds/" + feed.id + "/parts", Map.of("part", "TURNS"))
                        .get("dataset")
                        .asLong())
                .as("the same once more")
                .isEqualTo(states);
    }

    private static HttpResponse<String> note(SarnikClient who, String address, long turn, String note)
            throws Exception {
        return who.send("POST", address + "/" + turn, "application/json", "{\"note\": \"" + note + "\"}");
    }

    @Test
    void notesOfOthersAndFarTooLongOnesAreRefused() throws Exception {
        Feed feed = feed("Kilns", "null");
        send(feed, "k1", Instant.now(), 50);
        long mine = dashboard("Kilns", feed.devices);
        Feed other = feed("Other kilns", "null");
        send(other, "o1", Instant.now(), 50);
        long theirs = dashboard("Other kilns", other.devices);
        String address = "/api/dashboards/" + mine + "/amiss";
        String elsewhere = "/api/dashboards/" + theirs + "/amiss";
        until(() -> ana.read(ana.get(elsewhere)).get("amiss").size() == 1, "the other is listed");
        long turn = ana.read(ana.get(elsewhere)).at("/amiss/0/turn").asLong();
        assertThat(note(ana, address, turn, "not shown here").statusCode()).isEqualTo(404);
        assertThat(note(ana, elsewhere, turn, "x".repeat(401)).statusCode()).isEqualTo(400);
        assertThat(ana.read(ana.get(elsewhere)).at("/amiss/0/seenBy").isNull()).isTrue();
    }

    /**
     * Who may see some devices only is told of no others, and notes none of them; nor does a link that is bound to
     * some.
     */
    @Test
    void keepsToTheDevicesThatAViewerMaySee() throws Exception {
        Feed feed = feed("Furnaces", "null");
        send(feed, "f1", Instant.now(), 50);
        send(feed, "f2", Instant.now(), 50);
        long dashboard = dashboard("Furnaces", feed.devices);
        assertThat(ana.describe(feed.devices, "viewer-rule", Map.of("rule", "device = 'f2'"))
                        .statusCode())
                .isEqualTo(204);
        ana.publish(dashboard);
        ana.json(
                "PUT",
                "/api/dashboards/" + dashboard + "/grants",
                Map.of("who", Map.of("kind", "EVERYBODY"), "may", "READ"));
        String address = "/api/dashboards/" + dashboard + "/amiss";
        until(() -> ana.read(ana.get(address)).get("amiss").size() == 2, "who made it sees both");
        SarnikClient rui = sarnik.client("rui");
        JsonNode told = rui.read(rui.get(address));
        assertThat(told.get("amiss")).hasSize(1);
        assertThat(told.at("/amiss/0/device").asString()).isEqualTo("f2");
        for (JsonNode each : ana.read(ana.get(address)).get("amiss"))
            assertThat(note(rui, address, each.get("turn").asLong(), "seen").statusCode())
                    .isEqualTo(each.get("device").asString().equals("f2") ? 204 : 404);
        String path = ana.json(
                        "POST",
                        "/api/dashboards/" + dashboard + "/links",
                        Map.of("name", "Furnaces", "opensTo", "ANYONE"))
                .get("path")
                .asString();
        HttpResponse<String> stranger = DEVICES.send(
                HttpRequest.newBuilder(URI.create(sarnik.base() + "/api" + path + "/amiss"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(stranger.statusCode()).isEqualTo(200);
        assertThat(stranger.body()).contains("f2").doesNotContain("f1").contains("\"notes\":false");
    }

    private Feed twoMeasures(String name, String notices) throws Exception {
        JsonNode made = ana.json("POST", "/api/feeds", Map.of("name", name));
        long id = made.get("id").asLong();
        put(id, "shape", """
                {"readings": "", "device": "/d", "time": "/t", "form": "MILLISECONDS",
                 "fields": [{"at": "/v", "name": "heat", "type": "DECIMAL"}, {"at": "/p", "name": "pressure", "type": "DECIMAL"}]}""");
        settings(id, 0, notices);
        return new Feed(
                id,
                made.get("token").asString(),
                ana.read(ana.get("/api/feeds/" + id)).get("devicesDataset").asLong());
    }

    private void settings(long id, int back, String notices) throws Exception {
        assertThat(put(id, "settings", """
                {"settings": {"keepDays": 30, "windowHours": 24, "silentSeconds": 0, "trailMinutes": 0, "strangers": true,
                  "thresholds": [{"column": "heat", "side": "ABOVE", "watch": 20, "bad": 40, "back": %d, "seconds": 0},
                                 {"column": "pressure", "side": "BELOW", "bad": 2, "back": 0, "seconds": 0}],
                  "notices": %s}}""".formatted(back, notices))).isEqualTo(204);
    }

    private void send(Feed feed, Instant at, String values) throws Exception {
        HttpResponse<String> answer = new SarnikDevice(sarnik.base())
                .send(feed.id, feed.token, "{\"d\": \"o1\", \"t\": %d, %s}".formatted(at.toEpochMilli(), values));
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    }

    /** One that is bad for something else as well, or instead, is told; what was noted of it stays. */
    @Test
    void saysForWhatADeviceIsBadNowAndTellsWhatComesOnTop() throws Exception {
        Mailbox mailbox = sarnik.mailbox();
        Feed feed = twoMeasures("Kettles", """
                {"states": ["BAD"], "well": false, "mails": ["kettles@aljibe.example"]}""");
        String address = "/api/dashboards/" + dashboard("Kettles", feed.devices) + "/amiss";
        Instant now = Instant.now();
        send(feed, now.minusSeconds(30), "\"v\": 50, \"p\": 5");
        until(() -> ana.read(ana.get(address)).get("amiss").size() == 1, "it is listed");
        JsonNode first = ana.read(ana.get(address)).at("/amiss/0");
        note(ana, address, first.get("turn").asLong(), "Called the stoker");
        until(
                () -> mailbox.mails().stream().anyMatch(m -> m.subject().startsWith("Kettles")),
                "the first reason is told");

        send(feed, now.minusSeconds(20), "\"p\": 1");
        until(
                () -> ana.read(ana.get(address)).at("/amiss/0/why").asString().contains("pressure"),
                "the second reason is said");
        JsonNode both = ana.read(ana.get(address)).at("/amiss/0");
        assertThat(both.get("why").asString()).isEqualTo("heat 50, above 40; pressure 1, below 2");
        assertThat(both.get("turn")).isEqualTo(first.get("turn"));
        assertThat(both.get("since")).isEqualTo(first.get("since"));
        assertThat(both.get("note").asString()).isEqualTo("Called the stoker");

        send(feed, now.minusSeconds(10), "\"v\": 5");
        until(
                () -> ana.read(ana.get(address)).at("/amiss/0/why").asString().equals("pressure 1, below 2"),
                "what is well again is said no longer");
        RunningFeeds feeds = sarnik.bean(RunningFeeds.class);
        var devices = feeds.table(new Live(feed.id, Live.Part.DEVICES));
        assertThat(devices.column("why").text(0)).isEqualTo("pressure 1, below 2");
        assertThat(devices.column("noted").text(0)).isEqualTo("ana: Called the stoker");
        var turns = feeds.table(new Live(feed.id, Live.Part.TURNS));
        assertThat(turns.rows()).isEqualTo(1);
        assertThat(turns.column("why").text(0)).isEqualTo("heat 50, above 40; pressure 1, below 2");
        until(
                () -> mailbox.mails().stream()
                        .anyMatch(m -> m.subject().startsWith("Kettles")
                                && m.text().contains("heat 50, above 40; pressure 1, below 2")),
                "the second reason is told");
    }

    private List<String> states(Feed feed) {
        var turns = sarnik.bean(RunningFeeds.class).table(new Live(feed.id, Live.Part.TURNS));
        List<String> lines = new java.util.ArrayList<>();
        for (int row = 0; row < turns.rows(); row++)
            lines.add(turns.column("state").text(row));
        return lines;
    }

    /** Another instance that comes later to what this one has kept already. */
    @Test
    void whatIsReadLaterByAnotherInstanceTurnsNothingBack() throws Exception {
        Feed feed = twoMeasures("Vats", "null");
        long then = Instant.now().minusSeconds(600).toEpochMilli();
        send(feed, Instant.ofEpochMilli(then), "\"v\": 5");
        send(feed, Instant.ofEpochMilli(then + 10_000), "\"v\": 50");
        send(feed, Instant.ofEpochMilli(then + 20_000), "\"v\": 5");
        until(() -> states(feed).equals(List.of("good", "bad", "good")), "all three are kept");
        RunningFeed running = sarnik.bean(RunningFeeds.class).find(feed.id).orElseThrow();
        int device = running.devices().get(0).number;
        sarnik.bean(Turns.class)
                .keep(
                        running,
                        List.of(
                                turned(device, DeviceState.GOOD, then, then),
                                turned(device, DeviceState.BAD, then + 10_000, then + 10_000),
                                turned(device, DeviceState.GOOD, then + 20_000, then + 20_000)));
        assertThat(states(feed)).containsExactly("good", "bad", "good");
        // Of other thresholds the same readings say something else from earlier on: it begins with what was.
        sarnik.bean(Turns.class).keep(running, List.of(turned(device, DeviceState.WATCH, then + 5_000, then + 20_000)));
        assertThat(states(feed)).hasSize(4).contains("watch");
        var turns = sarnik.bean(RunningFeeds.class).table(new Live(feed.id, Live.Part.TURNS));
        for (int row = 0; row < turns.rows(); row++)
            if (!turns.column("minutes").isMissing(row))
                assertThat(Double.parseDouble(turns.column("minutes").text(row)))
                        .isNotNegative();
    }

    private static RunningFeed.Turned turned(int device, DeviceState state, long since, long known) {
        return new RunningFeed.Turned(
                device,
                new StateKeeper.Turn(state, since, state == DeviceState.GOOD ? List.of() : List.of("x 1, above 0")),
                known);
    }

    /** Mail and web hook say the same turns once each, and that it is well again. */
    @Test
    void isToldByMailAndWebHook() throws Exception {
        Mailbox mailbox = sarnik.mailbox();
        sarnik.client("marta")
                .send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + sarnik.hookPort());
        Feed feed = feed("Ovens", """
                {"states": ["BAD"], "well": true, "mails": ["ovens@aljibe.example"], "hook": "http://127.0.0.1:%d/hook",
                 "zone": "Europe/Madrid", "link": "http://example.org/ovens"}""".formatted(sarnik.hookPort()));
        send(feed, "o1", Instant.now().minusSeconds(5), 25);
        send(feed, "o1", Instant.now().minusSeconds(4), 50);
        until(
                () -> mailbox.mails().stream().anyMatch(m -> m.subject().equals("Ovens: o1 is bad")),
                "the mail is there");
        Mailbox.Mail mail = mailbox.mails().stream()
                .filter(m -> m.subject().startsWith("Ovens"))
                .findFirst()
                .orElseThrow();
        assertThat(mail.to()).contains("ovens@aljibe.example");
        assertThat(mail.text())
                .contains("o1 is bad since")
                .contains("heat 50, above 40")
                .contains("http://example.org/ovens");
        until(() -> mailbox.hooked().stream().anyMatch(h -> h.contains("\"name\":\"Ovens\"")), "the hook was called");
        assertThat(ana.read(ana.get("/api/feeds/" + feed.id)).at("/told/0/sent").isNull())
                .isFalse();
        assertThat(mailbox.mails().stream().filter(m -> m.subject().startsWith("Ovens")))
                .hasSize(1);
    }

    @Test
    void saysWhyItCouldNotBeToldAndTriesAgain() throws Exception {
        Feed feed = feed("Presses", """
                {"states": ["BAD"], "well": false, "mails": [], "hook": "http://127.0.0.1:%d/nothing"}""".formatted(sarnik.hookPort()));
        sarnik.client("marta")
                .send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + sarnik.hookPort());
        // Once more, now that the host is allowed.
        assertThat(put(feed.id, "settings", """
                {"settings": {"keepDays": 30, "windowHours": 24, "silentSeconds": 0, "trailMinutes": 0, "strangers": true,
                  "thresholds": [{"column": "heat", "side": "ABOVE", "bad": 40, "back": 0, "seconds": 0}],
                  "notices": {"states": ["BAD"], "well": false, "mails": [], "hook": "http://127.0.0.1:%d/nothing"}}}""".formatted(sarnik.hookPort()))).isEqualTo(204);
        send(feed, "p1", Instant.now(), 50);
        until(
                () -> !ana.read(ana.get("/api/feeds/" + feed.id))
                        .at("/told/0/failed")
                        .asString("")
                        .isEmpty(),
                "why is said");
        JsonNode told = ana.read(ana.get("/api/feeds/" + feed.id)).at("/told/0");
        assertThat(told.get("failed").asString()).contains("404");
        assertThat(told.get("sent").isNull()).isTrue();
        assertThat(told.get("givenUp").asBoolean()).isFalse();
    }

    @ParameterizedTest
    @CsvSource({
        "22:00, 06:30, 2026-06-01T19:59:59Z, 2026-06-01T19:59:59Z",
        "22:00, 06:30, 2026-06-01T20:00:00Z, 2026-06-02T04:30:00Z",
        "22:00, 06:30, 2026-06-02T04:29:00Z, 2026-06-02T04:30:00Z",
        "22:00, 06:30, 2026-06-02T04:30:00Z, 2026-06-02T04:30:00Z",
        "12:00, 14:00, 2026-06-01T11:00:00Z, 2026-06-01T12:00:00Z",
        "12:00, 14:00, 2026-06-01T12:30:00Z, 2026-06-01T12:30:00Z",
        // The clocks go back in this night: 06:30 is an hour later by the clock of the world.
        "22:00, 06:30, 2026-10-24T20:30:00Z, 2026-10-25T05:30:00Z"
    })
    void waitsUntilItIsNotQuietAnyMore(String from, String until, Instant moment, Instant due) {
        Notices notices =
                new Notices(List.of(DeviceState.BAD), true, List.of(), null, from, until, "Europe/Madrid", null);
        assertThat(notices.due(moment)).isEqualTo(due);
    }

    @Test
    void tellsTurnsToStatesAndAwayFromThem() {
        Notices both = new Notices(List.of(DeviceState.BAD), true, List.of(), null, null, null, null, null);
        Notices one = new Notices(List.of(DeviceState.BAD), false, List.of(), null, null, null, null, null);
        assertThat(both.tell(DeviceState.BAD, DeviceState.GOOD)).isTrue();
        assertThat(both.tell(DeviceState.GOOD, DeviceState.BAD)).isTrue();
        assertThat(both.tell(DeviceState.WATCH, DeviceState.GOOD)).isFalse();
        assertThat(one.tell(DeviceState.GOOD, DeviceState.BAD)).isFalse();
        assertThat(one.tell(DeviceState.BAD, null)).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"states\": [\"BAD\"], \"well\": true, \"mails\": [\"no address\"]}",
                "{\"states\": [\"BAD\"], \"well\": true, \"mails\": [\"a@b.c\\nBcc: x@y.z\"]}",
                "{\"states\": [\"BAD\"], \"well\": true, \"mails\": [], \"hook\": \"file:///etc/passwd\"}",
                "{\"states\": [\"BAD\"], \"well\": true, \"mails\": [], \"hook\": \"http://127.0.0.1:1/x\"}",
                "{\"states\": [\"BAD\"], \"well\": true, \"mails\": [], \"quietFrom\": \"25:00\", \"quietUntil\": "
                        + "\"06:00\", \"zone\": \"Europe/Madrid\"}",
                "{\"states\": [\"BAD\"], \"well\": true, \"mails\": [], \"quietFrom\": \"22:00\"}",
                "{\"states\": [\"BAD\"], \"well\": true, \"mails\": [], \"zone\": \"Nowhere\"}",
                "{\"states\": [\"BAD\"], \"well\": true, \"mails\": [], \"quietFrom\": \"22:00\", \"quietUntil\": "
                        + "\"06:00\", \"zone\": \"Nowhere\"}"
            })
    void refusesToTellWhereNobodyCanBeTold(String notices) throws Exception {
        long id = ana.json("POST", "/api/feeds", Map.of("name", "Nobody"))
                .get("id")
                .asLong();
        assertThat(put(id, "settings", """
                {"settings": {"keepDays": 30, "windowHours": 24, "silentSeconds": 0, "trailMinutes": 0, "strangers": true,
                  "thresholds": [], "notices": %s}}""".formatted(notices))).isEqualTo(400);
    }
}
