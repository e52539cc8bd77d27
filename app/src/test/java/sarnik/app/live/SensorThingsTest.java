package sarnik.app.live;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.Waiting.until;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.live.Reading;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("OGC SensorThings")
class SensorThingsTest {

    private RunningSarnik sarnik;
    private SarnikClient ana;

    @BeforeEach
    void begin(RunningSarnik running) {
        sarnik = running;
        ana = sarnik.client("ana");
    }

    private void put(long id, String what, String body) throws Exception {
        long revision = ana.read(ana.get("/api/feeds/" + id)).get("revision").asLong();
        assertThat(ana.send("PUT", "/api/feeds/" + id + "/" + what, "application/json", body, "If-Match", "" + revision)
                        .statusCode())
                .isEqualTo(204);
    }

    /** A feed of two devices that each say three times what they measure, a minute apart. */
    private long feed(String name, Instant begin) throws Exception {
        long id = ana.json("POST", "/api/feeds", Map.of("name", name)).get("id").asLong();
        put(id, "shape", """
                {"readings": "", "device": "/d", "time": "/t", "form": "SECONDS", "lon": "/x", "lat": "/y",
                 "fields": [{"at": "/v", "name": "heat", "type": "DECIMAL", "unit": "°C"},
                   {"at": "/w", "name": "word", "type": "TEXT"}, {"at": "/u", "name": "load", "type": "DECIMAL"}]}""");
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < 3; i++)
            for (String device : List.of(name + " A", name + " B"))
                readings.add(new Reading(
                        device, begin.plusSeconds(60L * i).toEpochMilli(), -3, 41, new Object[] {20.5 + i, "w", i * 0.25
                        }));
        keep(id, readings);
        return id;
    }

    private void keep(long id, List<Reading> readings) throws Exception {
        sarnik.bean(ReadingWriter.class)
                .keep(sarnik.bean(RunningFeeds.class).find(id).orElseThrow(), readings)
                .get(30, TimeUnit.SECONDS);
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private JsonNode get(String below) throws Exception {
        return ana.read(ana.get(SensorThings.BASE + below));
    }

    @Test
    void servesDevicesAsThings() throws Exception {
        Instant begin = Instant.now().truncatedTo(ChronoUnit.SECONDS).minusSeconds(600);
        long id = feed("Served", begin);
        assertThat(get("").get("value").get(0).get("name").asString()).isEqualTo("Things");
        JsonNode things = get("/Things?$filter=" + encoded("name eq 'Served A'")
                + "&$expand=Locations,Datastreams/ObservedProperty&$count=true");
        assertThat(things.get("@iot.count").asInt()).isEqualTo(1);
        JsonNode thing = things.at("/value/0");
        assertThat(thing.get("@iot.id").asString()).isEqualTo(id + ".1");
        assertThat(thing.at("/Locations/0/location/coordinates/1").asDouble()).isEqualTo(41);
        assertThat(thing.get("Datastreams")).hasSize(2);
        assertThat(thing.at("/Datastreams/0/unitOfMeasurement/symbol").asString())
                .isEqualTo("°C");
        assertThat(thing.at("/Datastreams/1/ObservedProperty/name").asString()).isEqualTo("load");
        assertThat(thing.has("Datastreams@iot.navigationLink")).isFalse();

        // What is linked leads there.
        String stream = thing.at("/Datastreams/0/@iot.selfLink")
                .asString()
                .substring(sarnik.base().length());
        assertThat(ana.read(ana.get(stream.replace("'", "%27") + "/Thing"))
                        .get("name")
                        .asString())
                .isEqualTo("Served A");
        String observations = stream.replace("'", "%27") + "/Observations";
        JsonNode first =
                ana.read(ana.get(observations + "?$top=2&$count=true&$orderby=" + encoded("phenomenonTime asc")));
        assertThat(first.get("@iot.count").asInt()).isEqualTo(3);
        assertThat(first.get("value")).hasSize(2);
        assertThat(first.at("/value/0/phenomenonTime").asString()).isEqualTo(begin.toString());
        assertThat(first.at("/value/0/result").asDouble()).isEqualTo(20.5);
        JsonNode rest = ana.read(ana.get(first.get("@iot.nextLink")
                .asString()
                .substring(sarnik.base().length())
                .replace("'", "%27")
                .replace(" ", "%20")));
        assertThat(rest.get("value")).hasSize(1);
        assertThat(rest.at("/value/0/result").asDouble()).isEqualTo(22.5);
        assertThat(rest.has("@iot.nextLink")).isFalse();
        JsonNode later = ana.read(ana.get(observations + "?$filter="
                + encoded("phenomenonTime gt " + begin + " and phenomenonTime le " + begin.plusSeconds(60))));
        assertThat(later.get("value")).hasSize(1);
        String one = later.at("/value/0/@iot.selfLink")
                .asString()
                .substring(sarnik.base().length());
        assertThat(ana.read(ana.get(one.replace("'", "%27"))).get("result").asDouble())
                .isEqualTo(21.5);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "/Things?$filter=substringof('a',name)| 501",
                "/Things?$select=name| 501",
                "/Things?$expand=Observations| 501",
                "/Things?$orderby=name| 501",
                "/Things?$top=x| 400",
                "/Things?$top=-1| 400",
                "/Observations| 501",
                "/Things('9.9')| 404",
                "/Things('9.9')/Datastreams| 404",
                "/Nothing| 404",
                "/Observations('1.1.1.x')| 404"
            })
    void saysWhatItDoesNotAnswer(String below, int status) throws Exception {
        String address = below.replace("'", "%27").replace("$filter=substringof(", "$filter=substringof%28");
        assertThat(ana.get(SensorThings.BASE + address).statusCode()).isEqualTo(status);
    }

    /** Who may not see a dataset is not told of its devices. */
    @Test
    void tellsNobodyOfDevicesThatAreNotTheirs() throws Exception {
        feed("Hidden", Instant.now().truncatedTo(ChronoUnit.SECONDS).minusSeconds(600));
        SarnikClient rui = sarnik.client("rui");
        assertThat(rui.get(SensorThings.BASE + "/Things").statusCode()).isEqualTo(200);
        assertThat(rui.get(SensorThings.BASE + "/Things?$top=1000").body()).doesNotContain("Hidden");
        assertThat(ana.get(SensorThings.BASE + "/Things?$top=1000").body()).contains("Hidden");
    }

    /** What one serves another reads: a feed is read from a server, and goes on with what is newer. */
    @Test
    void readsWhatAServerServes() throws Exception {
        Instant begin = Instant.now().truncatedTo(ChronoUnit.SECONDS).minusSeconds(600);
        long served = feed("Elsewhere", begin);
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        String root = "http://127.0.0.1:" + server.getAddress().getPort() + "/v1.1";
        server.createContext("/v1.1", exchange -> {
            try {
                String below = exchange.getRequestURI().toString().substring("/v1.1".length());
                // A server of others has its own devices only.
                String asked =
                        below.startsWith("/Things?") ? below + "&$filter=" + encoded("name eq 'Elsewhere A'") : below;
                byte[] body = ana.get(SensorThings.BASE + asked)
                        .body()
                        .replace(sarnik.base() + SensorThings.BASE, root)
                        .getBytes(StandardCharsets.UTF_8);
                exchange.getResponseHeaders().set("Content-Type", "application/json");
                exchange.sendResponseHeaders(200, body.length);
                exchange.getResponseBody().write(body);
                exchange.close();
            } catch (InterruptedException closing) {
                Thread.currentThread().interrupt();
            }
        });
        server.start();
        try {
            sarnik.client("marta")
                    .send(
                            "POST",
                            "/hosts",
                            "application/x-www-form-urlencoded",
                            "host=127.0.0.1%3A" + server.getAddress().getPort());
            long id = ana.json("POST", "/api/feeds", Map.of("name", "Read from a server"))
                    .get("id")
                    .asLong();
            put(id, "things", "{\"source\": {\"address\": \"" + root + "\", \"seconds\": 5}}");
            until(
                    () -> ana.read(ana.get("/api/feeds/" + id)).get("samples").size() > 0,
                    "observations come as messages");
            JsonNode guess = ana.read(ana.get("/api/feeds/" + id + "/guess"));
            put(id, "shape", guess.get("shape").toString());
            until(() -> ana.read(ana.get("/api/feeds/" + id)).get("readings").asInt() == 3, "all three are read");
            JsonNode now = ana.read(ana.get("/api/feeds/" + id));
            assertThat(now.at("/thingsStanding/open").asBoolean()).isTrue();
            assertThat(now.get("devices").asInt()).isEqualTo(1);
            keep(
                    served,
                    List.of(new Reading(
                            "Elsewhere A", begin.plusSeconds(300).toEpochMilli(), -3, 41, new Object[] {30.0, "w", 1.0
                            })));
            until(() -> ana.read(ana.get("/api/feeds/" + id)).get("readings").asInt() == 4, "the newer one is read");
            put(id, "things", "{\"source\": null}");
        } finally {
            server.stop(0);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"address\": \"ftp://example.org\", \"seconds\": 60}",
                "{\"address\": \"http://127.0.0.1:1/v1.1\", \"seconds\": 60}",
                "{\"address\": \"http://example.org\", \"seconds\": 1}"
            })
    void refusesWhatIsNoServer(String source) throws Exception {
        long id = ana.json("POST", "/api/feeds", Map.of("name", "No server"))
                .get("id")
                .asLong();
        assertThat(ana.send(
                                "PUT",
                                "/api/feeds/" + id + "/things",
                                "application/json",
                                "{\"source\": " + source + "}",
                                "If-Match",
                                "1")
                        .statusCode())
                .isEqualTo(400);
    }
}
