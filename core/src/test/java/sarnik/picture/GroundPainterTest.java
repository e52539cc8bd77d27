package sarnik.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.picture.Ground.Mood;
import sarnik.visual.Sight;

@DisplayName("The ground of a picture")
class GroundPainterTest {

    private static final Sight SIGHT = new Sight(5, -12, 34, 6, 46);
    private static final int SIZE = 400;

    /**
     * Land from 8° west to 2° east and 37° to 43° north, with a great river on 40° and a smaller one on 38.5°, a
     * province border on 5° west.
     */
    static GroundPacks packs() {
        String land = "[[[[-8,37],[2,37],[2,43],[-8,43],[-8,37]]]]";
        String near = "{\"box\":[-32,26,8,47],\"land\":" + land
                + ",\"borders\":[[[-8,41],[-6,41]]],\"provinces\":[[[-5,37],[-5,43]]],\"towns\":[[-3.7,40.4,"
                + "\"Large\",9000000],[-1,42,\"Small\",150000]]}";
        String world = "{\"land\":" + land + ",\"borders\":[],\"provinces\":[],\"towns\":[]}";
        String rivers = "{\"lines\":[[1,[[-7,40],[1,40]]],[2,[[-7,38.5],[1,38.5]]]]}";
        BufferedImage relief = new BufferedImage(36, 18, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 18; y++) for (int x = 0; x < 36; x++) relief.setRGB(x, y, 0x806040);
        try {
            ByteArrayOutputStream png = new ByteArrayOutputStream();
            ImageIO.write(relief, "png", png);
            return GroundPacks.read(
                    in(near.getBytes()), in(world.getBytes()), in(rivers.getBytes()), in(png.toByteArray()));
        } catch (IOException impossible) {
            throw new AssertionError(impossible);
        }
    }

    private static ByteArrayInputStream in(byte[] bytes) {
        return new ByteArrayInputStream(bytes);
    }

    static final GroundPacks PACKS = packs();
    private static final View VIEW = View.of(SIGHT, new Plane.Mercator(), SIZE, SIZE, 0);
    private static final Look DAY = Look.of(false);

    private static BufferedImage painted(Ground ground) throws IOException {
        RasterPen pen = new RasterPen(SIZE, SIZE, 1);
        GroundPainter painter = new GroundPainter(ground, VIEW, DAY);
        painter.paint(pen);
        return ImageIO.read(in(pen.finish()));
    }

    private static Color at(BufferedImage image, double lon, double lat) {
        return new Color(image.getRGB(
                (int) VIEW.at(lon, lat).getX(), (int) VIEW.at(lon, lat).getY()));
    }

    @ParameterizedTest
    @CsvSource({"PAPER, land, water", "OUTLINE, paper, paper", "PLAIN, paper, paper"})
    void wearsTheColoursOfItsMood(Mood mood, String land, String sea) throws IOException {
        BufferedImage image = painted(new Ground(mood, 2, PACKS, null));
        assertThat(at(image, -1, 41.5)).isEqualTo(named(land));
        assertThat(at(image, -10, 36)).isEqualTo(named(sea));
    }

    private static Color named(String name) {
        return Color.decode(
                switch (name) {
                    case "land" -> DAY.land();
                    case "water" -> DAY.water();
                    default -> DAY.paper();
                });
    }

    @Test
    void ofReliefIsShadedOnLandAndNowhereElse() throws IOException {
        BufferedImage image = painted(new Ground(Mood.TINTED, 2, PACKS, null));
        // Land 239, 233, 218 times the relief's 128, 96, 64 of 255, of which three quarters are taken.
        Color expected =
                new Color((int) (239 * (0.25 + 0.75 * 128 / 255)), (int) (233 * (0.25 + 0.75 * 96 / 255)), (int)
                        (218 * (0.25 + 0.75 * 64 / 255)));
        Color found = at(image, -1, 41.5);
        assertThat(Math.abs(found.getRed() - expected.getRed())
                        + Math.abs(found.getGreen() - expected.getGreen())
                        + Math.abs(found.getBlue() - expected.getBlue()))
                .isLessThan(6);
        assertThat(at(image, -10, 36)).isEqualTo(named("water"));
    }

