package sarnik.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.assertj.core.api.InstanceOfAssertFactories;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.app.share.OneTimeLinks;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;

@ExtendWith(RunningSarnik.class)
@DisplayName("A picture on the command line")
class PictureCommandTest {

    @TempDir
    private Path folder;

    private record Said(int end, String text) {}

    private static Said run(RunningSarnik sarnik, String... words) {
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        int end = PictureCommand.run(
                sarnik.bean(OneTimeLinks.class),
                sarnik.base(),
                PictureCommand.Wanted.of(words),
                new PrintStream(said, true, StandardCharsets.UTF_8));
        return new Said(end, said.toString(StandardCharsets.UTF_8));
    }

    @Test
    void isAPdfOrAPngOfWhatReadersSee(RunningSarnik sarnik) throws Exception {
        long id = Samples.dashboard(sarnik.client("ana"), "Pictured at night?");
        Path pdf = folder.resolve("x.pdf");
        Said refused = run(sarnik, String.valueOf(id), "--out", pdf.toString());
        assertThat(refused.end()).isEqualTo(PictureCommand.NOT_WRITTEN);
        assertThat(refused.text()).contains("is not published");
        sarnik.client("ana").json("POST", "/api/dashboards/" + id + "/editions", java.util.Map.of());
        Said made = run(
                sarnik, "Pictured at night?", "--out", pdf.toString(), "--state", "f.f1=still", "--paper", "letter");
        assertThat(made.end()).as(made.text()).isZero();
        assertThat(papers(pdf))
                .hasSize(1)
                .first(InstanceOfAssertFactories.STRING)
                .matches("0 0 79[12]\\S* 61[12]\\S*");
        Path png = folder.resolve("x.png");
        assertThat(run(sarnik, String.valueOf(id), "--out", png.toString(), "--size", "900x600")
                        .end())
                .isZero();
        assertThat(ImageIO.read(png.toFile()).getWidth()).isEqualTo(900);
        assertThat(sarnik.client("ana").get("/api/dashboards/" + id + "/links").body())
                .as("its links are gone")
                .isEqualTo("[]");
        try (var files = Files.list(folder)) {
            assertThat(files).as("nothing else is left").containsExactlyInAnyOrder(pdf, png);
        }
    }

    /** What a PDF says of the size of its papers, in points. */
    private static List<String> papers(Path pdf) throws Exception {
        String text = Files.readString(pdf, StandardCharsets.ISO_8859_1);
        assertThat(text.substring(0, 4)).isEqualTo("%PDF");
        return Pattern.compile("/MediaBox \\[([^]]*)]")
                .matcher(text)
                .results()
                .map(found -> found.group(1))
                .toList();
    }

    /** A page of its own with a script, as the browser sees it. */
    private String page(String script) throws Exception {
        return Files.writeString(
                        folder.resolve("page.html"),
                        "<!doctype html><style>body { background: #f00 }</style><script>%s</script>".formatted(script))
                .toUri()
                .toString();
    }

    @Test
    @Timeout(60)
    void isMadeOnceAllIsThereHoweverLongThatTakes() throws Exception {
        try (HiddenBrowser browser = new HiddenBrowser(Duration.ofSeconds(50))) {
            browser.open(
                    page(
                            "window.there = new Promise(done => setTimeout(() => {"
                                    + " document.documentElement.innerHTML = '<body style=\"background: #00f\">'; done(); }, 700))"),
                    300,
                    200);
            browser.await("window.there");
            BufferedImage picture = ImageIO.read(new ByteArrayInputStream(browser.png()));
            assertThat(picture.getWidth()).isEqualTo(300);
            assertThat(picture.getHeight()).isEqualTo(200);
            assertThat(picture.getRGB(150, 100)).isEqualTo(Color.BLUE.getRGB());
        }
    }

    @Test
    @Timeout(60)
    void isNotMadeOfAPageThatIsRefusedOrNeverThere() throws Exception {
        try (HiddenBrowser browser = new HiddenBrowser(Duration.ofSeconds(50))) {
            browser.open(page(""), 300, 200);
            assertThatThrownBy(() -> browser.await("Promise.reject(new TypeError('it is not for you.'))"))
                    .hasMessage("the page could not be drawn: it is not for you.");
            assertThatThrownBy(() -> browser.await("nothing.there"))
                    .hasMessageStartingWith("the page could not be drawn: nothing is not defined");
            assertThatThrownBy(() -> browser.open("http://127.0.0.1:1/", 300, 200))
                    .hasMessageStartingWith("the page did not come: net::");
        }
        try (HiddenBrowser browser = new HiddenBrowser(Duration.ofSeconds(3))) {
            browser.open(page(""), 300, 200);
            assertThatThrownBy(() -> browser.await("new Promise(() => {})"))
                    .hasMessage("the page was not drawn within 3 seconds.");
        }
    }

    @Test
    void saysWhatIsAmissAndLeavesWhatIsThere(RunningSarnik sarnik) throws Exception {
        long id = Samples.dashboard(sarnik.client("ana"), "Pictured in vain?");
        sarnik.client("ana").publish(id);
        Path nowhere = folder.resolve("no/such/x.png");
        assertThat(run(sarnik, String.valueOf(id), "--out", nowhere.toString()).text())
                .contains("there is no folder " + nowhere.getParent());
        Path before = Files.writeString(folder.resolve("x.png"), "of last night");
        String browser = System.getProperty("sarnik.browser");
        System.setProperty("sarnik.browser", folder.resolve("none").toString());
        try {
            Said said = run(sarnik, String.valueOf(id), "--out", before.toString());
            assertThat(said.end()).isEqualTo(PictureCommand.NOT_WRITTEN);
            assertThat(said.text()).contains("the browser has ended");
        } finally {
            if (browser == null) System.clearProperty("sarnik.browser");
            else System.setProperty("sarnik.browser", browser);
        }
        assertThat(before).hasContent("of last night");
        try (var files = Files.list(folder)) {
            assertThat(files).containsExactly(before);
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "1",
                "1 --out x.doc",
                "--out x.pdf",
                "1 2 --out x.pdf",
                "1 --out",
                "1 --out x.pdf --paper A9",
                "1 --out x.pdf --size 9",
                "1 --out x.pdf --fly high"
            })
    void whatCannotBeReadIsSaid(String words) {
        assertThatThrownBy(() -> PictureCommand.Wanted.of(words.split(" ")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageEndingWith(".");
    }

    @Test
    void aStateOfAnySignsStandsInTheAddress() {
        assertThat(PictureCommand.Wanted.of("1", "--out", "x.pdf", "--state", "?product=agua fría&x=a%20b#no", "--all")
                        .address("http://h/shown/s"))
                .isEqualTo("http://h/shown/s?product=agua%20fr%C3%ADa&x=a%20b%23no#print.A4.all");
    }
}
