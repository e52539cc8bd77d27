package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.Samples;
import sarnik.standins.RemoteTable;
import tools.jackson.databind.JsonNode;

@DisplayName("Handing over")
class HandOverPagesTest extends BrowserTest {

    private static RemoteTable site;
    private static long dashboard;

    @BeforeAll
    static void aSite() throws Exception {
        site = RemoteTable.start(0, () -> 1);
    }

    @AfterAll
    static void closeTheSite() {
        site.close();
    }

    @BeforeEach
    void aPublishedDashboard() throws Exception {
        if (dashboard != 0) return;
        dashboard = Samples.dashboard(sarnik.client("ana"), "Handed over?");
        sarnik.client("ana").publish(dashboard);
    }

    private String link(Map<String, ?> wanted) throws Exception {
        JsonNode made = sarnik.client("ana").json("POST", "/api/dashboards/" + dashboard + "/links", wanted);
        return made.get("path").asString();
    }

    private static String origin() {
        return "http://127.0.0.1:" + site.port();
    }

    private String within(String link, String words) {
        return origin() + "/news?frame="
                + URLEncoder.encode(sarnik.base() + link + "#framed" + words, StandardCharsets.UTF_8);
    }

    private static Frame frame(Page page) {
        page.waitForSelector("iframe");
        Frame frame = page.frames().get(1);
        frame.waitForSelector("#sheet[data-drawn]");
        return frame;
    }

    @Test
    void aPageOfAnotherSiteShowsItAsHighAsItIsAndBothTellEachOtherWhatIsChosen() throws Exception {
        String link = link(Map.of("name", "News", "opensTo", "ANYONE", "sites", List.of(origin())));
        for (int width : new int[] {1280, 390}) {
            Page page = stranger(width, 800);
            page.navigate(within(link, ""));
            Frame frame = frame(page);
            Locator figure = frame.locator(".figure-number");
            waitForText(figure, "179");
            page.waitForFunction("() => document.getElementById('sheet').clientHeight > 400");
            // Nothing of it is cut off.
            String over = "(() => { const e = document.documentElement; return `${e.scrollHeight - e.clientHeight} "
                    + "${e.scrollWidth - e.clientWidth}`; })()";
            page.waitForCondition(() -> frame.evaluate(over).equals("0 0"));
            frame.click(".bar[data-key] >> nth=0");
            waitForText(figure, "100");
            waitForText(page.locator("#told"), "\"picked\":{\"Towns\":[");
            page.click("#still");
            waitForText(figure, "150");
            waitForText(page.locator("#told"), "f.f1=still");
            assertThat(page.context().cookies()).as("no cookie is needed").isEmpty();
            page.context().close();
        }
    }

    @Test
    void partsOfItAreLeftOutAndItIsDayOrNightAsTheCodeSays() throws Exception {
        String link = link(Map.of("name", "Bare", "opensTo", "ANYONE", "sites", List.of(origin())));
        Page page = stranger(1280, 800);
        page.navigate(within(link, ".no-title.no-strip.no-controls.night"));
        Frame frame = frame(page);
        assertThat(frame.locator(".sheet-title").isVisible()).isFalse();
        assertThat(frame.locator("#strip").isVisible()).isFalse();
        assertThat(frame.locator("#showing").isVisible()).isFalse();
        assertThat(frame.evaluate("document.documentElement.dataset.mood")).isEqualTo("night");
        frame.hover(".visual-bars");
        assertThat(frame.locator(".visual-bars .visual-signs").isVisible()).isFalse();
    }

    @Test
    void aSiteThatIsNotNamedShowsNothing() throws Exception {
        String link = link(Map.of("name", "Closed", "opensTo", "ANYONE", "sites", List.of("https://example.org")));
        Page page = stranger(1280, 800);
        page.navigate(within(link, ""));
        page.waitForCondition(() -> page.frames().get(1).url().startsWith("chrome-error"));
        assertThat(page.frames().get(1).locator("#sheet").count()).isZero();
        assertThat(troubles()).anySatisfy(said -> assertThat(said).contains("frame-ancestors"));
    }

