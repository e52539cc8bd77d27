package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.MapSamples.map;
import static sarnik.app.testing.MapSamples.sum;

import com.microsoft.playwright.Page;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Function;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import sarnik.app.testing.MapSamples;

/**
 * A gallery of small maps, compared with pictures that people have looked at and found right. Where a change of
 * drawing is
 * meant, {@code -Dsarnik.gallery=write} makes the pictures anew; look at each before it is kept.
 */
@DisplayName("The gallery of maps")
class GalleryTest extends BrowserTest {

    private static final Path PICTURES = Path.of("src/test/resources/gallery");
    /** Levels of 255 that a pixel may differ by, on average over its colours, before it counts as another. */
    private static final int OTHER = 24;
    /** Share of the pixels that may be another: edges are drawn a little differently by each browser. */
    private static final double MOST_OTHER = 0.012;

    private static final String IBERIA =
            "\"start\":{\"west\":-9.6,\"south\":35.9,\"east\":4.4,\"north\":43.9},\"keyAt\":\"none\","
                    + "\"withheld\":[\"ZOOM\",\"HOME\",\"SEARCH\",\"GROUND\",\"SCALE\",\"FULL\",\"PICTURE\"],"
                    + "\"ground\":{\"mood\":\"%s\",\"detail\":%d}";

    private static MapSamples samples;

    @BeforeEach
    void data() throws Exception {
        if (samples == null) samples = new MapSamples(sarnik.client("ana"));
    }

    /** The maps of the gallery. */
    enum Shown {
        CIRCLES_BY_MEASURE(s -> layers(
                "plain",
                1,
                towns(
                        s,
                        ("\"size\":{%s,\"rule\":\"AREA\",\"radius\":26},\"colour\":{%s,\"method\":\"NATURAL\","
                                        + "\"classes\":5,\"palette\":\"loch\"}")
                                .formatted(sum("litres"), sum("litres"))))),
        SHAPES_AND_COLOURS_BY_CATEGORY(s -> layers(
                "plain",
                1,
                towns(
                        s,
                        ("\"size\":{%s,\"rule\":\"STEPPED\",\"radius\":16},\"symbol\":{\"category\":\"product\"},"
                                        + "\"colour\":{\"category\":\"product\",\"palette\":\"flags\"}")
                                .formatted(sum("litres"))))),
        GATHERED(s -> layers(
                "plain",
                1,
                towns(s, "\"gather\":true,\"size\":{%s,\"rule\":\"AREA\",\"radius\":26}".formatted(sum("litres"))))),
        LABELLED(s -> layers(
                "plain",
                1,
                towns(
                        s,
                        "\"size\":{%s,\"rule\":\"FLANNERY\",\"radius\":18},\"label\":{%s}"
                                .formatted(sum("litres"), sum("litres"))))),
        AREAS_IN_CLASSES(
                s -> layers("paper", 1, areas(s, "\"method\":\"NATURAL\",\"classes\":5,\"palette\":\"rust\""))),
        AREAS_ABOUT_A_CENTRE(s -> layers(
                "plain",
                1,
                areas(
                        s,
                        "\"method\":\"EQUAL_STEPS\",\"classes\":6,\"palette\":\"rust to "
                                + "loch\",\"centre\":{\"about\":\"MEDIAN\"}"))),
        BEYOND_THE_ENDS(s -> layers(
                "plain",
                1,
                areas(s, "\"method\":\"EQUAL_STEPS\",\"classes\":4,\"palette\":\"rust\",\"low\":20,\"high\":80"),
                towns(
                        s,
                        ("\"size\":{%s,\"rule\":\"AREA\",\"radius\":16},\"colour\":{%s,\"classes\":3,"
                                        + "\"palette\":\"loch\",\"high\":300}")
                                .formatted(sum("litres"), sum("litres"))))),
        AREAS_ON_A_RAMP(s -> layers("plain", 1, areas(s, "\"ramp\":true,\"palette\":\"dusk\",\"reversed\":true"))),
        AREAS_IN_EQUAL_AREA(
                s -> layers("outline", 1, areas(s, "\"method\":\"EQUAL_COUNTS\",\"classes\":4,\"palette\":\"lichen\""))
                        + ",\"projection\":\"equal-area\""),
        DENSITY_ON_THE_GROUND(s -> layers(
                "outline",
                1,
                ("\"kind\":\"DENSITY\",\"dataset\":%d,\"spread\":{\"radius\":60000,\"metres\":true},\"size\":{%s,"
                                + "\"rule\":\"AREA\",\"radius\":26}")
                        .formatted(s.towns, sum("litres")))),
        FLOWS(s -> layers(
                "tinted",
                1,
                ("\"kind\":\"FLOWS\",\"dataset\":%d,\"size\":{%s,\"rule\":\"AREA\",\"radius\":24},"
                                + "\"colour\":{\"category\":\"depot\",\"palette\":\"flags\"}")
                        .formatted(s.sent, sum("pieces")))),
        PATHS(s -> layers(
                "paper",
                3,
                "\"kind\":\"PATHS\",\"dataset\":%d,\"path\":{\"who\":\"van\",\"by\":\"stop time\"}"
                        .formatted(s.rounds))),
        LAYERS_AT_NIGHT(s -> layers(
                "paper",
                2,
                areas(s, "\"method\":\"NATURAL\",\"classes\":4,\"palette\":\"loch\""),
                towns(
                        s,
                        "\"size\":{%s,\"rule\":\"AREA\",\"radius\":14},\"symbol\":{\"shape\":\"DIAMOND\"}"
                                .formatted(sum("litres")))));

