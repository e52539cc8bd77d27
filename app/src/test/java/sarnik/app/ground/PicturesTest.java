package sarnik.app.ground;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLEncoder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.standins.RemoteTable;

@ExtendWith(RunningSarnik.class)
@DisplayName("Pictures under maps")
class PicturesTest {

    private SarnikClient steward;
    private SarnikClient reader;
    private RemoteTable remote;

    @BeforeEach
    void aSource(RunningSarnik sarnik) throws Exception {
        steward = sarnik.client("marta");
        reader = sarnik.client("rui");
        remote = RemoteTable.start(0, () -> 1);
        steward.send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + remote.port());
    }

    @AfterEach
    void stop() {
        remote.close();
    }

    private HttpResponse<String> add(String name, String address) throws Exception {
        return steward.send("POST", "/grounds", "application/x-www-form-urlencoded", "credit=Made%20up&nearest=12&name=" + URLEncoder.encode(name, StandardCharsets.UTF_8) + "&address=" + URLEncoder.encode(address, StandardCharsets.UTF_8));
    }

    private String aerial() {
        return "http://127.0.0.1:" + remote.port() + "/aerial/{z}/{x}/{y}.png";
    }

    @Test
    void comeToReadersThroughTheServer(@TempDir Path folder) throws Exception {
        assertThat(add("Aerial", aerial()).body()).contains("Aerial").contains("Made up");
        HttpResponse<Path> tile = reader.download("/api/grounds/Aerial/5/15/12", folder.resolve("tile"));
        assertThat(tile.statusCode()).isEqualTo(200);
        assertThat(tile.headers().firstValue("Content-Type")).contains("image/png");
        assertThat(ImageIO.read(tile.body().toFile()).getWidth()).isEqualTo(256);
        // What is kept is served though the source has gone silent; what is not is said.
        remote.close();
        assertThat(reader.download("/api/grounds/Aerial/5/15/12", folder.resolve("again")).statusCode()).isEqualTo(200);
        HttpResponse<String> gone = reader.get("/api/grounds/Aerial/5/16/12");
        assertThat(gone.statusCode()).isEqualTo(400);
        assertThat(gone.body()).contains("cannot be reached");
        steward.send("POST", "/grounds", "application/x-www-form-urlencoded", "name=Aerial&remove=true");
        assertThat(reader.get("/api/grounds/Aerial/5/15/12").statusCode()).isEqualTo(404);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"13/0/0", "3/8/0", "3/0/8", "-1/0/0", "3/-1/0"})
    void beyondTheWorldOrTheNearestZoomThereAreNone(String tile) throws Exception {
        add("Edges", aerial());
        assertThat(reader.get("/api/grounds/Edges/" + tile).statusCode()).isEqualTo(404);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {
        "http://127.0.0.1:%d/aerial/0/0/0.png | has to hold {z}, {x} and {y}",
        "http://127.0.0.1:%d/stock.csv?{z}{x}{y} | no picture",
        "http://127.0.0.1:%d/gone/{z}/{x}/{y} | status 404",
        "http://127.0.0.1:1/{z}/{x}/{y} | unless a steward allows",
        "ftp://example.org/{z}/{x}/{y} | no address that is asked"})
    void aSourceThatDoesNotServeThemIsNotAdded(String address, String why) throws Exception {
        assertThat(add("Odd", address.formatted(remote.port())).body()).contains(why.replace("'", "&#39;"));
        assertThat(reader.get("/api/grounds/Odd/0/0/0").statusCode()).isEqualTo(404);
    }

    @Test
    void anArchiveIsAskedForItsParts() throws Exception {
        byte[] png = {(byte) 0x89, 'P', 'N', 'G', 1, 2, 3};
        byte[] archive = PmtilesTest.archiveOf(png);
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 4);
        server.createContext("/world.pmtiles", exchange -> {
            String range = exchange.getRequestHeaders().getFirst("Range").substring("bytes=".length());
            int from = Integer.parseInt(range.substring(0, range.indexOf('-')));
            int to = Math.min(archive.length - 1, Integer.parseInt(range.substring(range.indexOf('-') + 1)));
            exchange.sendResponseHeaders(206, to - from + 1);
            exchange.getResponseBody().write(archive, from, to - from + 1);
            exchange.close();
        });
        server.start();
        try {
            int port = server.getAddress().getPort();
            steward.send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + port);
            assertThat(add("Archive", "http://127.0.0.1:" + port + "/world.pmtiles").body()).contains("Archive").doesNotContain("sentence-bad");
            assertThat(reader.get("/api/grounds/Archive/0/0/0").headers().firstValue("Content-Type")).contains("image/png");
            assertThat(reader.get("/api/grounds/Archive/1/0/0").statusCode()).isEqualTo(404);
        } finally {
            server.stop(0);
        }
    }
}
