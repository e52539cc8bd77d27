package sarnik.bench;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.zip.GZIPOutputStream;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;
import sarnik.format.BoundaryFiles;
import sarnik.geo.Area;
import sarnik.geo.GreatCircle;
import sarnik.geo.KernelDensity;
import sarnik.scale.Classes;
import tools.jackson.databind.JsonNode;

/**
 * Measures maps: classes and density in Java, what a pick sends, and drawing in the browser beside the map library's
 * own vector layer.
 */
final class MapBench {

    private static final String PATCH = "application/json-patch+json";

    private final Report report;
    private final String base;
    private final Path directory;

    /**
     * @param directory where files are put for the time of the measurement
     */
    MapBench(Report report, String base, Path directory) {
        this.report = report;
        this.base = base;
        this.directory = directory;
    }

    void run() throws Exception {
        report.title("Maps: classes and density");
        breaks(8_200, 20, 60);
        breaks(1_000_000, 1000, 3);
        density();
        report.title("Maps: what a pick on municipalities sends");
        bytes();
        report.title("Maps: drawing, from answer to picture");
        drawing();
    }

    private void breaks(int count, double aim, int runs) throws Exception {
        Random random = new Random(5);
        double[] values = new double[count];
        for (int i = 0; i < count; i++) values[i] = Math.exp(random.nextGaussian() * 1.4) * 100;
        report.time(
                "natural breaks of %,d values in 7 classes".formatted(count),
                report.median(1.5, runs, () -> Classes.of(Classes.Method.NATURAL, values, 7)),
                "aim",
                aim,
                1);
    }

    /** Beside adding up the kernel of every point at every cell of a coarse grid, point by point. */
    private void density() throws Exception {
        int count = 50_000;
        Random random = new Random(6);
        double[] lon = random.doubles(count, -9, 4).toArray();
        double[] lat = random.doubles(count, 36, 43.5).toArray();
        double[] weights = new double[count];
        Arrays.fill(weights, 1);
        double radius = 25_000;
        double ours = report.median(1.5, 9, () -> new KernelDensity(lon, lat, weights, radius).peak());
        int cells = 24;
        double plain = report.median(0, 1, () -> {
            double peak = 0;
            for (int y = 0; y < cells; y++) {
                for (int x = 0; x < cells; x++) {
                    double sum = 0;
                    for (int i = 0; i < count; i++) {
                        double u = GreatCircle.metres(-9 + 13.0 * x / cells, 36 + 7.5 * y / cells, lon[i], lat[i])
                                / radius;
                        if (u < 1) sum += (1 - u * u) * (1 - u * u);
                    }
                    peak = Math.max(peak, sum);
                }
            }
            if (peak < 0) throw new IllegalStateException();
        });
        report.time(
                "density of 50,000 points, felt within 25 km",
                ours,
                "point by point, %d cells".formatted(cells * cells),
                plain,
                1);
    }

