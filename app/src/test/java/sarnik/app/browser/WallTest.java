package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("A wall")
class WallTest extends BrowserTest {

    private SarnikClient ana;
    private long dashboard;
    private String link;

    @BeforeEach
    void twoPages() throws Exception {
        ana = sarnik.client("ana");
        dashboard = Samples.dashboard(ana, "On a wall?");
        edit("[{\"op\":\"add\",\"path\":\"/pages/p2\",\"value\":{\"title\":\"Second\",\"order\":2}},"
                + "{\"op\":\"add\",\"path\":\"/visuals/v8\",\"value\":{\"type\":\"figure\",\"page\":\"p2\","
                + "\"at\":{\"x\":0,\"y\":0,\"w\":12,\"h\":8},"
                + "\"title\":\"Rows\",\"dataset\":%d,\"measure\":{\"summary\":\"COUNT\"}}}]".formatted(dataset()));
        ana.publish(dashboard);
        link = ana.json("POST", "/api/dashboards/" + dashboard + "/links", Map.of("name", "Wall", "opensTo", "ANYONE"))
                .get("path")
                .asString();
    }

    private long dataset() throws Exception {
        return ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
    }

    private void edit(String patch) throws Exception {
        long revision = ana.read(ana.get("/api/dashboards/" + dashboard))
                .get("revision")
                .asLong();
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                patch,
                "If-Match",
                "\"" + revision + "\""));
    }

    /**
     * A wall whose clock stands still until the test lets it go on. Half past three at night is no time to load afresh.
     */
    private Page wall(String words) {
        Page page = stranger(1280, 800);
        page.clock().install(new com.microsoft.playwright.Clock.InstallOptions().setTime("2026-03-02T12:00:00"));
        page.clock().pauseAt("2026-03-02T12:00:02");
        page.navigate(link + "#wall" + words);
        page.clock().runFor(1500);
        drawn(page);
        return page;
    }

    @Test
    void pagesTurnByThemselvesAndItIsDimAtNight() {
        Page page = wall(".30s.dim22-6");
        List<Object> seen = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            page.clock().fastForward(30_000);
            page.clock().runFor(1500);
            page.waitForFunction("() => document.querySelectorAll('.visual').length > 0");
            seen.add(page.locator(".visual").count());
        }
        assertThat(seen).contains(1, 3).startsWith(seen.get(2), seen.get(1), seen.get(2));
        assertThat(page.evaluate("document.body.classList.contains('is-dim')")).isEqualTo(false);
        page.clock().fastForward("11:00:00");
        page.clock().runFor(1500);
        assertThat(page.evaluate("document.body.classList.contains('is-dim')")).isEqualTo(true);
        assertThat(page.locator(".sheet-acts").isVisible())
                .as("nothing to press")
                .isFalse();
        assertThat(page.evaluate("history.length"))
                .as("nobody goes back through the pages")
                .isEqualTo(2);
    }

    @Test
    void newerRowsAndANewerEditionAreDrawnInPlace() throws Exception {
        Page page = wall(".99999s");
        waitForText(page.locator(".figure-number"), "179");
        page.evaluate("document.querySelector('.visual-figure').dataset.same = 'yes'");
        JsonNode taken = ana.read(ana.upload(
                RunningSarnik.file("newer.csv", Samples.SALES.replace("100", "200")),
                "newer.csv",
                "?dataset=" + dataset()));
        ana.read(ana.send("POST", "/api/bring/" + taken.get("id").asString() + "/serve", "application/json", ""));
        page.clock().fastForward(61_000);
        page.clock().runFor(1500);
        waitForText(page.locator(".figure-number"), "279");
        assertThat(page.locator(".visual-figure[data-same=yes]").count())
                .as("it is the same box")
                .isEqualTo(1);
        edit("[{\"op\":\"replace\",\"path\":\"/visuals/v2/title\",\"value\":\"Litres of all\"}]");
        ana.json("POST", "/api/dashboards/" + dashboard + "/editions", Map.of());
        page.clock().fastForward(61_000);
        page.clock().runFor(1500);
        waitForText(page.locator(".visual-figure .visual-title"), "Litres of all");
    }

    @Test
    void aLostNetworkIsSaidAndMendsItself() {
        Page page = wall(".99999s");
        page.route("**/api/**", route -> route.abort());
        page.clock().fastForward(61_000);
        page.clock().runFor(1500);
        waitForText(page.locator(".wall-sign"), "No connection since 12:01");
        assertThat(page.locator(".figure-number").textContent())
                .as("what was shown stands")
                .contains("179");
        page.unroute("**/api/**");
        for (int i = 0; i < 6; i++) {
            page.clock().fastForward(60_000);
            page.clock().runFor(1500);
        }
        page.waitForCondition(() -> !page.locator(".wall-sign").isVisible());
        assertThat(page.locator(".said").count()).isZero();
    }

    @Test
    void itRunsForAWeekThroughAClockThatJumps() {
        Page page = wall(".20s");
        String parts = "document.querySelectorAll('*').length";
        page.waitForCondition(() -> page.locator(".visual").count() > 0);
        int most = 0;
        for (int hour = 0; hour < 24 * 7; hour += 3) {
            page.clock().fastForward("03:00:00");
            page.clock().runFor(1200);
            if (hour == 60) page.clock().setSystemTime("2026-02-01T00:00:00");
            if (hour == 90) page.clock().setSystemTime("2027-12-31T23:59:59");
        }
        drawn(page);
        page.waitForFunction("() => document.querySelectorAll('.visual').length > 0");
        most = ((Number) page.evaluate(parts)).intValue();
        assertThat(most).as("nothing gathers").isLessThan(1500);
        assertThat(page.locator(".wall-sign").isVisible()).isFalse();
        assertThat(page.locator(".figure-number").first().textContent()).isIn("179", "6");
    }
}
