package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

/** What an author says of a feed on its page is kept, and shown again as it was kept. */
@DisplayName("The page of a feed")
class FeedPagesTest extends BrowserTest {

    private static final String SHAPE = """
            {"readings": "", "device": "/probe", "time": null, "form": "ISO", "lon": "/lon", "lat": "/lat",
             "fields": [{"at": "/mud", "name": "mud", "type": "DECIMAL"}]}""";

    private SarnikClient ana;
    private long feed;
    private Page page;

    @BeforeEach
    void open() throws Exception {
        ana = sarnik.client("ana");
        feed = ana.json("POST", "/api/feeds", Map.of("name", "Wells to be told of"))
                .get("id")
                .asLong();
        assertThat(put(ana, feed, "shape", SHAPE)).isEmpty();
        page = page("ana");
        show();
    }

    private void show() {
        page.navigate("/feeds/" + feed);
        page.waitForSelector("[data-ready]");
    }

    private JsonNode said() throws Exception {
        return ana.read(ana.get("/api/feeds/" + feed));
    }

    private void write(String label, String text) {
        page.fill("[aria-label='" + label + "']", text);
        page.keyboard().press("Tab");
    }

    private void keep(String part) {
        page.click("#" + part + " >> text=Keep how it is watched");
        waitForText(page.locator(".said"), "Kept.");
    }

    @Test
    void anotherTokenTakesThePlaceOfTheOneBefore() throws Exception {
        page.click("text=Make another token");
        String first = page.locator("#token").textContent();
        page.click("text=Make another token");
        waitUntil(() -> !page.locator("#token").textContent().equals(first));
        String second = page.locator("#token").textContent();
        assertThat(page.locator("#send pre").textContent()).contains("Bearer " + second);
        String reading = "{\"probe\": \"W1\", \"lon\": -3, \"lat\": 41.5, \"mud\": 0.5}";
        assertThat(send(feed, first, reading)).isEqualTo(401);
        assertThat(send(feed, second, reading)).isEqualTo(200);
    }

    @Test
    void whoIsToldIsKeptAndGivenUpAgain() throws Exception {
        page.click("text=Tell somebody");
        write("Addresses of mail, a space between", "wells@aljibe.example, night@aljibe.example");
        page.selectOption("[aria-label='To which states']", "BAD");
        page.selectOption("[aria-label='When']", "yes");
        write("Quiet until", "07:15");
        keep("notices");
        JsonNode told = said().at("/settings/notices");
        assertThat(told.get("mails").toString()).isEqualTo("[\"wells@aljibe.example\",\"night@aljibe.example\"]");
        assertThat(told.get("states").toString()).isEqualTo("[\"BAD\"]");
        assertThat(told.get("quietFrom").asString()).startsWith("22:00");
        assertThat(told.get("quietUntil").asString()).startsWith("07:15");
        show();
        assertThat(page.inputValue("[aria-label^='Addresses of mail']"))
                .isEqualTo("wells@aljibe.example night@aljibe.example");
        page.click("text=Tell nobody");
        keep("notices");
        assertThat(said().at("/settings/notices").isObject()).isFalse();
    }

    @Test
    void whereDevicesStopIsKept() throws Exception {
        write("Within how many metres a device stops", "35");
        write("For how many minutes", "7");
        keep("stays");
        assertThat(said().at("/settings/stays/metres").asInt()).isEqualTo(35);
        assertThat(said().at("/settings/stays/minutes").asInt()).isEqualTo(7);
    }

    @Test
    void whatItHoldsBesidesIsMadeADataset() throws Exception {
        Locator states = page.locator("#parts li:has-text('The states of its devices')");
        states.getByText("Make it a dataset").click();
        states.getByText("The dataset").waitFor();
        long dataset = said().at("/parts/TURNS").asLong();
        assertThat(states.locator("a").getAttribute("href")).isEqualTo("/datasets/" + dataset);
        assertThat(page.locator("#parts li:has-text('Where its devices stopped')")
                        .count())
                .as("its devices move")
                .isEqualTo(1);
    }

    @Test
    void whatCouldNotBeReadStandsThereUntilItIsSeen() throws Exception {
        String token = ana.json("POST", "/api/feeds/" + feed + "/token", Map.of())
                .get("token")
                .asString();
        send(feed, token, "{\"mud\": 0.5, \"remark\": \"of nobody\"}");
        waitUntil(() -> !said().get("troubles").isEmpty());
        show();
        assertThat(page.locator("#troubles pre").textContent()).contains("of nobody");
        page.click("text=I have seen them");
        waitForText(page.locator("#troubles"), "Nothing so far.");
        assertThat(said().get("troubles").isEmpty()).isTrue();
    }

    @Test
    void aBrokerThatMayNotBeAskedIsRefusedAndWhatWasWrittenStays() throws Exception {
        write("Address of the broker", "tcp://127.0.0.1:9");
        write("Topics, a space between", "wells/+ wells/deep");
        page.click("text=Read from this broker");
        page.waitForSelector("#refusal:not(:empty)");
        assertThat(page.locator("#refusal").textContent()).contains("127.0.0.1");
        assertThat(page.inputValue("[aria-label='Address of the broker']")).isEqualTo("tcp://127.0.0.1:9");
        assertThat(said().get("broker").isObject()).isFalse();
    }

    @Test
    void itIsTakenAway() throws Exception {
        page.click("#remove");
        page.waitForURL("**/feeds");
        assertThat(ana.get("/api/feeds/" + feed).statusCode()).isEqualTo(404);
    }
}
