package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("Live pages")
class LivePagesTest extends BrowserTest {

    private static String reading(String device, double turbidity) {
        return "{\"deviceId\": \"%s\", \"time\": \"%s\", \"turbidity\": %s}"
                .formatted(device, Instant.now(), turbidity);
    }

    /**
     * A feed is made, its messages are looked at, and a page follows what its devices say; a lost connection catches
     * up.
     */
    @Test
    void aFeedIsMadeOfRealMessagesAndAPageFollowsIt() throws Exception {
        Page ana = page("ana");
        ana.navigate("/feeds");
        ana.fill("[name=name]", "Turbidity of wells");
        ana.click("text=Make it");
        ana.waitForSelector("[data-ready]");
        String token = ana.locator("#token").textContent();
        long feed = Long.parseLong(ana.url().substring(ana.url().lastIndexOf('/') + 1));
        ana.waitForSelector("text=No message has come yet");
        assertThat(send(feed, token, reading("w1", 0.4))).isEqualTo(202);
        ana.click("text=Look again");
        ana.waitForSelector("#read-as >> text=w1");
        assertThat(ana.locator("#shape").textContent()).contains("guessed, sure");
        ana.fill("[aria-label='Name of the column']", "mud");
        ana.keyboard().press("Tab");
        ana.waitForSelector("#read-as th >> text=mud");
        ana.click("text=Read messages so from now on");
        ana.waitForSelector("text=Devices as they are now");
        ana.click("text=Add a threshold");
        ana.fill("[aria-label='Watch from']", "1");
        ana.keyboard().press("Tab");
        ana.fill("[aria-label='Bad from']", "4");
        ana.keyboard().press("Tab");
        ana.click("text=Keep how it is watched");
        waitForText(ana.locator(".said"), "Kept");
        assertThat(send(feed, token, reading("w1", 0.4))).isEqualTo(200);

        SarnikClient author = sarnik.client("ana");
        JsonNode said = author.read(author.get("/api/feeds/" + feed));
        long devices = said.get("devicesDataset").asLong();
        JsonNode made = author.json("POST", "/api/dashboards", Map.of("title", "How are the wells?"));
        long dashboard = made.get("id").asLong();
        author.read(author.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                """
                [{"op":"add","path":"/visuals/v1","value":{"type":"figure","page":"p1","at":{"x":0,"y":0,"w":6,"h":4},"title":"Mud",
                   "dataset":%1$d,"measure":{"summary":"MAXIMUM","column":"mud"}}},
                 {"op":"add","path":"/visuals/v2","value":{"type":"bars","page":"p1","at":{"x":6,"y":0,"w":12,"h":6},"title":"States",
                   "dataset":%1$d,"category":"state","measure":{"summary":"COUNT"}}}]""".formatted(devices),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        author.publish(dashboard);
        String link = author.json(
                        "POST", "/api/dashboards/" + dashboard + "/links", Map.of("name", "Wells", "opensTo", "ANYONE"))
                .get("path")
                .asString();
        Page stranger = stranger(390, 844);
        stranger.navigate(link);
        drawn(stranger);
        waitForText(stranger.locator(".figure-number"), "0.4");
        waitForText(stranger.locator("#live-sign"), "Live");
        send(feed, token, reading("w1", 2.25));
        waitForText(stranger.locator(".figure-number"), "2.25");
        stranger.waitForSelector(".visual-bars >> text=watch");

        // Away for a while: what was said meanwhile is there once it is back.
        stranger.context().setOffline(true);
        send(feed, token, reading("w1", 7.5));
        stranger.context().setOffline(false);
        waitForText(stranger.locator(".figure-number"), "7.5");
        stranger.waitForSelector(".visual-bars >> text=bad");
    }

    /** What is read in a list stays where it is while lines come before it, and what was opened stays open. */
    @Test
    void whatIsReadStaysWhereItIs() throws Exception {
        SarnikClient author = sarnik.client("ana");
        JsonNode feed = author.json("POST", "/api/feeds", Map.of("name", "Many wells"));
        long id = feed.get("id").asLong();
        author.read(author.send("PUT", "/api/feeds/" + id + "/shape", "application/json", """
                {"readings": "", "device": "/deviceId", "time": "/time", "form": "ISO",
                 "fields": [{"at": "/turbidity", "name": "mud", "type": "DECIMAL"}]}""", "If-Match", "1"));
        String token = feed.get("token").asString();
        StringBuilder many = new StringBuilder("[");
        for (int i = 10; i < 90; i++) many.append(i > 10 ? "," : "").append(reading("w" + i, i / 8.0));
        assertThat(send(id, token, many + "]")).isEqualTo(200);
        long devices = author.read(author.get("/api/feeds/" + id))
                .get("devicesDataset")
                .asLong();
        JsonNode made = author.json("POST", "/api/dashboards", Map.of("title", "Which wells?"));
        long dashboard = made.get("id").asLong();
        author.read(author.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                """
                [{"op":"add","path":"/visuals/v1","value":{"type":"list","page":"p1","at":{"x":0,"y":0,"w":12,"h":8},"title":"Wells",
                   "dataset":%d,"text":"{device}","below":"mud {mud}","pick":"device","order":{"by":"device","down":false}}}]""".formatted(devices),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        Page ana = page("ana");
        ana.navigate("/dashboards/" + dashboard);
        drawn(ana);
        ana.waitForSelector("[data-key=w30]");
        ana.locator("[data-key=w30] .line-opener").click();
        ana.evaluate(
                "document.querySelector('.listing').scrollTop = document.querySelector('[data-key=w30]').offsetTop "
                        + "- 40");
        double before = topInList(ana);
        assertThat(((Number) ana.evaluate("document.querySelector('.listing').scrollTop")).doubleValue())
                .isGreaterThan(100);
        send(id, token, "[" + reading("v1", 1) + "," + reading("v2", 1) + "," + reading("w30", 99) + "]");
        waitForText(ana.locator("[data-key=w30]"), "mud 99");
        ana.waitForSelector(
                "[data-key=v1]",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED));
        assertThat(topInList(ana)).isCloseTo(before, org.assertj.core.api.Assertions.within(1.5));
        assertThat(ana.locator("[data-key=w30] .line-record").isVisible()).isTrue();
    }

    /** Only what is in sight is asked for as readings come; the rest catches up as it comes into sight. */
    @Test
    void whatIsOutOfSightIsAskedForAsItComesIntoSight() throws Exception {
        SarnikClient author = sarnik.client("ana");
        JsonNode feed = author.json("POST", "/api/feeds", Map.of("name", "Wells below"));
        long id = feed.get("id").asLong();
        author.read(author.send("PUT", "/api/feeds/" + id + "/shape", "application/json", """
                {"readings": "", "device": "/deviceId", "time": "/time", "form": "ISO",
                 "fields": [{"at": "/turbidity", "name": "mud", "type": "DECIMAL"}]}""", "If-Match", "1"));
        String token = feed.get("token").asString();
        assertThat(send(id, token, reading("w1", 1))).isEqualTo(200);
        long devices = author.read(author.get("/api/feeds/" + id))
                .get("devicesDataset")
                .asLong();
        JsonNode made = author.json("POST", "/api/dashboards", Map.of("title", "Above and below"));
        long dashboard = made.get("id").asLong();
        String figure = """
                {"op":"add","path":"/visuals/%1$s","value":{"type":"figure","page":"p1","at":{"x":0,"y":%2$d,"w":6,"h":4},"title":"%1$s",
                   "dataset":%3$d,"measure":{"summary":"MAXIMUM","column":"mud"}}}""";
        author.read(author.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                "[" + figure.formatted("above", 0, devices) + "," + figure.formatted("below", 80, devices) + "]",
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        Page ana = page("ana");
        List<String> asked = new CopyOnWriteArrayList<>();
        ana.onRequest(request -> {
            if (request.url().endsWith("/frames")) asked.add(request.postData());
        });
        ana.navigate("/dashboards/" + dashboard);
        drawn(ana);
        waitForText(ana.locator("#live-sign"), "Live");
        waitForText(ana.locator(".figure-number").nth(1), "1");
        asked.clear();
        for (int value = 2; value <= 3; value++) {
            send(id, token, reading("w1", value));
            waitForText(ana.locator(".figure-number").first(), "" + value);
        }
        assertThat(asked).isNotEmpty().noneMatch(body -> body.contains("below"));
        assertThat(ana.locator(".figure-number").nth(1).textContent()).isEqualTo("1");
        ana.locator(".figure-number").nth(1).scrollIntoViewIfNeeded();
        waitForText(ana.locator(".figure-number").nth(1), "3");
    }

    private static double topInList(Page page) {
        return ((Number) page.evaluate("document.querySelector('[data-key=w30]').getBoundingClientRect().top - "
                        + "document.querySelector('.listing').getBoundingClientRect().top"))
                .doubleValue();
    }
}
