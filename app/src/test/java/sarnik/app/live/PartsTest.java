package sarnik.app.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.ResultSet;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Live;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.app.testing.Waiting;
import sarnik.demo.SarnikClient;
import sarnik.live.Reading;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("What else a feed is shown as")
class PartsTest {

    private static final long HOUR = 3_600_000;

    private RunningSarnik sarnik;
    private SarnikClient ana;
    private RunningFeeds feeds;

    @BeforeEach
    void begin(RunningSarnik running) {
        sarnik = running;
        ana = sarnik.client("ana");
        feeds = sarnik.bean(RunningFeeds.class);
    }

    private long feed(String name, boolean moves) throws Exception {
        long id = ana.json("POST", "/api/feeds", Map.of("name", name)).get("id").asLong();
        put(id, "shape", """
                {"readings": "", "device": "/d", "time": "/t", "form": "SECONDS", %s
                 "fields": [{"at": "/v", "name": "value", "type": "DECIMAL"}, {"at": "/w", "name": "word", "type": "TEXT"}]}""".formatted(moves ? "\"lon\": \"/x\", \"lat\": \"/y\"," : ""));
        return id;
    }

    private void put(long id, String what, String body) throws Exception {
        long revision = ana.read(ana.get("/api/feeds/" + id)).get("revision").asLong();
        assertThat(ana.send("PUT", "/api/feeds/" + id + "/" + what, "application/json", body, "If-Match", "" + revision)
                        .statusCode())
                .isEqualTo(204);
    }

    private void keep(long id, List<Reading> readings) throws Exception {
        sarnik.bean(ReadingWriter.class)
                .keep(feeds.find(id).orElseThrow(), readings)
                .get(30, TimeUnit.SECONDS);
    }

    private long newestBatch() throws Exception {
        try (Connection connection = sarnik.bean(LiveConnections.class).open();
                ResultSet found = connection.createStatement().executeQuery("SELECT last_value FROM live_batches")) {
            found.next();
            return found.getLong(1);
        }
    }

    private Table table(long id, Live.Part part) {
        return feeds.table(new Live(id, part));
    }

    /** Minutes, hours and days are what a plain look at all readings says, also after late and filled ones. */
    @Test
    void putsReadingsTogetherAsAPlainLookDoes() throws Exception {
        long id = feed("Rolled up", false);
        RollUps rollUps = sarnik.bean(RollUps.class);
        // In several transactions.
        rollUps.atOnce = 300;
        Random chance = new Random(5);
        // Within a day, so that the window holds all of them.
        long now = Instant.now().truncatedTo(ChronoUnit.HOURS).toEpochMilli();
        Map<String, Map<Long, Double>> said = new HashMap<>();
        for (int round = 0; round < 4; round++) {
            List<Reading> readings = new ArrayList<>();
            for (int i = 0; i < 400; i++) {
                String device = "d" + chance.nextInt(5);
                long at = now - (long) (chance.nextDouble() * 20 * HOUR) / 1000 * 1000;
                // Quarters are exact in binary, so sums are whatever their order.
                double value = chance.nextInt(4000) / 4.0;
                readings.add(new Reading(device, at, Double.NaN, Double.NaN, new Object[] {value, "w"}));
                said.computeIfAbsent(device, d -> new HashMap<>()).putIfAbsent(at, value);
            }
            keep(id, readings);
            rollUps.roll(newestBatch(), round % 2 == 1);
        }
        long hours = ana.json("POST", "/api/feeds/" + id + "/parts", Map.of("part", "HOURS"))
                .get("dataset")
                .asLong();
        assertThat(sarnik.bean(DatasetService.class)
                        .description(hours)
                        .orElseThrow()
                        .about()
                        .line())
                .isEqualTo(
                        "each number is the mean of the readings of an hour, and an average of them counts each hour once");
        for (Live.Part part : List.of(Live.Part.MINUTES, Live.Part.HOURS, Live.Part.DAYS)) {
            long span = part == Live.Part.MINUTES ? 60_000 : part == Live.Part.HOURS ? HOUR : 24 * HOUR;
            Map<String, List<Double>> groups = new HashMap<>();
            said.forEach((device, values) -> values.forEach((at, value) -> groups.computeIfAbsent(
                            device + " " + Math.floorDiv(at, span) * span / 1000, g -> new ArrayList<>())
                    .add(value)));
            Table table = table(id, part);
            assertThat(table.rows()).as("%s", part).isEqualTo(groups.size());
            for (int row = 0; row < table.rows(); row++) {
                long second = Instant.parse(table.column("time").text(row)
                                + ":00Z"
                                        .substring(
                                                table.column("time").text(row).length() > 16 ? 3 : 0))
                        .getEpochSecond();
                List<Double> of = groups.get(table.column("device").text(row) + " " + second);
                assertThat(of).as("%s %d", part, row).isNotNull();
                assertThat(((WholeColumn) table.column("readings")).get(row)).isEqualTo(of.size());
                assertThat(((DecimalColumn) table.column("value")).get(row))
                        .isEqualTo(of.stream().mapToDouble(v -> v).sum() / of.size());
                assertThat(((DecimalColumn) table.column("value lowest")).get(row))
                        .isEqualTo(of.stream().mapToDouble(v -> v).min().orElseThrow());
                assertThat(((DecimalColumn) table.column("value highest")).get(row))
                        .isEqualTo(of.stream().mapToDouble(v -> v).max().orElseThrow());
            }
        }
    }

