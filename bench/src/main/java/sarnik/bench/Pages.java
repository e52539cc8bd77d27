package sarnik.bench;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** A headless Chromium that is signed in to a running Sarnik. */
final class Pages implements AutoCloseable {

    private static final Path CHROMIUM = Path.of("/usr/lib/chromium/chromium");
    private static final List<String> FLAGS = List.of("--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update",
            "--disable-sync", "--no-first-run", "--disable-quic", "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost");

    private final String base;
    private final Playwright playwright;
    private final Browser browser;

    /**
     * @param base address of the server
     */
    Pages(String base) {
        this.base = base;
        System.setProperty("playwright.nodejs.path", "/usr/bin/node");
        playwright = Playwright.create(new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright.chromium().launch(new BrowserType.LaunchOptions().setExecutablePath(CHROMIUM).setArgs(FLAGS));
    }

    /** A page of this size, signed in. */
    Page signedIn(String name, String password, int width, int height) {
        BrowserContext context = browser.newContext(new Browser.NewContextOptions().setBaseURL(base).setViewportSize(width, height));
        Page page = context.newPage();
        page.onPageError(error -> System.err.println("  page error: " + error));
        page.navigate("/sign-in");
        page.fill("[name=username]", name);
        page.fill("[name=password]", password);
        page.click("button[type=submit]");
        return page;
    }

    @Override
    public void close() {
        browser.close();
        playwright.close();
    }
}
