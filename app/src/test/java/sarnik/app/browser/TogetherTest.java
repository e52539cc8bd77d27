package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;

@DisplayName("Several people at once")
class TogetherTest extends BrowserTest {

    private static void title(Page author, String title) {
        author.click("[data-visual=v2] .visual-title");
        author.waitForSelector(".dock .slot");
        // Where it stands in a chapter that is folded, that is opened.
        Locator slot = author.locator(".dock .slot[aria-label^='title']").first();
        if (!slot.isVisible()) author.click("text=Finish");
        slot.click();
        author.fill(".popup input", title);
        author.keyboard().press("Enter");
    }

    private static Locator title(Page page) {
        return page.locator("[data-visual=v2] .visual-title");
    }

    /** An author goes on while a reader and a stranger look; they see what was published, each as far as they may. */
    @Test
    void anAuthorPublishesWhileAReaderAndAStrangerLook() throws Exception {
        long dashboard = Samples.dashboard(sarnik.client("ana"), "Seen by three?");
        Page reader = page("rui");
        reader.navigate("/dashboards/" + dashboard);
        reader.waitForSelector("text=Go home");

        Page author = page("ana");
        author.navigate("/dashboards/" + dashboard + "/hand-over");
        author.click("text=Publish this version as edition 1");
        author.waitForSelector("text=Publish this version as edition 2");
        sarnik.client("ana")
                .json(
                        "PUT",
                        "/api/dashboards/" + dashboard + "/grants",
                        Map.of("who", Map.of("kind", "EVERYBODY"), "may", "READ"));
        String link = sarnik.client("ana")
                .json(
                        "POST",
                        "/api/dashboards/" + dashboard + "/links",
                        Map.of("name", "For three", "opensTo", "ANYONE"))
                .get("path")
                .asString();
        reader.reload();
        drawn(reader);
        Page stranger = stranger(390, 844);
        stranger.navigate(link);
        drawn(stranger);
        stranger.click(".bar[data-key] >> nth=0");
        waitForText(stranger.locator(".figure-number"), "100");

        author.navigate("/dashboards/" + dashboard + "/compose");
        drawn(author);
        title(author, "Litres of water");
        waitForText(title(author), "Litres of water");
        reader.reload();
        drawn(reader);
        assertThat(title(reader).textContent()).contains("Litres").doesNotContain("of water");
        // Whoever picks while the draft changes goes on as before.
        stranger.click(".bar[data-key] >> nth=1");
        assertThat(title(stranger).textContent()).doesNotContain("of water");

        author.navigate("/dashboards/" + dashboard + "/hand-over");
        author.waitForSelector("text=Changed in the draft since");
        author.click("text=Publish this version as edition 2");
        author.waitForSelector("text=Publish this version as edition 3");
        for (Page page : new Page[] {reader, stranger}) {
            page.reload();
            drawn(page);
            waitForText(title(page), "Litres of water");
        }

        author.click("text=Take it back from readers");
        author.waitForSelector("text=Nothing yet");
        reader.reload();
        reader.waitForSelector("text=Go home");
        stranger.click(".bar[data-key] >> nth=0");
        stranger.locator(".said").waitFor();
        assertThat(title(stranger).textContent()).as("what is shown stands").contains("Litres of water");
    }

    /** Whoever is closed out while composing is told so, what was kept is there, and what was typed is not lost. */
    @Test
    void aPersonIsClosedWhileComposing() throws Exception {
        long id = sarnik.bean(PeopleService.class)
                .add("pilar", "Pilar", RunningSarnik.PASSWORD, Role.ANALYST)
                .getId();
        long dashboard = Samples.dashboard(sarnik.client("pilar"), "Half composed?");
        Page pilar = page("pilar");
        pilar.navigate("/dashboards/" + dashboard + "/compose");
        drawn(pilar);
        title(pilar, "Kept");
        waitForText(title(pilar), "Kept");
        Page marta = page("marta");
        marta.navigate("/people");
        marta.locator("details", new Page.LocatorOptions().setHasText("signs in as pilar"))
                .locator("summary")
                .click();
        marta.click("form[action$='/people/" + id + "'] >> text=Close");
        marta.waitForSelector("text=Pilar");
        title(pilar, "Not kept yet");
        waitForText(pilar.locator(".said"), "You are signed out");
        // In vain while she is closed out; once she is let in again and has signed in on another page it is made.
        pilar.click("text=Make my change now");
        waitForText(pilar.locator(".said"), "You are signed out");
        marta.locator("details", new Page.LocatorOptions().setHasText("signs in as pilar"))
                .locator("summary")
                .click();
        marta.click("form[action$='/people/" + id + "'] >> text=Let in again");
        marta.waitForSelector("text=can sign in again");
        Page again = pilar.context().newPage();
        again.navigate(sarnik.base() + "/sign-in");
        again.fill("[name=username]", "pilar");
        again.fill("[name=password]", RunningSarnik.PASSWORD);
        again.click("main button[type=submit]");
        again.waitForURL(address -> !address.contains("/sign-in"));
        pilar.click("text=Make my change now");
        waitForText(title(pilar), "Not kept yet");
        pilar.reload();
        drawn(pilar);
        waitForText(title(pilar), "Not kept yet");
    }
}
