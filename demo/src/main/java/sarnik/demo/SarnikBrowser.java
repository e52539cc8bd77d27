package sarnik.demo;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;

/** A headless Chromium (Debian's) that opens a running Sarnik; for tests, measurements and pictures. */
public final class SarnikBrowser implements AutoCloseable {

    /** The first is a quarter of the work for each page: it has no windows of its own to draw. */
    private static final List<Path> CHROMIUM =
            List.of(Path.of("/usr/lib/chromium/chromium-headless-shell"), Path.of("/usr/lib/chromium/chromium"));

    private static final List<String> FLAGS = List.of(
            "--no-sandbox",
            "--font-render-hinting=none",
            "--disable-gpu",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--no-first-run",
            "--disable-quic",
            "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost");

    private final Playwright playwright;
    private final Browser browser;
    private final List<String> troubles = new ArrayList<>();

    public SarnikBrowser() {
        // What is missing is said before anything is started that would then run on.
        Path chromium = chromium();
        System.setProperty("playwright.nodejs.path", node().toString());
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(chromium)
                        .setArgs(FLAGS));
    }

    private static Path chromium() {
        return CHROMIUM.stream()
                .filter(Files::isExecutable)
                .findFirst()
                .orElseThrow(() -> new IllegalStateException("There is none of " + CHROMIUM));
    }

    /** The first Node on the path: ./sarnik puts the project's own there. */
    private static Path node() {
        return Arrays.stream(System.getenv("PATH").split(File.pathSeparator))
                .map(folder -> Path.of(folder, "node"))
                .filter(Files::isExecutable)
                .findFirst()
                .orElseThrow(() -> new IllegalStateException(
                        "Node is not on the path. Start through ./sarnik, which puts it there."));
    }

    /**
     * A page of its own session, signed in and at home.
     *
     * @param base address of the server
     * @param width pixels
     * @param height pixels
     */
    public Page signedIn(String base, String name, String password, int width, int height) {
        return signedIn(base, name, password, new Browser.NewContextOptions().setViewportSize(width, height));
    }

    /** The same with other options, such as for a page into which a test puts a script of its own. */
    public Page signedIn(String base, String name, String password, Browser.NewContextOptions options) {
        Page page = stranger(options.setBaseURL(base));
        page.navigate("/sign-in");
        page.fill("[name=username]", name);
        page.fill("[name=password]", password);
        page.click("button[type=submit]");
        page.waitForURL(url -> !url.endsWith("/sign-in"));
        return page;
    }

    /** A page of somebody who has not signed in. */
    public Page stranger(Browser.NewContextOptions options) {
        Page page = browser.newContext(options).newPage();
        // Long, because a busy machine may be slow; nothing waits longer than it has to.
        page.setDefaultTimeout(45_000);
        page.onPageError(error -> troubles.add("a script failed: " + error));
        page.onConsoleMessage(message -> {
            // A refused request is an answer like any other; what a page makes of it is looked at where it matters.
            if (message.type().equals("error") && !message.text().startsWith("Failed to load resource"))
                troubles.add(message.text());
        });
        page.onDialog(dialog -> {
            troubles.add("a dialog opened: " + dialog.message());
            dialog.dismiss();
        });
        return page;
    }

    /** Waits until the sheet of a page has drawn all it was asked for. */
    public static void drawn(Page page) {
        page.waitForSelector("#sheet[data-drawn]");
        page.waitForCondition(() -> page.locator(".visual.is-asking").count() == 0);
    }

    /** Script errors, breaches of the content policy and dialogs since this was last asked. */
    public List<String> troubles() {
        List<String> seen = List.copyOf(troubles);
        troubles.clear();
        return seen;
    }

    /** Closes all pages, with whatever they still ask and draw. */
    public void closePages() {
        List.copyOf(browser.contexts()).forEach(BrowserContext::close);
    }

    @Override
    public void close() {
        browser.close();
        playwright.close();
    }
}