        private final Function<MapSamples, String> visual;

        Shown(Function<MapSamples, String> visual) {
            this.visual = visual;
        }

        private static String layers(String mood, int detail, String... layers) {
            return String.join("\u0000", layers) + "\u0001" + IBERIA.formatted(mood, detail);
        }

        private static String towns(MapSamples s, String looks) {
            return "\"dataset\":%d,%s".formatted(s.towns, looks);
        }

        private static String areas(MapSamples s, String scale) {
            return "\"kind\":\"AREAS\",\"dataset\":%d,\"colour\":{%s,%s}".formatted(s.provinces, sum("rate"), scale);
        }

        /** The visual as JSON: layers, then what is told of the map as a whole. */
        String json(MapSamples s) {
            String[] parts = visual.apply(s).split("\u0001");
            String[] more = parts[1].split(",\"projection\"");
            return map(
                    "v1",
                    0,
                    24,
                    more[0] + (more.length > 1 ? ",\"projection\"" + more[1] : ""),
                    parts[0].split("\u0000"));
        }
    }

    @ParameterizedTest
    @EnumSource(Shown.class)
    void eachLooksAsItDid(Shown shown) throws Exception {
        boolean night = shown == Shown.LAYERS_AT_NIGHT;
        Page page = night ? home("rui") : page("rui");
        page.setViewportSize(620, 900);
        if (night) page.click("#mood");
        page.navigate("/dashboards/" + samples.dashboard("Gallery", shown.json(samples)));
        drawn(page);
        page.waitForFunction(
                "() => document.querySelector('.map-view').dataset.shaped > 0 && document.fonts.status === 'loaded'");
        page.evaluate("async () => { await Promise.all(['/ground/iberia.json', '/ground/world.json', "
                + "'/ground/rivers.json', '/ground/relief.jpg'].map(f => fetch(f).then(a => a.blob()))); }");
        if (shown == Shown.GATHERED)
            // Symbols are gathered for the zoom once the map has been fitted, which is a question of its own.
            page.waitForFunction("() => Number(document.getElementById('sheet').dataset.drawn) > 1 "
                    + "&& document.querySelectorAll('.map-reach button').length > 5");
        // Two pictures that are the same: whatever arrives late has arrived.
        byte[] before = new byte[0];
        byte[] now = picture(page);
        for (int i = 0; i < 20 && !java.util.Arrays.equals(before, now); i++) {
            page.waitForTimeout(150);
            before = now;
            now = picture(page);
        }
        Path kept =
                PICTURES.resolve(shown.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-') + ".png");
        if ("write".equals(System.getProperty("sarnik.gallery"))) {
            Files.createDirectories(PICTURES);
            Files.write(kept, now);
        }
        assertThat(shareOfOthers(ImageIO.read(kept.toFile()), ImageIO.read(new ByteArrayInputStream(now))))
                .as(shown + " differs from " + kept)
                .isLessThan(MOST_OTHER);
    }

    private static byte[] picture(Page page) {
        return page.locator(".map-view").screenshot();
    }

    private static double shareOfOthers(BufferedImage kept, BufferedImage now) throws IOException {
        assertThat(now.getWidth()).isEqualTo(kept.getWidth());
        assertThat(now.getHeight()).isEqualTo(kept.getHeight());
        long others = 0;
        for (int y = 0; y < now.getHeight(); y++) {
            for (int x = 0; x < now.getWidth(); x++) {
                int a = kept.getRGB(x, y);
                int b = now.getRGB(x, y);
                int difference = Math.abs((a >> 16 & 255) - (b >> 16 & 255))
                        + Math.abs((a >> 8 & 255) - (b >> 8 & 255))
                        + Math.abs((a & 255) - (b & 255));
                if (difference > 3 * OTHER) others++;
            }
        }
        return (double) others / ((long) now.getWidth() * now.getHeight());
    }
}
