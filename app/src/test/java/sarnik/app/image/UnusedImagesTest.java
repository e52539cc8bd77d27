package sarnik.app.image;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.time.Duration;
import java.time.Instant;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.MapSamples;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;

@ExtendWith(RunningSarnik.class)
@DisplayName("Pictures that no dashboard shows")
class UnusedImagesTest {

    private static String kept(Images images, int colour) throws Exception {
        BufferedImage image = new BufferedImage(8, 8, BufferedImage.TYPE_INT_RGB);
        image.setRGB(1, 1, colour);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        Reencoded made = Reencoded.of(out.toByteArray());
        images.keep(made, 1);
        return made.name();
    }

    @Test
    void areClearedAfterAWhileUnlessAnUndoCouldBringThemBack(RunningSarnik sarnik) throws Exception {
        Images images = sarnik.bean(Images.class);
        String never = kept(images, 0xaa0011);
        String shown = kept(images, 0xaa0022);
        String takenAway = kept(images, 0xaa0033);
        SarnikClient ana = sarnik.client("ana");
        String picture = "\"%s\": {\"type\": \"picture\", \"page\": \"p1\", \"title\": \"\", \"shows\": \"a kiosk\", "
                + "\"at\": {\"x\": %d, \"y\": 0, \"w\": 6, \"h\": 6}, \"image\": \"%s\"}";
        long dashboard = new MapSamples(ana)
                .dashboard(
                        "Pictures", picture.formatted("v1", 0, shown) + ", " + picture.formatted("v2", 6, takenAway));
        long revision = ana.json("GET", "/api/dashboards/" + dashboard, null)
                .get("revision")
                .asLong();
        assertThat(ana.send(
                                "PATCH",
                                "/api/dashboards/" + dashboard,
                                Samples.JSON_PATCH,
                                "[{\"op\": \"remove\", \"path\": \"/visuals/v2\"}]",
                                "If-Match",
                                "\"" + revision + "\"")
                        .statusCode())
                .isEqualTo(200);

        images.clearUnused(Instant.now().minus(Duration.ofHours(1)));
        assertThat(images.find(never)).as("one that was just uploaded").isPresent();

        images.clearUnused(Instant.now().plusSeconds(1));
        assertThat(images.find(never)).isEmpty();
        assertThat(images.find(shown)).isPresent();
        assertThat(images.find(takenAway)).isPresent();
    }
}
