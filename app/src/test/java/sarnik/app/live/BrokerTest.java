package sarnik.app.live;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.Waiting.until;

import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import javax.sql.DataSource;
import org.eclipse.paho.mqttv5.client.MqttClient;
import org.eclipse.paho.mqttv5.client.persist.MemoryPersistence;
import org.eclipse.paho.mqttv5.common.MqttException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.app.instance.Alone;
import sarnik.app.outside.AllowedHosts;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.standins.MessageBroker;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@ExtendWith(RunningSarnik.class)
@DisplayName("Feeds that are read from a broker")
class BrokerTest {

    @TempDir
    private Path folder;

    private RunningSarnik sarnik;
    private SarnikClient ana;
    private int port;
    private MessageBroker broker;

    @BeforeEach
    void begin(RunningSarnik running) throws Exception {
        sarnik = running;
        ana = sarnik.client("ana");
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        broker = MessageBroker.start(port, folder);
    }

    @AfterEach
    void end() {
        broker.close();
    }

    private long feed(String name) throws Exception {
        long id = ana.json("POST", "/api/feeds", Map.of("name", name)).get("id").asLong();
        String shape = """
                {"readings": "", "device": "#2", "time": "/t", "form": "SECONDS",
                 "fields": [{"at": "/v", "name": "value", "type": "DECIMAL"}]}""";
        assertThat(put(id, "shape", shape)).isEqualTo(204);
        return id;
    }

    private int put(long id, String what, String body) throws Exception {
        long revision = ana.read(ana.get("/api/feeds/" + id)).get("revision").asLong();
        return ana.send("PUT", "/api/feeds/" + id + "/" + what, "application/json", body, "If-Match", "" + revision)
                .statusCode();
    }

    private String broker(String version) {
        return """
                {"broker": {"address": "tcp://127.0.0.1:%d", "version": "%s", "topics": ["aljibe/+/readings"]}}""".formatted(port, version);
    }

