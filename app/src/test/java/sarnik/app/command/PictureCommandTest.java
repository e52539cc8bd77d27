package sarnik.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
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
        assertThat(Files.readString(pdf, StandardCharsets.ISO_8859_1))
                .startsWith("%PDF")
                .containsPattern("/MediaBox \\[0 0 79[12]\\S* 61[12]");
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
