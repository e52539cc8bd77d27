package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.FrameLocator;
import com.microsoft.playwright.Page;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Map;
import org.eclipse.paho.mqttv5.client.MqttClient;
import org.eclipse.paho.mqttv5.client.persist.MemoryPersistence;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import sarnik.standins.MessageBroker;
import tools.jackson.databind.JsonNode;

@DisplayName("A probe turns bad")
class ProbeStoryTest extends BrowserTest {

    private static void say(MqttClient gateway, String probe, double lon, double mud) throws Exception {
        gateway.publish(
                "wells/" + probe,
                "{\"probe\": \"%s\", \"time\": \"%s\", \"lon\": %s, \"lat\": 41.5, \"mud\": %s}"
                        .formatted(probe, Instant.now(), lon, mud)
                        .getBytes(StandardCharsets.UTF_8),
                1,
                false);
    }

    /**
     * It is seen on the map, its page slides in, somebody notes it, and the mail arrives; a stranger sees it by a link.
     */
    @Test
    void itsPageSlidesInItIsNotedAndMailArrives() throws Exception {
        int port;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        SarnikClient author = sarnik.client("ana");
        sarnik.client("marta").send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + port);
        long feed = author.json("POST", "/api/feeds", Map.of("name", "Wells of the story"))
                .get("id")
                .asLong();
        put(author, feed, "shape", """
                {"readings": "", "device": "/probe", "time": "/time", "form": "ISO", "lon": "/lon", "lat": "/lat",
                 "fields": [{"at": "/mud", "name": "mud", "type": "DECIMAL"}]}""");
        put(author, feed, "settings", """
                {"settings": {"keepDays": 30, "windowHours": 24, "silentSeconds": 0, "trailMinutes": 10, "strangers": true,
                  "thresholds": [{"column": "mud", "side": "ABOVE", "watch": 1, "bad": 4, "back": 0, "seconds": 0}],
                  "notices": {"states": ["BAD"], "well": true, "mails": ["wells@aljibe.example"]}}}""");
        try (MessageBroker broker = MessageBroker.start(port, null)) {
            put(author, feed, "broker", """
                    {"broker": {"address": "%s", "version": "5", "topics": ["wells/+"]}}""".formatted(broker.address()));
            waitUntil(() -> author.read(author.get("/api/feeds/" + feed))
                    .at("/standing/open")
                    .asBoolean());
            MqttClient gateway = new MqttClient(broker.address(), "gateway of the story", new MemoryPersistence());
            gateway.connect();
            say(gateway, "W1", -3, 0.25);
            say(gateway, "W2", -4, 0.5);
            long dashboard = dashboard(author, feed);

            // Readers read what is published, and datasets that are theirs to read.
            author.publish(dashboard);
            author.json(
                    "PUT",
                    "/api/dashboards/" + dashboard + "/grants",
                    Map.of("who", Map.of("kind", "EVERYBODY"), "may", "READ"));
            Page rui = page("rui");
            rui.navigate("/dashboards/" + dashboard);
            drawn(rui);
            waitForText(rui.locator("#amiss"), "Nothing amiss");
            say(gateway, "W2", -4, 7.25);
            waitForText(rui.locator("#amiss"), "1 amiss");
            rui.click("#amiss");
            waitForText(rui.locator(".amiss-line"), "mud 7.25, above 4");
            rui.fill(".amiss-note-words", "Pump stopped");
            rui.click("text=I have seen it");
            waitForText(rui.locator(".amiss-seen"), "Seen by rui");
            waitForText(rui.locator(".amiss-seen"), "Pump stopped");
            rui.click(".amiss-device");
            waitForText(rui.locator(".aside-title"), "W2");
            FrameLocator slid = rui.frameLocator(".aside-frame");
            waitForText(slid.locator("[data-visual=v11] .figure-number"), "7.25");
            // It goes on with what comes, and with what else is picked.
            say(gateway, "W2", -4, 8.5);
            waitForText(slid.locator("[data-visual=v11] .figure-number"), "8.5");
            rui.locator("[data-visual=v2] [data-key=W1]").press("Enter");
            waitForText(slid.locator("[data-visual=v11] .figure-number"), "0.25");
            rui.keyboard().press("Escape");
            rui.waitForSelector(
                    ".aside",
                    new Page.WaitForSelectorOptions()
                            .setState(com.microsoft.playwright.options.WaitForSelectorState.DETACHED));

            waitUntil(() -> sarnik.mailbox().mails().stream()
                    .anyMatch(m -> m.subject().equals("Wells of the story: W2 is bad")));

            String link = author.json(
                            "POST",
                            "/api/dashboards/" + dashboard + "/links",
                            Map.of("name", "Wells of the story", "opensTo", "ANYONE"))
                    .get("path")
                    .asString();
            Page stranger = stranger(390, 844);
            stranger.navigate(link);
            drawn(stranger);
            waitForText(stranger.locator("#amiss"), "1 amiss");
            stranger.click("#amiss");
            waitForText(stranger.locator(".amiss-seen"), "Pump stopped");
            assertThat(stranger.locator(".amiss-note").count())
                    .as("who is nobody notes nothing")
                    .isZero();
            stranger.click(".amiss-device");
            waitForText(stranger.frameLocator(".aside-frame").locator("[data-visual=v11] .figure-number"), "8.5");
            assertThat(stranger.locator(".aside").boundingBox().y)
                    .as("from below")
                    .isGreaterThan(100);
            stranger.click(".aside-whole");
            drawn(stranger);
            waitForText(stranger.locator("[data-visual=v11] .figure-number"), "8.5");
            gateway.disconnect();
            gateway.close();
        }
    }

    private static long dashboard(SarnikClient author, long feed) throws Exception {
        waitUntil(() ->
                author.read(author.get("/api/feeds/" + feed)).get("devices").asInt() == 2);
        long devices = author.read(author.get("/api/feeds/" + feed))
                .get("devicesDataset")
                .asLong();
        JsonNode made = author.json("POST", "/api/dashboards", Map.of("title", "Is a well muddy?"));
        long dashboard = made.get("id").asLong();
        author.read(author.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                """
                [{"op":"add","path":"/pages/p2","value":{"title":"This well","order":2,"hidden":true}},
                 {"op":"add","path":"/visuals/v1","value":{"type":"map","page":"p1","at":{"x":0,"y":0,"w":12,"h":10},"title":"Wells",
                   "layers":{"l1":{"kind":"SYMBOLS","order":1,"dataset":%1$d,"opacity":1,"symbol":{"category":"state","last":true},
                     "colour":{"category":"state","order":["good","watch","bad","silent"]}}}}},
                 {"op":"add","path":"/visuals/v2","value":{"type":"bars","page":"p1","at":{"x":12,"y":0,"w":12,"h":10},"title":"Mud",
                   "dataset":%1$d,"category":"device","measure":{"summary":"MAXIMUM","column":"mud"}}},
                 {"op":"add","path":"/visuals/v11","value":{"type":"figure","page":"p2","at":{"x":0,"y":0,"w":8,"h":4},"title":"Mud now",
                   "dataset":%1$d,"measure":{"summary":"MAXIMUM","column":"mud"}}},
                 {"op":"add","path":"/links/k1","value":{"from":"v1","effect":"BESIDE","part":"p2","across":true}},
                 {"op":"add","path":"/links/k2","value":{"from":"v2","effect":"BESIDE","part":"p2","across":true}}]""".formatted(devices),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        return dashboard;
    }
}
