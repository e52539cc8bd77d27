package sarnik.bench;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import sarnik.demo.SarnikBrowser;

/** Makes the pictures of the main views from the demo. Usage: {@code Shots ADDRESS DIRECTORY}. */
public final class Shots {

    private final Path directory;

    private Shots(Path directory) {
        this.directory = directory;
    }

    public static void main(String[] arguments) throws IOException {
        Path directory = Path.of(arguments[1]);
        Files.createDirectories(directory);
        try (SarnikBrowser browser = new SarnikBrowser()) {
            new Shots(directory).take(browser, arguments[0]);
        }
    }

    private void take(SarnikBrowser browser, String base) {
        Page page = browser.signedIn(base, "ana", "aljibe-ana1", 1280, 800);
        shot(page, "home");
        page.navigate("/bring");
        page.setInputFiles(
                "#file",
                Path.of(System.getProperty("demo.files", ".sarnik/demo/files")).resolve("complaints.csv"));
        page.waitForURL("**/bring/*");
        page.waitForSelector("#placing-map .map-view[data-places]");
        shot(page, "bring-in");
        page.navigate("/datasets/1/placing");
        page.waitForSelector("#words li");
        shot(page, "placing-sheet");
        page.navigate("/datasets/3");
        page.waitForSelector("#row-table td");
        shot(page, "dataset");
        page.navigate("/dashboards/1");
        SarnikBrowser.drawn(page);
        String sheet = page.url();
        shot(page, "read");
        page.click(".bar >> nth=1");
        page.waitForSelector(".showing b");
        page.hover("[data-visual=v1]");
        page.click("[data-visual=v2] [title='Which rows are these?']", new Page.ClickOptions().setForce(true));
        shot(page, "row-trail");
        page.navigate(sheet + "/compose");
        SarnikBrowser.drawn(page);
        page.click("[data-visual=v1] .visual-title");
        page.waitForSelector(".dock .slot[aria-label^='kind of layer']");
        shot(page, "compose");
        page.click(".dock >> text=Add something else");
        page.click("text=Which are the most?");
        page.waitForSelector(".proposal");
        shot(page, "compose-add");
        for (String[] map : new String[][] {{"2", "map-areas"}, {"3", "map-flows"}, {"6", "map-together"}}) {
            page.navigate("/dashboards/" + map[0]);
            SarnikBrowser.drawn(page);
            page.waitForFunction("() => document.querySelector('.map-view').dataset.shaped > 0");
            page.waitForTimeout(900);
            shot(page, map[1]);
        }
        page.navigate("/dashboards/9");
        SarnikBrowser.drawn(page);
        shot(page, "kinds-change");
        page.click(".page-title >> text=The report");
        page.waitForSelector("[data-visual=v7] table");
        page.waitForTimeout(600);
        shot(page, "pages");
        page.navigate("/dashboards/10");
        SarnikBrowser.drawn(page);
        shot(page, "kinds-together");
        page.navigate("/dashboards/11");
        SarnikBrowser.drawn(page);
        page.locator("[data-visual=v2] .line-opener").nth(6).click();
        page.locator("[data-visual=v2] .line-words").nth(6).click();
        page.waitForSelector(".showing b");
        page.waitForTimeout(600);
        shot(page, "kinds-list");
        page.navigate("/dashboards/12");
        SarnikBrowser.drawn(page);
        shot(page, "kinds-hours");
        page.navigate("/dashboards/2/compose");
        SarnikBrowser.drawn(page);
        page.click("[data-visual=v1] .visual-title");
        page.click(".dock .slot[aria-label^='breaks and ends']");
        page.waitForTimeout(600);
        shot(page, "compose-scale");
        Page phone = browser.signedIn(base, "rui", "aljibe-rui1", 390, 844);
        phone.navigate(sheet);
        SarnikBrowser.drawn(phone);
        phone.screenshot(new Page.ScreenshotOptions().setPath(directory.resolve("read-phone.png")));
        page.navigate(sheet);
        SarnikBrowser.drawn(page);
        page.click("#mood");
        shot(page, "read-night");
        System.out.println("  pictures of " + base + " are in " + directory);
    }

    private void shot(Page page, String name) {
        page.waitForTimeout(500);
        page.screenshot(new Page.ScreenshotOptions().setPath(directory.resolve(name + ".png")));
        System.out.println("  " + name);
    }
}
