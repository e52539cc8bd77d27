package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@DisplayName("Versions")
class VersionPagesTest extends BrowserTest {

    private static void edit(SarnikClient ana, long dashboard, String patch) throws Exception {
        JsonNode now = ana.read(ana.get("/api/dashboards/" + dashboard));
        ana.read(ana.send(
                "PATCH",
                "/api/dashboards/" + dashboard,
                Samples.JSON_PATCH,
                patch,
                "If-Match",
                "\"" + now.get("revision").asLong() + "\""));
    }

    @Test
    void ofADraftAreNamedComparedAndBroughtBack() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "How was it before?");
        long first = ana.read(ana.get("/api/dashboards/" + dashboard))
                .get("revision")
                .asLong();
        edit(ana, dashboard, "[{\"op\":\"replace\",\"path\":\"/visuals/v2/title\",\"value\":\"All litres\"}]");
        edit(
                ana,
                dashboard,
                "[{\"op\":\"remove\",\"path\":\"/visuals/v3\"},{\"op\":\"remove\",\"path\":\"/links/k3\"}]");
        Page page = page("ana");
        page.navigate("/dashboards/" + dashboard + "/versions");
        page.waitForSelector("[data-ready=true]");
        assertThat(page.locator("#versions li").count()).isEqualTo(3);
        String old = "#versions [data-revision='" + first + "']";
        page.fill(old + " input", "With bars");
        page.press(old + " input", "Tab");
        waitForText(page.locator("#from"), "With bars");
        page.selectOption("#from", String.valueOf(first));
        page.click("#compare");
        waitForText(page.locator("#differences"), "“Towns”");
        page.click("#beside");
        page.frameLocator(".versions-beside figure:nth-child(1) iframe")
                .locator(".bar[data-key]")
                .first()
                .waitFor();
        page.frameLocator(".versions-beside figure:nth-child(2) iframe")
                .locator("text=All litres")
                .first()
                .waitFor();
        page.check("#named");
        page.waitForCondition(() -> page.locator("#versions li").count() == 1);
        page.click(old + " >> text=Bring it back");
        waitForText(page.locator("body"), "The draft is as version");
        JsonNode now = ana.read(ana.get("/api/dashboards/" + dashboard));
        assertThat(now.at("/document/visuals").has("v3")).isTrue();
        assertThat(now.at("/document/visuals/v2/title").asString()).isEqualTo("Litres");
        assertThat(now.get("undo").asString()).as("it can be undone").isNotEmpty();
        assertThat(ana.send(
                                "POST",
                                "/api/dashboards/" + dashboard + "/versions/" + first + "/back",
                                "application/json",
                                "")
                        .body())
                .contains("The draft is as it was then");
        assertThat(sarnik.client("rui")
                        .get("/api/dashboards/" + dashboard + "/versions")
                        .statusCode())
                .isIn(403, 404);
    }

    @Test
    void ofDatasetsAreForgottenAsAStewardSays() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dataset = ana.bring(Samples.sales(), "Kept versions");
        Page marta = home("marta");
        try {
            marta.fill("[name=versions]", "2");
            marta.click("text=Keep so many");
            waitForText(marta.locator(".sentence-good"), "Kept.");
            for (int n = 1; n < 5; n++) {
                String csv = Samples.SALES.replace("still,10", "still," + (10 + n));
                String id = ana.read(ana.upload(RunningSarnik.file("s.csv", csv), "s.csv", "?dataset=" + dataset))
                        .get("id")
                        .asString();
                ana.read(ana.send("POST", "/api/bring/" + id + "/serve", "application/json", ""));
            }
            Page author = page("ana");
            author.navigate("/datasets/" + dataset);
            assertThat(author.locator("#versions tbody tr").count()).isEqualTo(2);
        } finally {
            marta.navigate("/");
            marta.fill("[name=versions]", "12");
            marta.click("text=Keep so many");
            waitForText(marta.locator(".sentence-good"), "Kept.");
        }
        assertThat(sarnik.client("ana")
                        .send("POST", "/datasets/kept", "application/x-www-form-urlencoded", "versions=3")
                        .statusCode())
                .isEqualTo(403);
    }
}