    @ParameterizedTest(name = "detail {0}: smaller rivers {1}, provinces {2}")
    @CsvSource({"1, false, false", "2, false, true", "3, true, true"})
    void showsMoreTheMoreDetailIsAskedFor(int detail, boolean smaller, boolean provinces) throws IOException {
        BufferedImage image = painted(new Ground(Mood.PAPER, detail, PACKS, null));
        assertThat(at(image, 0, 38.5).equals(named("land"))).isEqualTo(!smaller);
        assertThat(at(image, -5, 42).equals(named("land"))).isEqualTo(!provinces);
    }

    private static List<String> names(int detail, Rectangle2D... taken) {
        List<String> names = new ArrayList<>();
        SvgPen pen = new SvgPen(SIZE, SIZE, "");
        new GroundPainter(new Ground(Mood.PAPER, detail, PACKS, null), VIEW, DAY)
                .names(pen, new ArrayList<>(List.of(taken)));
        for (String line : pen.finish().split("\n"))
            if (line.startsWith("<text")) names.add(line.replaceAll("<[^>]*>", ""));
        return names;
    }

    @Test
    void namesTownsThatGiveWayToWhatIsWritten() {
        assertThat(names(1)).containsExactly("Large");
        assertThat(names(3)).containsExactly("Large", "Small");
        assertThat(names(
                        3,
                        new Rectangle2D.Double(
                                VIEW.at(-3.7, 40.4).getX() - 5,
                                VIEW.at(-3.7, 40.4).getY() - 5,
                                10,
                                10)))
                .containsExactly("Small");
    }

    /**
     * Tiles of a source: a pixel picture to the west of Greenwich, a vector tile of water to the east, none in the
     * uppermost row.
     */
    private static Ground.Tiles tiles(List<String> asked) {
        return new Ground.Tiles() {
            @Override
            public Optional<byte[]> tile(int z, int x, int y) {
                asked.add(z + "/" + x + "/" + y);
                if (y == 0) return Optional.empty();
                if (x >= 1 << (z - 1))
                    return Optional.of(
                            VectorTileTest.tile("water", 3, "lake", 9, 0, 0, 26, 512, 0, 0, 512, 511, 0, 15));
                try {
                    BufferedImage red = new BufferedImage(256, 256, BufferedImage.TYPE_INT_RGB);
                    for (int p = 0; p < 256 * 256; p++) red.setRGB(p % 256, p / 256, 0xff0000);
                    ByteArrayOutputStream png = new ByteArrayOutputStream();
                    ImageIO.write(red, "png", png);
                    return Optional.of(png.toByteArray());
                } catch (IOException impossible) {
                    throw new AssertionError(impossible);
                }
            }

            @Override
            public int nearest() {
                return 3;
            }
        };
    }

    @Test
    void ofTilesLiesWhereTheyBelongAndNoNearerThanThereAreAny() throws IOException {
        List<String> asked = new ArrayList<>();
        BufferedImage image = painted(new Ground(Mood.TILES, 2, PACKS, tiles(asked)));
        assertThat(asked).isNotEmpty().allSatisfy(tile -> assertThat(tile).startsWith("3/"));
        assertThat(at(image, -3, 40)).isEqualTo(Color.RED);
        assertThat(at(image, 1, 40)).isEqualTo(named("water"));
    }

    @Test
    void ofASourceThatDoesNotAnswerIsPaper() throws IOException {
        BufferedImage image = painted(new Ground(Mood.TILES, 2, PACKS, new Ground.Tiles() {
            @Override
            public Optional<byte[]> tile(int z, int x, int y) {
                return Optional.empty();
            }

            @Override
            public int nearest() {
                return 18;
            }
        }));
        assertThat(at(image, -1, 41.5)).isEqualTo(named("land"));
    }
}