    @Test
    void aLinkIsMadeChangedAndEndedOnThePageAndAStrangerFollowsIt() throws Exception {
        Page ana = page("ana");
        ana.navigate("/dashboards/" + dashboard + "/hand-over");
        ana.waitForSelector("[data-ready]");
        ana.click("text=Make a link");
        ana.fill(".link-form [aria-label='Name of the link']", "For the council");
        ana.selectOption(".link-form [aria-label='To whom it opens']", "ANYONE");
        ana.fill(".link-form [aria-label='Password of the link']", "three old bridges");
        ana.click(".link-form >> text=Keep it to some rows only");
        ana.selectOption(".link-form [aria-label='Column']", "province");
        ana.fill(".link-form [aria-label='Values, separated by commas']", "Soria, Burgos");
        ana.uncheck(".link-form [data-part=rows]");
        ana.click(".link-form >> text=Make the link");
        Locator made = ana.locator(".links li").filter(new Locator.FilterOptions().setHasText("For the council"));
        made.waitFor();
        assertThat(made.textContent())
                .contains("Opens to anyone who has it", "asks for a password", "province IN ('Soria', 'Burgos')")
                .contains("No rows and figures can be taken along");
        String address = made.locator(".link-address").textContent();

        Page stranger = stranger(390, 844);
        stranger.navigate(address);
        stranger.fill("[name=password]", "no idea");
        stranger.click("text=Show it");
        stranger.waitForSelector("text=That is not the password of this link");
        stranger.fill("[name=password]", "three old bridges");
        stranger.click("text=Show it");
        waitForText(stranger.locator(".figure-number"), "79");
        waitForText(stranger.locator("#kept-back"), "province IN ('Soria', 'Burgos')");
        assertThat(stranger.url()).isEqualTo(address);
        stranger.reload();
        waitForText(stranger.locator(".figure-number"), "79");
        stranger.evaluate(
                "document.querySelector('.figure-number').dispatchEvent(new ClipboardEvent('copy', { bubbles: true, "
                        + "cancelable: true }))");
        waitForText(stranger.locator(".said"), "lets no figures be copied");

        made.locator("text=End it").click();
        waitForText(ana.locator(".said"), "opens to nobody any more");
        stranger.click(".bar[data-key] >> nth=0");
        waitForText(stranger.locator(".said"), "This link has ended");
        stranger.navigate(address);
        stranger.waitForSelector("text=This link has ended");
    }

    @Test
    void whatMayNotBePrintedSaysSoOnPaper() throws Exception {
        String link = link(Map.of(
                "name", "No prints",
                "opensTo", "ANYONE",
                "takes", Map.of("rows", true, "pictures", true, "prints", false)));
        Page page = stranger(1280, 800);
        page.navigate(link);
        drawn(page);
        page.emulateMedia(new Page.EmulateMediaOptions().setMedia(com.microsoft.playwright.options.Media.PRINT));
        assertThat(page.locator("main").isVisible()).isFalse();
        assertThat((String) page.evaluate("getComputedStyle(document.body, '::after').content"))
                .contains("does not let it be printed");
    }

    @Test
    void aDashboardComesInFromAFileAtHome() throws Exception {
        Page ana = page("ana");
        ana.navigate("/dashboards/" + dashboard + "/hand-over");
        var download = ana.waitForDownload(() -> ana.click("text=Take the dashboard along"));
        ana.navigate("/");
        ana.setInputFiles("#dashboard-file", download.path());
        ana.waitForSelector(".file-dataset");
        assertThat(ana.locator(".file-dataset .popup-words").first().textContent())
                .contains("by a guess");
        ana.fill("[aria-label='Its question']", "From a file?");
        ana.click(".sheet-dialog >> text=Bring it in");
        ana.waitForURL("**/compose");
        drawn(ana);
        waitForText(ana.locator(".figure-number"), "179");
    }

