package sarnik.bench;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javax.imageio.ImageIO;
import sarnik.demo.SarnikBrowser;

/** Makes the pictures of the main views from the demo. Usage: {@code Shots ADDRESS DIRECTORY}. */
public final class Shots {

    /** Of one theme in the picture of all, in pixels. */
    private static final int WIDE = 480;

    private static final int HIGH = 330;

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
        page.waitForFunction("() => document.querySelectorAll('.plan-picture').length >= 8");
        page.waitForTimeout(1500);
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
        for (String[] map : new String[][] {{"2?week=2025-W30", "map-areas"}, {"17", "more-than-chance"}}) {
            page.navigate("/dashboards/" + map[0]);
            SarnikBrowser.drawn(page);
            page.waitForFunction("() => document.querySelector('.map-view').dataset.shaped > 0");
            page.waitForTimeout(900);
            shot(page, map[1]);
        }
        for (String[] live : new String[][] {{"15", "probe-watch"}, {"16", "vans-today"}}) {
            page.navigate("/dashboards/" + live[0]);
            SarnikBrowser.drawn(page);
            page.waitForSelector("#live-sign >> text=Live");
            page.waitForTimeout(1500);
            if (live[1].equals("probe-watch")) {
                // The page of the probe that has been amiss for longest slides in.
                page.click("[data-visual=v4] [data-key] >> nth=0");
                page.frameLocator(".aside-frame")
                        .locator(".figure-number >> nth=0")
                        .waitFor();
                page.waitForTimeout(1500);
            }
            shot(page, live[1]);
            page.keyboard().press("Escape");
        }
        difference(page);
        page.navigate("/dashboards/9");
        SarnikBrowser.drawn(page);
        page.click(".page-title >> text=The report");
        page.waitForSelector("[data-visual=v7] table");
        page.waitForTimeout(600);
        shot(page, "pages");
        page.navigate("/dashboards/1/compose");
        SarnikBrowser.drawn(page);
        page.fill(".sentence-field", "map of takings, only where product is still");
        page.waitForSelector(".sentence-said .mini svg");
        page.keyboard().press("Escape");
        shot(page, "compose-sentence");
        page.navigate("/dashboards/14/wiring");
        page.locator(".wired-filter").first().click();
        shot(page, "wiring");
        page.navigate("/dashboards/1/hand-over");
        page.waitForSelector("[data-ready]");
        page.click("text=Make a link");
        page.evaluate("document.getElementById('grants-title').scrollIntoView()");
        shot(page, "hand-over");
        framed(browser, base);
        themes(page);
        Page phone = browser.signedIn(base, "rui", "aljibe-rui1", 390, 844);
        phone.navigate(sheet);
        SarnikBrowser.drawn(phone);
        phone.screenshot(new Page.ScreenshotOptions().setPath(directory.resolve("read-phone.png")));
        System.out.println("  pictures of " + base + " are in " + directory);
    }

    /** A dashboard within a page of another site, as somebody sees it who has not signed in. */
    private void framed(SarnikBrowser browser, String base) {
        try {
            String links = Files.readString(Path.of(System.getProperty("demo.files", ".sarnik/demo/files"))
                    .resolve("links.txt"));
            String news = links.lines()
                    .filter(line -> line.startsWith("in a newspaper"))
                    .findFirst()
                    .orElseThrow()
                    .replaceFirst("in a newspaper\\s+", "")
                    .replace("@encoded", URLEncoder.encode(base, StandardCharsets.UTF_8));
            Page page = browser.stranger(new Browser.NewContextOptions().setViewportSize(1280, 900));
            page.navigate(news);
            page.waitForFunction("() => document.getElementById('sheet').clientHeight > 400");
            page.waitForTimeout(2500);
            shot(page, "framed");
        } catch (IOException gone) {
            throw new UncheckedIOException(gone);
        }
    }

    /** The five themes by day, and below each by night, as one picture. */
    private void themes(Page page) {
        page.navigate("/dashboards/12");
        SarnikBrowser.drawn(page);
        String[] themes = {"field", "tide", "ledger", "slate", "kiln"};
        BufferedImage all = new BufferedImage(WIDE * themes.length, HIGH * 2, BufferedImage.TYPE_INT_RGB);
        Graphics2D onto = all.createGraphics();
        onto.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        for (int i = 0; i < themes.length; i++)
            for (int night = 0; night < 2; night++) {
                page.evaluate(
                        "([theme, mood]) => { Object.assign(document.documentElement.dataset, { theme, mood });"
                                + " document.dispatchEvent(new CustomEvent('mood')); }",
                        List.of(themes[i], night == 1 ? "night" : "day"));
                page.waitForTimeout(400);
                try {
                    BufferedImage one = ImageIO.read(new ByteArrayInputStream(
                            page.screenshot(new Page.ScreenshotOptions().setClip(0, 44, 2 * WIDE, 2 * HIGH))));
                    onto.drawImage(one, i * WIDE, night * HIGH, WIDE, HIGH, null);
                } catch (IOException broken) {
                    throw new UncheckedIOException(broken);
                }
            }
        onto.dispose();
        try {
            ImageIO.write(all, "png", directory.resolve("themes.png").toFile());
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
        System.out.println("  themes");
    }

    /** What makes the difference of the places in a frame that is drawn on the map. */
    private void difference(Page page) {
        page.navigate("/dashboards/17");
        SarnikBrowser.drawn(page);
        page.click("text=What makes the difference?");
        page.waitForFunction("() => document.querySelector('[data-visual=v10] .map-view')?.dataset.shaped > 0");
        page.waitForTimeout(900);
        BoundingBox map = page.locator("[data-visual=v10] .map-view").boundingBox();
        page.keyboard().down("Alt");
        page.mouse().move(map.x + map.width * 0.68, map.y + map.height * 0.38);
        page.mouse().down();
        page.mouse().move(map.x + map.width * 0.85, map.y + map.height * 0.64);
        page.mouse().up();
        page.keyboard().up("Alt");
        page.waitForSelector("[data-visual=v11] .parting-line");
        page.waitForTimeout(600);
        shot(page, "difference");
    }

    private void shot(Page page, String name) {
        page.waitForTimeout(500);
        page.screenshot(new Page.ScreenshotOptions().setPath(directory.resolve(name + ".png")));
        System.out.println("  " + name);
    }
}
