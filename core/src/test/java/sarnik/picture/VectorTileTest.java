package sarnik.picture;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.protobuf.CodedOutputStream;
import java.awt.Color;
import java.awt.geom.PathIterator;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.GZIPOutputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("A vector tile")
class VectorTileTest {

    private interface Writing {
        void to(CodedOutputStream out) throws IOException;
    }

    private static byte[] written(Writing writing) {
        try {
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            CodedOutputStream out = CodedOutputStream.newInstance(bytes);
            writing.to(out);
            out.flush();
            return bytes.toByteArray();
        } catch (IOException impossible) {
            throw new AssertionError(impossible);
        }
    }

    private static byte[] numbers(int... numbers) {
        return written(out -> {
            for (int n : numbers) out.writeUInt32NoTag(n);
        });
    }

    /** A tile of one layer with one feature, whose class is given. */
    static byte[] tile(String layer, int type, String kind, int... geometry) {
        byte[] feature = written(out -> {
            out.writeByteArray(2, numbers(0, 0));
            out.writeEnum(3, type);
            out.writeByteArray(4, numbers(geometry));
        });
        byte[] value = written(out -> out.writeString(1, kind));
        byte[] bytes = written(out -> {
            out.writeUInt32(15, 2);
            out.writeString(1, layer);
            out.writeByteArray(2, feature);
            out.writeString(3, "class");
            out.writeByteArray(4, value);
            out.writeUInt32(5, 256);
        });
        return written(out -> out.writeByteArray(3, bytes));
    }

    private static String path(VectorTile tile) {
        List<String> steps = new ArrayList<>();
        double[] p = new double[6];
        for (PathIterator i = tile.layers().get(0).features().get(0).shape().getPathIterator(null);
                !i.isDone();
                i.next()) {
            int kind = i.currentSegment(p);
            steps.add(
                    kind == PathIterator.SEG_CLOSE
                            ? "Z"
                            : (kind == PathIterator.SEG_MOVETO ? "M" : "L") + (int) p[0] + " " + (int) p[1]);
        }
        return String.join(" ", steps);
    }

    /** The examples of the specification, chapter 4.3.5. */
    @ParameterizedTest(name = "{2}")
    @CsvSource({
        "2, '9 4 4 18 0 16 16 0', M2 2 L2 10 L10 10",
        "2, '9 4 4 18 0 16 16 0 9 17 17 10 4 8', M2 2 L2 10 L10 10 M1 1 L3 5",
        "3, '9 6 12 18 10 12 24 44 15', M3 6 L8 12 L20 34 Z",
        "3, '9 0 0 26 20 0 0 20 19 0 15 9 22 2 26 18 0 0 18 17 0 15 9 4 13 26 0 8 8 0 0 7 15', M0 0 L10 0 L10 "
                + "10 L0 10 Z M11 11 L20 11 L20 20 L11 20 Z M13 13 L13 17 L17 17 L17 13 Z"
    })
    void isReadAsItsSpecificationShows(int type, String geometry, String expected) throws IOException {
        VectorTile read = VectorTile.read(tile(
                "any",
                type,
                "x",
                Arrays.stream(geometry.split(" ")).mapToInt(Integer::parseInt).toArray()));
        assertThat(path(read)).isEqualTo(expected);
        assertThat(read.layers().get(0).features().get(0).area()).isEqualTo(type == 3);
        assertThat(read.layers().get(0).features().get(0).attributes()).isEqualTo(Map.of("class", "x"));
    }