    private void allow() throws Exception {
        sarnik.client("marta").send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + port);
    }

    private void publish(int from, int to) throws MqttException {
        MqttClient gateway = new MqttClient("tcp://127.0.0.1:" + port, "gateway", new MemoryPersistence());
        gateway.connect();
        long now = Instant.now().getEpochSecond() - 1000;
        for (int i = from; i < to; i++)
            gateway.publish(
                    "aljibe/p" + i % 5 + "/readings",
                    "{\"t\": %d, \"v\": %d}".formatted(now + i, i).getBytes(StandardCharsets.UTF_8),
                    1,
                    false);
        gateway.disconnect();
        gateway.close();
    }

    private JsonNode standing(long id) throws Exception {
        return ana.read(ana.get("/api/feeds/" + id)).get("standing");
    }

    private void untilOpen(long id) throws Exception {
        until(() -> standing(id) != null && standing(id).at("/open").asBoolean(), "it is connected");
    }

    private long[] kept(long id) throws Exception {
        try (Connection connection = sarnik.bean(LiveConnections.class).open();
                ResultSet found = connection
                        .createStatement()
                        .executeQuery("SELECT count(*), count(DISTINCT c0) FROM " + ReadingStore.table(id))) {
            found.next();
            return new long[] {found.getLong(1), found.getLong(2)};
        }
    }

    /** What a broker took while nobody could reach it is there afterwards, once. */
    @ParameterizedTest
    @ValueSource(strings = {Broker.FIVE, Broker.THREE})
    void readsOnWhereItWasOnceTheBrokerIsBack(String version) throws Exception {
        allow();
        long id = feed("From a broker, MQTT " + version);
        assertThat(put(id, "broker", broker(version))).isEqualTo(204);
        untilOpen(id);
        publish(0, 40);
        until(() -> kept(id)[0] == 40, "the first are kept");
        broker.close();
        until(() -> !standing(id).get("open").asBoolean(), "it is said to be away");
        assertThat(standing(id).get("words").asString()).isNotBlank();
        broker = MessageBroker.start(port, folder);
        untilOpen(id);
        publish(30, 90);
        until(() -> kept(id)[1] == 90, "all are kept");
        // Devices are told apart by their topics.
        assertThat(ana.read(ana.get("/api/feeds/" + id)).get("devices").asInt()).isEqualTo(5);
        assertThat(put(id, "broker", "{\"broker\": null}")).isEqualTo(204);
        until(() -> standing(id).isNull(), "it is read no more");
    }

    /** One instance of two reads a feed; when it ends, the other goes on where it was. */
    @Test
    void isReadByOneInstanceOfTwo() throws Exception {
        allow();
        long id = feed("Two instances and a broker");
        JsonMapper mapper = sarnik.bean(JsonMapper.class);
        Alone alone = new Alone(sarnik.bean(DataSource.class));
        try (alone;
                Subscriptions other = new Subscriptions(
                        sarnik.bean(LiveFeedRepository.class),
                        sarnik.bean(RunningFeeds.class),
                        alone,
                        sarnik.bean(AllowedHosts.class),
                        sarnik.bean(Intake.class),
                        sarnik.bean(sarnik.app.secret.Secrets.class),
                        mapper)) {
            LiveFeedRepository stored = sarnik.bean(LiveFeedRepository.class);
            Broker said =
                    new Broker("tcp://127.0.0.1:" + port, Broker.FIVE, List.of("aljibe/+/readings"), null, "ours-1");
            // This one looks first, before the application knows of the broker.
            LiveFeed feed = stored.findById(id).orElseThrow();
            feed.broker(mapper.writeValueAsString(said), null);
            synchronized (sarnik.bean(Subscriptions.class)) {
                stored.saveAndFlush(feed);
                other.look();
            }
            until(() -> other.standing(id).orElseThrow().isOpen(), "the other reads it");
            until(() -> standing(id) != null && !standing(id).isNull(), "this one knows of it");
            publish(0, 30);
            until(() -> kept(id)[0] == 30, "all are kept");
            assertThat(standing(id).at("/open").asBoolean()).isFalse();
            assertThat(standing(id).get("words").asString()).contains("another instance");
        }
        publish(30, 60);
        untilOpen(id);
        until(() -> kept(id)[1] == 60, "what came between is kept too");
        assertThat(kept(id)[0]).isEqualTo(60);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"address\": \"tcp://127.0.0.1:1\", \"version\": \"5\", \"topics\": [\"a\"]}",
                "{\"address\": \"http://example.org\", \"version\": \"5\", \"topics\": [\"a\"]}",
                "{\"address\": \"tcp://u:p@127.0.0.1\", \"version\": \"5\", \"topics\": [\"a\"]}",
                "{\"address\": null, \"version\": \"5\", \"topics\": [\"a\"]}",
                "{\"address\": \"tcp://127.0.0.1:PORT\", \"version\": \"4\", \"topics\": [\"a\"]}",
                "{\"address\": \"tcp://127.0.0.1:PORT\", \"version\": \"5\", \"topics\": []}",
                "{\"address\": \"tcp://127.0.0.1:PORT\", \"version\": \"5\", \"topics\": [\"a/#/b\"]}",
                "{\"address\": \"tcp://127.0.0.1:PORT\", \"version\": \"5\", \"topics\": [\"a+/b\"]}"
            })
    void refusesWhatIsNoBroker(String said) throws Exception {
        allow();
        long id = feed("No broker");
        assertThat(put(id, "broker", "{\"broker\": " + said.replace("PORT", "" + port) + "}"))
                .isEqualTo(400);
        assertThat(ana.read(ana.get("/api/feeds/" + id)).get("broker").isNull()).isTrue();
    }

    /** A huge message, a broken one, and one of a device that is fine. */
    @Test
    void keepsOnReadingWhateverComes() throws Exception {
        allow();
        long id = feed("Whatever comes");
        assertThat(put(id, "broker", broker(Broker.FIVE))).isEqualTo(204);
        untilOpen(id);
        MqttClient gateway = new MqttClient("tcp://127.0.0.1:" + port, "odd gateway", new MemoryPersistence());
        gateway.connect();
        gateway.publish("aljibe/p1/readings", new byte[5 << 20], 1, false);
        gateway.publish("aljibe/p1/readings", "{\"t\": 1".getBytes(StandardCharsets.UTF_8), 1, false);
        gateway.disconnect();
        gateway.close();
        publish(0, 1);
        until(() -> kept(id)[0] == 1, "what can be read is kept");
        until(() -> ana.read(ana.get("/api/feeds/" + id)).get("troubles").size() >= 2, "the others are listed");
        assertThat(standing(id).get("open").asBoolean()).isTrue();
    }
}
