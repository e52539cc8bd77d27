package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.Cookie;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;
import sarnik.demo.SarnikDevice;

/** What tests of the interface share: a browser, people who are signed in, and no tolerance for script errors. */
@ExtendWith(RunningSarnik.class)
abstract class BrowserTest {

    private static SarnikBrowser browser;
    RunningSarnik sarnik;

    @BeforeAll
    static void openBrowser() {
        browser = new SarnikBrowser();
    }

    @AfterAll
    static void closeBrowser() {
        browser.close();
    }

    @BeforeEach
    void keep(RunningSarnik running) {
        sarnik = running;
    }

    @AfterEach
    void noScriptFailedAndNoPolicyWasBroken() {
        List<String> troubles = browser.troubles();
        browser.closePages();
        assertThat(troubles).isEmpty();
    }

    /** A page of somebody who has signed in; it shows nothing yet. */
    Page page(String name) {
        return signedIn(sarnik.forPages(name), new Browser.NewContextOptions().setViewportSize(1280, 800));
    }

    /** A page of somebody who has just signed in by its form, which leads home. */
    Page home(String name) {
        return browser.signedIn(sarnik.base(), name, RunningSarnik.PASSWORD, 1280, 800);
    }

    /** Signed in without the form, by the session of another client. */
    private Page signedIn(SarnikClient client, Browser.NewContextOptions options) {
        Page page = browser.stranger(options.setBaseURL(sarnik.base()));
        String[] session = client.cookies().split("=", 2);
        page.context().addCookies(List.of(new Cookie(session[0], session[1]).setUrl(sarnik.base())));
        return page;
    }

    /** A page with a session of its own, into which a test can put a script of its own, which the content policy would not let in. */
    Page withoutPolicy(String name, int width, int height) {
        return signedIn(
                sarnik.signedIn(name),
                new Browser.NewContextOptions().setViewportSize(width, height).setBypassCSP(true));
    }

    /** A page of somebody who has not signed in. */
    Page stranger(int width, int height) {
        return browser.stranger(
                new Browser.NewContextOptions().setViewportSize(width, height).setBaseURL(sarnik.base()));
    }

    /** A page of somebody who has not signed in, whose browser asks for a language. */
    Page stranger(String locale) {
        return browser.stranger(new Browser.NewContextOptions()
                .setViewportSize(1280, 800)
                .setBaseURL(sarnik.base())
                .setLocale(locale));
    }

    /** A page of somebody who has just signed in with a browser that asks for a language. */
    Page page(String name, String locale) {
        return browser.signedIn(
                sarnik.base(),
                name,
                RunningSarnik.PASSWORD,
                new Browser.NewContextOptions().setViewportSize(1280, 800).setLocale(locale));
    }

    /** What went wrong on purpose is looked at by the test itself. */
    static List<String> troubles() {
        return browser.troubles();
    }

    Page phone(String name) {
        return signedIn(sarnik.forPages(name), new Browser.NewContextOptions().setViewportSize(390, 844));
    }

    Page sheet(String name, long dashboard, String rest) {
        Page page = page(name);
        page.navigate("/dashboards/" + dashboard + rest);
        SarnikBrowser.drawn(page);
        return page;
    }

    static void drawn(Page page) {
        SarnikBrowser.drawn(page);
    }

    /** Where a place lies on the screen, by degrees east and north. */
    static double[] onScreen(Page page, double lon, double lat) {
        List<?> pixel = (List<?>) page.evaluate("""
                ([lon, lat]) => {
                  const view = document.querySelector('.visual-map .map-view');
                  const r = 20037508.342789244 / 180;
                  const [x, y] = view.olMap.getPixelFromCoordinate([lon * r, Math.log(Math.tan((90 + lat) * Math.PI / 360)) * 180 / Math.PI * r]);
                  const box = view.getBoundingClientRect();
                  return [box.left + 1 + x, box.top + 1 + y];
                }""", List.of(lon, lat));
        return new double[] {((Number) pixel.get(0)).doubleValue(), ((Number) pixel.get(1)).doubleValue()};
    }

    /** Sends a message to a feed, as a device does. @return the status that is answered */
    int send(long feed, String token, String body) throws Exception {
        return new SarnikDevice(sarnik.base()).send(feed, token, body).statusCode();
    }

    /** Says something of a feed, such as its shape. @return what is answered */
    static String put(SarnikClient author, long feed, String what, String body) throws Exception {
        long revision =
                author.read(author.get("/api/feeds/" + feed)).get("revision").asLong();
        return author.send(
                        "PUT", "/api/feeds/" + feed + "/" + what, "application/json", body, "If-Match", "" + revision)
                .body();
    }

    /** Waits until a figure reads so. */
    static void waitForText(Locator locator, String text) {
        locator.filter(new Locator.FilterOptions().setHasText(text)).waitFor();
    }

    /** Looks again and again until something holds. */
    static void waitUntil(java.util.concurrent.Callable<Boolean> holds) throws Exception {
        long end = System.currentTimeMillis() + 30_000;
        while (!holds.call()) {
            assertThat(System.currentTimeMillis()).as("it does not come about").isLessThan(end);
            Thread.sleep(50);
        }
    }

    static BoundingBox box(Locator locator) {
        return locator.boundingBox();
    }
}
