package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.carried.Packages;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.standins.RemoteTable;

@DisplayName("A dashboard that was carried away")
class PackagePagesTest extends BrowserTest {

    private static long dashboard;

    @BeforeEach
    void aPublishedDashboard() throws Exception {
        if (dashboard != 0) return;
        dashboard = Samples.dashboard(sarnik.client("ana"), "Carried to a reader?");
        sarnik.client("ana").publish(dashboard);
    }

    private static Path unpacked(Path zip) throws IOException {
        Path folder = Files.createTempDirectory("sarnik-carried");
        try (InputStream file = Files.newInputStream(zip);
                ZipInputStream in = new ZipInputStream(file)) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                Path to = folder.resolve(entry.getName());
                Files.createDirectories(to.getParent());
                Files.write(to, in.readAllBytes());
            }
        }
        return folder;
    }

    /** What its reader does, wherever it stands: the figures follow as they do on the server. */
    private static void readIt(Page page) {
        Locator figure = page.locator(".figure-number");
        waitForText(figure, "179");
        page.click(".bar[data-key] >> nth=0");
        waitForText(figure, "100");
        assertThat(page.url()).contains("p.v3=");
        page.reload();
        waitForText(page.locator(".figure-number"), "100");
        page.click(".bar[data-key] >> nth=0");
        waitForText(figure, "179");
        page.click("#mood");
        assertThat(page.evaluate("document.documentElement.dataset.mood")).isEqualTo("night");
    }

    @Test
    void itsAuthorSeesWhatItHoldsAndAReaderOpensItFromADiskOrAnyServerWithoutAskingAnybody() throws Exception {
        Page author = page("ana");
        author.navigate("/dashboards/" + dashboard + "/hand-over");
        author.click("text=See what it would hold");
        waitForText(author.locator("#package"), "6 rows");
        waitForText(author.locator("#package"), "Not taken along, since nothing shows it");
        Download taken = author.waitForDownload(() -> author.click("text=Take the package along"));
        Path folder = unpacked(taken.path());
        List<String> asked = new ArrayList<>();
        Page page = stranger(1280, 800);
        page.onRequest(request -> {
            if (!request.url().startsWith("file:")
                    && !request.url().startsWith("blob:")
                    && !request.url().startsWith("data:")) asked.add(request.url());
        });
        page.navigate("file://" + folder.resolve("index.html"));
        readIt(page);
        assertThat(asked).isEmpty();
        try (RemoteTable site = RemoteTable.start(0, () -> 1, folder)) {
            String origin = "http://127.0.0.1:" + site.port();
            Page phone = stranger(390, 844);
            phone.onRequest(request -> {
                if (request.url().startsWith("http") && !request.url().startsWith(origin)) asked.add(request.url());
            });
            phone.navigate(origin + "/files/");
            readIt(phone);
            assertThat(asked).isEmpty();
            // Newer data come as one file, beside pages that stay.
            long dataset = sarnik.client("ana")
                    .read(sarnik.client("ana").get("/api/dashboards/" + dashboard))
                    .at("/document/visuals/v2/dataset")
                    .asLong();
            newer(dataset);
            Files.write(folder.resolve("data.js"), sarnik.bean(Packages.class).data(dashboard));
            phone.navigate(origin + "/files/");
            waitForText(phone.locator(".figure-number"), "189");
        }
    }

    private void newer(long dataset) throws Exception {
        var ana = sarnik.client("ana");
        Path file =
                RunningSarnik.file("newer.csv", Samples.SALES.replace("2026-01-01,still,10", "2026-01-01,still,20"));
        String id = ana.read(ana.upload(file, "newer.csv", "?dataset=" + dataset))
                .get("id")
                .asString();
        ana.read(ana.send("POST", "/api/bring/" + id + "/serve", "application/json", ""));
    }
}