    private void bytes() throws IOException, InterruptedException {
        SarnikClient client = new SarnikClient(base);
        client.signIn("ana", "aljibe-ana1");
        List<Area> areas =
                BoundaryFiles.shipped(BoundaryFiles.Shipped.MUNICIPALITIES).areas();
        Random random = new Random(7);
        Path file = directory.resolve("bench-municipalities.csv");
        Files.writeString(
                file,
                areas.stream()
                        .flatMap(a -> List.of("a", "b", "c").stream()
                                .map(part -> a.code() + "," + part + "," + (10 + random.nextInt(90_000))))
                        .collect(Collectors.joining("\n", "code,part,amount\n", "\n")));
        long dataset = client.bring(
                file,
                "Bench municipalities",
                Map.of("shaping", Map.of("types", Map.of("code", "TEXT"))),
                Map.of("type", "area", "column", "code", "set", "Municipalities of Spain"));
        JsonNode made = client.json("POST", "/api/dashboards", Map.of("title", "Bench municipalities"));
        long id = made.get("id").asLong();
        String patch = """
                [{"op":"add","path":"/visuals/v1","value":{"type":"map","page":"p1","at":{"x":0,"y":0,"w":12,"h":10},"title":"","layers":{"l1":{"kind":"AREAS","order":1,"dataset":%1$d,"opacity":0.9,
                  "colour":{"measure":{"summary":"SUM","column":"amount"},"method":"NATURAL","classes":7,"palette":"loch"}}}}},
                 {"op":"add","path":"/visuals/v2","value":{"type":"bars","page":"p1","at":{"x":12,"y":0,"w":12,"h":5},"title":"","dataset":%1$d,"category":"part","measure":{"summary":"SUM","column":"amount"}}},
                 {"op":"add","path":"/links/k2","value":{"from":"v2"}}]""".formatted(dataset);
        client.read(client.send(
                "PATCH",
                "/api/dashboards/" + id,
                PATCH,
                patch,
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        try {
            JsonNode first =
                    client.json("POST", "/api/dashboards/" + id + "/frames", Map.of("state", "", "ids", List.of("v1")));
            List<String> known = List.copyOf(first.get("places").propertyNames());
            Map<String, Object> pick = Map.of("state", "p.v2=b", "ids", List.of("v1"), "known", known);
            String answer = client.send(
                            "POST",
                            "/api/dashboards/" + id + "/frames",
                            "application/json",
                            tools.jackson.databind.json.JsonMapper.shared().writeValueAsString(pick))
                    .body();
            report.size(
                    "bytes of a pick on %,d areas, compressed".formatted(areas.size()),
                    zipped(answer) / 1000.0,
                    "aim",
                    60,
                    1);
            double answered =
                    report.median(1, 15, () -> client.json("POST", "/api/dashboards/" + id + "/frames", pick));
            report.time("pick answered, over HTTP", answered, "aim", 100, 1);
        } catch (Exception failed) {
            throw new IOException(failed);
        } finally {
            client.send("DELETE", "/api/dashboards/" + id, "application/json", "");
            client.send("DELETE", "/api/datasets/" + dataset, "application/json", "");
        }
    }

    private static int zipped(String text) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (GZIPOutputStream zip = new GZIPOutputStream(out)) {
            zip.write(text.getBytes(StandardCharsets.UTF_8));
        }
        return out.size();
    }

    private void drawing() throws IOException, InterruptedException {
        Path plain = Path.of("bench/target/plain.js");
        ProcessBuilder builder = new ProcessBuilder(
                        "app/web/node_modules/.bin/esbuild",
                        "bench/src/main/web/plain.js",
                        "--bundle",
                        "--format=esm",
                        "--minify",
                        "--log-level=warning",
                        "--outfile=" + plain)
                .inheritIO();
        // The bench has no packages of its own: it takes the map library that the application ships.
        builder.environment()
                .put(
                        "NODE_PATH",
                        Path.of("app/web/node_modules").toAbsolutePath().toString());
        Process esbuild = builder.start();
        if (esbuild.waitFor() != 0) throw new IOException("esbuild could not bundle " + plain);
        try (SarnikBrowser browser = new SarnikBrowser()) {
            Page page = browser.signedIn(base, "ana", "aljibe-ana1", 1280, 800);
            page.route(
                    "**/bench/plain.js",
                    route -> route.fulfill(new Route.FulfillOptions()
                            .setContentType("text/javascript")
                            .setPath(plain)));
            page.route(
                    "**/bench/measure.js",
                    route -> route.fulfill(new Route.FulfillOptions()
                            .setContentType("text/javascript")
                            .setPath(Path.of("bench/src/main/web/measure.js"))));
            compare(page, "areas()", "municipalities", 2, 100);
            compare(page, "symbols(5000)", "symbols", 10, 60);
            compare(page, "symbols(50000)", "symbols", 10, 100);
            Map<?, ?> density =
                    (Map<?, ?>) page.evaluate("async () => (await import('/bench/measure.js')).density(50000)");
            report.time("density of 50,000 points drawn anew", number(density, "mine"), "aim", 100, 1);
        }
    }

    private void compare(Page page, String what, String things, double aim, double most) {
        Map<?, ?> found = (Map<?, ?>) page.evaluate("async () => (await import('/bench/measure.js'))." + what);
        String count = "%,d %s".formatted(((Number) found.get("n")).intValue(), things);
        report.time(
                count + " recoloured",
                number(found, "mine"),
                "the library's vector layer",
                number(found, "theirs"),
                aim);
        report.time(count + " recoloured", number(found, "mine"), "aim", most, 1);
        report.time(
                count + " panned, a frame",
                Math.max(0.05, number(found, "panned")),
                "the library's vector layer",
                number(found, "theirPan"),
                1);
        report.time(count + " panned, a frame", Math.max(0.05, number(found, "panned")), "aim, 30 a second", 33, 1);
    }

    private static double number(Map<?, ?> found, String name) {
        return ((Number) found.get(name)).doubleValue();
    }
}
