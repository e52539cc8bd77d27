package sarnik.app.ground;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.sun.net.httpserver.HttpServer;
import java.awt.image.BufferedImage;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.web.util.HtmlUtils;
import sarnik.app.testing.MapSamples;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.standins.RemoteTable;

@ExtendWith(RunningSarnik.class)
@DisplayName("Grounds from elsewhere")
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
        return steward.send(
                "POST",
                "/grounds",
                "application/x-www-form-urlencoded",
                "credit=Made%20up&nearest=12&name=" + URLEncoder.encode(name, StandardCharsets.UTF_8) + "&address="
                        + URLEncoder.encode(address, StandardCharsets.UTF_8));
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
        assertThat(reader.download("/api/grounds/Aerial/5/15/12", folder.resolve("again"))
                        .statusCode())
                .isEqualTo(200);
        HttpResponse<String> gone = reader.get("/api/grounds/Aerial/5/16/12");
        assertThat(gone.statusCode()).isEqualTo(400);
        assertThat(gone.body()).contains("cannot be reached");
        steward.send("POST", "/grounds", "application/x-www-form-urlencoded", "name=Aerial&remove=true");
        assertThat(reader.get("/api/grounds/Aerial/5/15/12").statusCode()).isEqualTo(404);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({
        "wms, Rain in a year",
        "'wms?SERVICE=WMS&REQUEST=GetCapabilities', Rain in a year",
        "wmts, 'Rain in a year, tiled'"
    })
    void aLayerOfAMapServiceIsChosenAndServed(String path, String layer, @TempDir Path folder) throws Exception {
        String service = "http://127.0.0.1:" + remote.port() + "/" + path;
        String offered = add("", service).body();
        assertThat(offered)
                .contains("The service offers one layer")
                .contains(layer)
                .doesNotContain("another plane");
        Matcher address = Pattern.compile("name=\"address\" value=\"([^\"]+)\"").matcher(offered);
        assertThat(address.find()).isTrue();
        String name = "Rain " + path.replaceAll("[^a-z]", "");
        assertThat(add(name, HtmlUtils.htmlUnescape(address.group(1))).body()).contains(name);
        BufferedImage west = tile(name, "5/15/12", folder);
        assertThat(west.getWidth()).isEqualTo(256);
        assertThat(west.getColorModel().hasAlpha()).isTrue();
        // The same ground at the next zoom: the upper left quarter of a tile is the whole of another.
        BufferedImage nearer = tile(name, "6/30/24", folder);
        assertThat(west.getRGB(10, 10) >>> 24).isCloseTo(nearer.getRGB(20, 20) >>> 24, within(3));
        assertThat(west.getRGB(10, 10))
                .isNotEqualTo(tile(name, "5/16/12", folder).getRGB(10, 10));
    }

    private BufferedImage tile(String name, String numbers, Path folder) throws Exception {
        HttpResponse<Path> tile = reader.download(
                "/api/grounds/" + name.replace(" ", "%20") + "/" + numbers, folder.resolve(numbers.replace('/', '-')));
        assertThat(tile.statusCode()).isEqualTo(200);
        return ImageIO.read(tile.body().toFile());
    }

    @Test
    void areListedWithTheDashboardsThatStandOnThem(RunningSarnik sarnik) throws Exception {
        add("Under", aerial());
        MapSamples samples = new MapSamples(sarnik.client("ana"));
        samples.dashboard(
                "On pictures",
                MapSamples.map(
                        "v1",
                        0,
                        18,
                        "\"ground\":{\"mood\":\"source:Under\",\"detail\":2}",
                        "\"dataset\":%d".formatted(samples.towns)));
        assertThat(steward.get("/grounds").body()).contains("<td>On pictures</td>");
    }

    @Test
    void stayAsTheyAreUnderWhatIsPublished(RunningSarnik sarnik, @TempDir Path folder) throws Exception {
        add("Published", aerial());
        SarnikClient ana = sarnik.client("ana");
        MapSamples samples = new MapSamples(ana);
        long id = samples.dashboard(
                "Published on pictures",
                MapSamples.map(
                        "v1",
                        0,
                        18,
                        "\"ground\":{\"mood\":\"source:Published\",\"detail\":2}",
                        "\"dataset\":%d".formatted(samples.towns)));
        String needed = "is needed by what readers see of “Published on pictures”";
        String remove = "name=Published&remove=true";
        String form = "application/x-www-form-urlencoded";
        assertThat(steward.send("POST", "/grounds", form, remove).body()).contains(needed);
        assertThat(add("Published", aerial() + "?another").body()).contains(needed);
        assertThat(add("Published", aerial()).body())
                .as("the same address again")
                .doesNotContain(needed);
        tile("Published", "5/15/12", folder);
        ana.send("PUT", "/api/dashboards/" + id + "/edition", "application/json", "{\"number\":null}");
        assertThat(steward.send("POST", "/grounds", form, remove).body()).doesNotContain(needed);
        assertThat(reader.get("/api/grounds/Published/5/15/12").statusCode()).isEqualTo(404);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"13/0/0", "3/8/0", "3/0/8", "-1/0/0", "3/-1/0"})
    void beyondTheWorldOrTheNearestZoomThereAreNone(String tile) throws Exception {
        add("Edges", aerial());
        assertThat(reader.get("/api/grounds/Edges/" + tile).statusCode()).isEqualTo(404);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "http://127.0.0.1:%d/aerial/0/0/0.png | has to hold {z}, {x} and {y}",
                "http://127.0.0.1:%d/stock.csv?{z}{x}{y} | no picture",
                "http://127.0.0.1:%d/gone/{z}/{x}/{y} | status 404",
                "http://127.0.0.1:1/{z}/{x}/{y} | unless a steward allows",
                "ftp://example.org/{z}/{x}/{y} | no address that is asked"
            })
    void aSourceThatDoesNotServeThemIsNotAdded(String address, String why) throws Exception {
        assertThat(add("Odd", address.formatted(remote.port())).body()).contains(why.replace("'", "&#39;"));
        assertThat(reader.get("/api/grounds/Odd/0/0/0").statusCode()).isEqualTo(404);
    }

    private HttpServer serving(byte[] archive) throws Exception {
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
        steward.send(
                "POST",
                "/hosts",
                "application/x-www-form-urlencoded",
                "host=127.0.0.1%3A" + server.getAddress().getPort());
        return server;
    }

    @Test
    void anArchiveIsAskedForItsParts() throws Exception {
        HttpServer server = serving(PmtilesTest.archiveOf(new byte[] {(byte) 0x89, 'P', 'N', 'G', 1, 2, 3}));
        try {
            assertThat(add("Archive", "http://127.0.0.1:" + server.getAddress().getPort() + "/world.pmtiles")
                            .body())
                    .contains("Archive")
                    .doesNotContain("sentence-bad");
            assertThat(reader.get("/api/grounds/Archive/0/0/0").headers().firstValue("Content-Type"))
                    .contains("image/png");
            assertThat(reader.get("/api/grounds/Archive/1/0/0").statusCode()).isEqualTo(404);
        } finally {
            server.stop(0);
        }
    }

    @Test
    void aSourceThatBeginsAtALaterZoomIsTakenAndHasNoneWhereItHasNone() throws Exception {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 4);
        server.createContext("/deep/", exchange -> {
            boolean there = exchange.getRequestURI().getPath().startsWith("/deep/6/31/24");
            exchange.sendResponseHeaders(there ? 200 : 404, there ? 7 : -1);
            if (there) exchange.getResponseBody().write(new byte[] {(byte) 0x89, 'P', 'N', 'G', 1, 2, 3});
            exchange.close();
        });
        server.start();
        try {
            String address = "127.0.0.1:" + server.getAddress().getPort();
            steward.send(
                    "POST",
                    "/hosts",
                    "application/x-www-form-urlencoded",
                    "host=" + URLEncoder.encode(address, StandardCharsets.UTF_8));
            assertThat(add("Deep", "http://" + address + "/deep/{z}/{x}/{y}").body())
                    .contains("Deep")
                    .doesNotContain("sentence-bad");
            assertThat(reader.get("/api/grounds/Deep/6/31/24").statusCode()).isEqualTo(200);
            assertThat(reader.get("/api/grounds/Deep/6/30/24").statusCode()).isEqualTo(404);
        } finally {
            server.stop(0);
        }
    }

    private String roads() {
        return "http://127.0.0.1:" + remote.port() + "/roads/{z}/{x}/{y}.mvt";
    }

    private BufferedImage tile(String address, Path folder) throws Exception {
        return ImageIO.read(reader.download("/api/grounds/" + address, folder.resolve("tile" + address.hashCode()))
                .body()
                .toFile());
    }

    private static long seen(BufferedImage image) {
        long seen = 0;
        for (int p = 0; p < image.getWidth() * image.getHeight(); p++)
            if (image.getRGB(p % image.getWidth(), p / image.getWidth()) >>> 24 > 100) seen++;
        return seen;
    }

    @Test
    void vectorTilesAreDrawnInTheLooksOfTheHourWithTheDetailThatIsAskedFor(@TempDir Path folder) throws Exception {
        assertThat(add("Roads", roads()).body()).contains("vector tiles").doesNotContain("sentence-bad");
        BufferedImage day = tile("Roads/7/62/48", folder);
        assertThat(day.getWidth()).isEqualTo(512);
        assertThat(seen(day)).isGreaterThan(500);
        BufferedImage night = tile("Roads/7/62/48?night=true", folder);
        assertThat(seen(night)).isEqualTo(seen(day));
        assertThat(IntStream.range(0, 512 * 512)
                        .anyMatch(p -> day.getRGB(p % 512, p / 512) != night.getRGB(p % 512, p / 512)))
                .as("other colours")
                .isTrue();
        assertThat(seen(tile("Roads/7/62/48?detail=3", folder))).isGreaterThan(seen(day));
        assertThat(seen(tile("Roads/7/10/48", folder)))
                .as("nothing on the other side of the sea")
                .isZero();
    }

    @Test
    void anArchiveOfShapesThatHasNoneOfTheWholeWorldIsTakenForWhatItSays(@TempDir Path folder) throws Exception {
        byte[] shapes = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(roads().replace("{z}/{x}/{y}", "7/62/48")))
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray())
                .body();
        HttpServer server = serving(PmtilesTest.archiveOfShapes(shapes));
        try {
            assertThat(add("Shapes", "http://127.0.0.1:" + server.getAddress().getPort() + "/world.pmtiles")
                            .body())
                    .contains("vector tiles")
                    .doesNotContain("sentence-bad");
            assertThat(tile("Shapes/1/0/0?detail=3", folder).getWidth()).isEqualTo(512);
            assertThat(reader.get("/api/grounds/Shapes/1/1/0").statusCode())
                    .as("none here")
                    .isEqualTo(404);
            assertThat(reader.get("/api/grounds/Shapes/2/0/0").statusCode())
                    .as("nearer than there are any")
                    .isEqualTo(404);
        } finally {
            server.stop(0);
        }
    }
}
