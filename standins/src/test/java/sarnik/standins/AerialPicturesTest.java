package sarnik.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AerialPicturesTest {

    @Test
    void aTileIsTheSameEachTimeAndGoesOnInItsNeighbour() throws IOException {
        byte[] once = AerialPictures.picture(9, 250, 190);
        assertThat(AerialPictures.picture(9, 250, 190)).isEqualTo(once);
        BufferedImage left = ImageIO.read(new ByteArrayInputStream(once));
        BufferedImage right = ImageIO.read(new ByteArrayInputStream(AerialPictures.picture(9, 251, 190)));
        assertThat(left.getWidth()).isEqualTo(256);
        int jumps = 0;
        for (int y = 0; y < 256; y++)
            if (Math.abs((left.getRGB(255, y) >> 8 & 255) - (right.getRGB(0, y) >> 8 & 255)) > 40) jumps++;
        assertThat(jumps).as("edges meet").isLessThan(40);
    }

    @ParameterizedTest
    @CsvSource({
        "/aerial/0/0/0.png, 200",
        "/aerial/3/7/7.png, 200",
        "/aerial/3/8/0.png, 404",
        "/aerial/19/0/0.png, 404",
        "/aerial/x/0/0.png, 404",
        "/aerial/3/1/1.jpg, 404"
    })
    void onlyTilesThatThereAreAreServed(String path, int status) throws Exception {
        RemoteTable server = RemoteTable.start(0, () -> 1);
        try {
            HttpResponse<byte[]> answer = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + path))
                                    .build(),
                            HttpResponse.BodyHandlers.ofByteArray());
            assertThat(answer.statusCode()).isEqualTo(status);
            if (status == 200)
                assertThat(answer.headers().firstValue("Content-Type")).contains("image/png");
        } finally {
            server.close();
        }
    }
}