    @Test
    void findsStopsAndArrivals() throws Exception {
        long depots = ana.bring(
                RunningSarnik.file("depots.csv", "depot,lat,lon\nNorth,42.00000,-3.00000\nSouth,41.00000,-3.00000\n"),
                "Depots of a test");
        long id = feed("Vans of a test", true);
        put(id, "settings", """
                {"settings": {"keepDays": 30, "windowHours": 24, "silentSeconds": 0, "trailMinutes": 30, "strangers": true,
                  "thresholds": [], "stays": {"metres": 60, "minutes": 5, "places": %d, "name": "depot", "within": 500}}}""".formatted(depots));
        long begin = Instant.now().truncatedTo(ChronoUnit.MINUTES).toEpochMilli() - 3 * HOUR;
        List<Reading> way = new ArrayList<>();
        // Ten minutes at the northern depot, an hour to the southern one, and there since.
        for (int minute = 0; minute <= 90; minute++) {
            double lat = minute <= 10 ? 42 : minute <= 70 ? 42 - (minute - 10) / 60.0 : 41;
            way.add(new Reading("v1", begin + minute * 60_000L, -3, lat, new Object[] {1.0, "w"}));
        }
        keep(id, way);
        List<String> lines = new ArrayList<>();
        Table table = table(id, Live.Part.STAYS);
        for (int row = 0; row < table.rows(); row++)
            lines.add("%s %s %s"
                    .formatted(
                            table.column("what").text(row),
                            table.column("where").text(row),
                            table.column("minutes").isMissing(row)
                                    ? "still"
                                    : table.column("minutes").text(row)));
        assertThat(lines)
                .containsExactlyInAnyOrder(
                        "stop North 10.0", "visit North 11.0", "stop South still", "visit South still");
        long dataset = ana.json("POST", "/api/feeds/" + id + "/parts", Map.of("part", "STAYS"))
                .get("dataset")
                .asLong();
        assertThat(ana.get("/datasets/" + dataset).statusCode()).isEqualTo(200);
        // What its devices are shown as goes with the feed.
        assertThat(ana.send("DELETE", "/api/feeds/" + id, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.get("/datasets/" + dataset).statusCode()).isEqualTo(404);
    }

    /** Columns of the list of devices that a feed does not know itself narrow its devices all the same. */
    @Test
    void devicesAreTiedToTheirList() throws Exception {
        long list = ana.bring(
                RunningSarnik.file(
                        "devices.csv",
                        "code,kind,owner,lat,lon\nd1,Sonda,Nora,42.00000,-3.00000\nd2,Sonda,Olga,41.00000,-3.00000\n"),
                "Devices of a test");
        long id = feed("Listed", false);
        put(id, "settings", """
                {"settings": {"keepDays": 30, "windowHours": 24, "silentSeconds": 0, "trailMinutes": 0, "strangers": true,
                  "thresholds": [], "devices": {"dataset": %d, "code": "code", "kind": "kind"}}}""".formatted(list));
        long now = System.currentTimeMillis() / 1000 * 1000;
        keep(
                id,
                List.of(
                        new Reading("d1", now, Double.NaN, Double.NaN, new Object[] {1.0, "w"}),
                        new Reading("d2", now, Double.NaN, Double.NaN, new Object[] {8.0, "w"})));
        long devices =
                ana.read(ana.get("/api/feeds/" + id)).get("devicesDataset").asLong();
        JsonNode made = ana.json("POST", "/api/dashboards", Map.of("title", "Whose?"));
        long dashboard = made.get("id").asLong();
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                """
                [{"op":"add","path":"/visuals/v1","value":{"type":"figure","page":"p1","at":{"x":0,"y":0,"w":6,"h":4},"title":"Most",
                   "dataset":%1$d,"measure":{"summary":"MAXIMUM","column":"value"}}},
                 {"op":"add","path":"/filters/f1","value":{"type":"choice","page":"p1","order":1,"dataset":%2$d,"column":"owner",
                   "title":"Owner","terms":{"across":true}}}]""".formatted(devices, list),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        // Newer rows may be seen a second later.
        Waiting.until(() -> most(dashboard, "").equals("8"), "the readings in the list of devices");
        assertThat(most(dashboard, "f.f1=Nora")).isEqualTo("1");
    }

    private String most(long dashboard, String state) throws Exception {
        return ana.json("POST", "/api/dashboards/" + dashboard + "/frames", Map.of("state", state))
                .at("/drawings/v1/text")
                .asString();
    }

    @Test
    void devicesThatStayPutHaveNoStays() throws Exception {
        long id = feed("Put", false);
        assertThat(ana.send("POST", "/api/feeds/" + id + "/parts", "application/json", "{\"part\": \"STAYS\"}")
                        .statusCode())
                .isEqualTo(400);
        assertThat(ana.send("POST", "/api/feeds/" + id + "/parts", "application/json", "{\"part\": null}")
                        .statusCode())
                .isEqualTo(400);
    }
}