    @Test
    void homeFindsDashboardsByTitleDatasetOwnerAndWhoseTheyAre() throws Exception {
        long bertas = Samples.dashboard(sarnik.client("berta"), "Évora, of Berta?");
        Page ana = home("ana");
        ana.fill("#find", "evora berta");
        assertThat(ana.locator(".plan:visible").count()).isEqualTo(1);
        assertThat(ana.locator(".plan:visible").getAttribute("data-dashboard")).isEqualTo(String.valueOf(bertas));
        assertThat(ana.locator("#found").textContent()).isEqualTo("One dashboard.");
        ana.selectOption("#whose", "mine");
        assertThat(ana.locator(".plan:visible").count()).isZero();
        ana.fill("#find", "handed sales");
        assertThat(ana.locator(".plan[data-dashboard='" + dashboard + "']").isVisible())
                .isTrue();
        ana.fill("#find", "no such words anywhere");
        assertThat(ana.locator("#found").textContent()).isEqualTo("No dashboards.");
        assertThat(ana.locator("#dataset-rows tr:visible").count()).isZero();
    }

    @Test
    void whatIsTaggedMarkedAndSeenIsFoundAgainAtHome() throws Exception {
        // One alone need not be found.
        sarnik.client("ana").publish(Samples.dashboard(sarnik.client("ana"), "One more?"));
        Page ana = page("ana");
        ana.navigate("/dashboards/" + dashboard + "/hand-over");
        ana.fill("#own-tags", "zz board,  glaciers , zz board");
        ana.click("#keep-tags");
        ana.waitForCondition(() -> ana.inputValue("#own-tags").equals("glaciers, zz board"));
        Page rui = page("rui");
        rui.navigate("/dashboards/" + dashboard);
        drawn(rui);
        rui.navigate("/");
        String own = ".plan-place:has(.plan[data-dashboard='" + dashboard + "'])";
        assertThat(rui.textContent(own)).contains("glaciers · zz board").contains("seen ");
        rui.click("[data-tag=glaciers]");
        assertThat(rui.locator(".plan:visible").count()).isEqualTo(1);
        waitForText(rui.locator("#found"), "One dashboard.");
        rui.click("[data-tag=glaciers]");
        rui.fill("#find", "zz board towns");
        assertThat(rui.locator(".plan:visible").count())
                .as("by a tag and the title of one of its visuals")
                .isEqualTo(1);
        rui.fill("#find", "");
        rui.selectOption("#order", "seen");
        assertThat(rui.locator(".plan >> nth=0").getAttribute("data-dashboard")).isEqualTo(String.valueOf(dashboard));
        rui.click(own + " .plan-mark");
        rui.waitForSelector(own + " .plan-mark[aria-pressed=true]");
        rui.selectOption("#as", "table");
        rui.reload();
        assertThat(rui.inputValue("#order") + rui.inputValue("#as"))
                .as("as it was liked")
                .isEqualTo("seentable");
        rui.selectOption("#whose", "marked");
        assertThat(rui.locator(".plan:visible").count()).isEqualTo(1);
        assertThat(rui.locator(".plan-picture:visible, .plan > svg:visible").count())
                .isZero();
        rui.selectOption("#as", "pictures");
        rui.selectOption("#order", "changed");
        assertThat(ana.evaluate(
                        "fetch('/api/dashboards/" + dashboard + "/tags', {method: 'PUT', headers: {'Content-Type': "
                                + "'application/json', 'X-CSRF-TOKEN': "
                                + "document.querySelector('meta[name=_csrf]').content}, body: "
                                + "JSON.stringify(['x'.repeat(41)])}).then(a => a.json()).then(a => a.detail)"))
                .isEqualTo("A tag has at most 40 characters.");
    }
}