    @Test
    void leavesPointsOut() throws IOException {
        assertThat(VectorTile.read(tile("any", 1, "x", 9, 50, 34))
                        .layers()
                        .get(0)
                        .features())
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"<html>gone</html>", "{\"message\": \"no\"}", "depot,town\r\n1,Soria", "hello"})
    void isNotTakenFromOtherBytes(String text) {
        assertThat(GroundTile.isShapes(text.getBytes(StandardCharsets.UTF_8))).isFalse();
    }

    @Test
    void thatIsCutOrDamagedIsNone() {
        byte[] whole = tile("roads", 2, "motorway", 9, 0, 256, 10, 512, 0);
        for (int cut = 1; cut < whole.length; cut++)
            assertThat(GroundTile.isShapes(Arrays.copyOf(whole, cut)))
                    .as("cut at %d", cut)
                    .isFalse();
        Random random = new Random(7);
        for (int n = 0; n < 2000; n++) {
            byte[] damaged = whole.clone();
            damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(256);
            // Whatever comes of it, it is an answer.
            assertThat(GroundTile.drawn(damaged, 8, 2, false, 64)).isNotNull();
        }
    }

    @Test
    void canBeZipped() throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream zip = new GZIPOutputStream(packed)) {
            zip.write(tile("roads", 2, "motorway", 9, 0, 256, 10, 512, 0));
        }
        assertThat(GroundTile.isShapes(packed.toByteArray())).isTrue();
        assertThat(GroundTile.isShapes(Arrays.copyOf(packed.toByteArray(), 20))).isFalse();
    }

    private static BufferedImage drawn(byte[] tile, int zoom, int detail, boolean night) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(
                GroundTile.drawn(tile, zoom, detail, night, 256).orElseThrow()));
    }

    /** A line through the middle from the left to the right. */
    private static byte[] road(String kind) {
        return tile("transportation", 2, kind, 9, 0, 256, 10, 512, 0);
    }

    @ParameterizedTest(name = "{0} at zoom {1} with detail {2}: {3}")
    @CsvSource({
        "motorway, 4, 2, false",
        "motorway, 5, 2, true",
        "motorway, 5, 1, false",
        "motorway, 3, 3, true",
        "secondary, 8, 2, false",
        "secondary, 9, 2, true",
        "residential, 11, 2, false",
        "residential, 12, 2, true"
    })
    void showsItsRoadsFromTheZoomOfTheirRankOn(String kind, int zoom, int detail, boolean shown) throws IOException {
        BufferedImage image = drawn(road(kind), zoom, detail, false);
        assertThat(image.getRGB(100, 128) >>> 24 > 60).isEqualTo(shown);
        assertThat(image.getRGB(100, 20) >>> 24)
                .as("clear elsewhere: the ground below shows")
                .isZero();
    }

    @Test
    void drawsNoRailwaysAsRoads() throws IOException {
        assertThat(drawn(road("rail"), 14, 3, false).getRGB(100, 128) >>> 24).isZero();
    }

    /** The same colours as in the browser. */
    @ParameterizedTest
    @CsvSource({"false, ':root {'", "true, ':root[data-mood=\"night\"] {'"})
    void looksAsTheStyleSheetSays(boolean night, String block) throws IOException {
        String css = Files.readString(Path.of("../app/web/style/sarnik.css"));
        String colours = css.substring(css.indexOf(block));
        Look look = Look.of(night);
        Map<String, String> expected = Map.of(
                "paper",
                look.paper(),
                "ink",
                look.ink(),
                "faint",
                look.faint(),
                "land",
                look.land(),
                "water",
                look.water(),
                "border",
                look.border(),
                "province",
                look.province(),
                "river",
                look.river(),
                "town",
                look.town());
        expected.forEach((name, colour) -> {
            Matcher found =
                    Pattern.compile("--" + name + ":\\s*(#[0-9A-Fa-f]{6})").matcher(colours);
            assertThat(found.find()).as(name).isTrue();
            assertThat(colour).as(name).isEqualToIgnoringCase(found.group(1));
        });
    }

    @Test
    void aPictureThatIsLargerThanATileIsNone() throws IOException {
        for (int size : new int[] {256, 3000}) {
            ByteArrayOutputStream png = new ByteArrayOutputStream();
            ImageIO.write(new BufferedImage(size, 16, BufferedImage.TYPE_BYTE_BINARY), "png", png);
            assertThat(GroundTile.pixels(png.toByteArray()).isPresent()).isEqualTo(size == 256);
        }
        assertThat(GroundTile.pixels(new byte[] {(byte) 0x89, 'P', 'N', 'G', 1, 2, 3}))
                .isEmpty();
    }

    @Test
    void wearsTheColoursOfDayAndNight() throws IOException {
        assertThat(new Color(drawn(road("motorway"), 12, 2, false).getRGB(100, 128)))
                .isEqualTo(Color.decode(Look.of(false).road()));
        assertThat(new Color(drawn(road("motorway"), 12, 2, true).getRGB(100, 128)))
                .isEqualTo(Color.decode(Look.of(true).road()));
    }

    @ParameterizedTest(name = "{0}, {1}")
    @CsvSource({"water, lake, water", "earth, island, land", "landuse, forest, wood", "landcover, wood, wood"})
    void fillsWhatItsLayersAreCalled(String layer, String kind, String as) throws IOException {
        // A square of half the width in the middle.
        BufferedImage image = drawn(tile(layer, 3, kind, 9, 128, 128, 26, 256, 0, 0, 256, 255, 0, 15), 10, 2, false);
        Look day = Look.of(false);
        String expected = switch (as) {
            case "water" -> day.water();
            case "land" -> day.land();
            default -> day.wood();
        };
        assertThat(new Color(image.getRGB(128, 128))).isEqualTo(Color.decode(expected));
        int corner = image.getRGB(10, 10);
        if (as.equals("wood")) assertThat(corner >>> 24).isZero();
        else assertThat(new Color(corner)).isEqualTo(Color.decode(as.equals("land") ? day.water() : day.land()));
    }
}
