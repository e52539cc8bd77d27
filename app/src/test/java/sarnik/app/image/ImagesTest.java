package sarnik.app.image;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.zip.CRC32;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.app.web.RefusedException;

@DisplayName("Pictures for sheets")
class ImagesTest {

    private static byte[] file(BufferedImage image, String format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        assertThat(ImageIO.write(image, format, out)).isTrue();
        return out.toByteArray();
    }

    private static BufferedImage image(int width, int height, int type) {
        BufferedImage image = new BufferedImage(width, height, type);
        for (int x = 0; x < width; x++)
            for (int y = 0; y < height; y++) image.setRGB(x, y, 0xff000000 | (x * 7 + y * 13));
        return image;
    }

    @ParameterizedTest
    @ValueSource(strings = {"png", "jpeg", "gif", "bmp"})
    void areMadeAnewAndKeepTheirSize(String format) throws IOException {
        Reencoded made = Reencoded.of(file(image(60, 30, BufferedImage.TYPE_INT_RGB), format));
        assertThat(made.width()).isEqualTo(60);
        assertThat(made.height()).isEqualTo(30);
        BufferedImage again = ImageIO.read(new ByteArrayInputStream(made.bytes()));
        assertThat(again.getWidth()).isEqualTo(60);
        assertThat(made.name()).matches("[0-9a-f]{64}");
    }

    /**
     * A photograph of 40 × 20 pixels whose first row begins red and ends blue, and whose first column ends green, and
     * what a camera says of how it was held.
     */
    private static byte[] photograph(int orientation, boolean littleEndian) throws IOException {
        BufferedImage image = new BufferedImage(40, 20, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < 40; x++)
            for (int y = 0; y < 20; y++) {
                Color upper = x < 20 ? Color.RED : Color.BLUE;
                Color lower = x < 20 ? Color.GREEN : Color.WHITE;
                image.setRGB(x, y, (y < 10 ? upper : lower).getRGB());
            }
        byte[] jpeg = file(image, "jpeg");
        ByteBuffer exif = ByteBuffer.allocate(36).order(littleEndian ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        exif.put("Exif\0\0".getBytes(StandardCharsets.ISO_8859_1));
        exif.put((littleEndian ? "II" : "MM").getBytes(StandardCharsets.ISO_8859_1));
        exif.putShort((short) 42).putInt(8).putShort((short) 1);
        exif.putShort((short) 0x0112).putShort((short) 3).putInt(1).putShort((short) orientation);
        ByteBuffer all = ByteBuffer.allocate(jpeg.length + 40);
        all.put(jpeg, 0, 2).putShort((short) 0xFFE1).putShort((short) 38).put(exif.array());
        return all.put(jpeg, 2, jpeg.length - 2).array();
    }

    private static String colour(BufferedImage image, int x, int y) {
        Color seen = new Color(image.getRGB(x, y));
        if (seen.getRed() > 150 && seen.getBlue() > 150) return "white";
        if (seen.getRed() > 150) return "red";
        return seen.getBlue() > 150 ? "blue" : "green";
    }

    /** Exif: the sides of the picture as it is seen at which the first row and the first column lie. */
    @ParameterizedTest
    @CsvSource({
        "1, red, blue, green", "2, blue, red, white", "3, white, green, blue", "4, green, white, red",
        "5, red, green, blue", "6, green, red, white", "7, white, blue, green", "8, blue, white, red"
    })
    void standUprightAsTheCameraWasHeld(int orientation, String upperLeft, String upperRight, String lowerLeft)
            throws IOException {
        for (boolean littleEndian : new boolean[] {true, false}) {
            Reencoded made = Reencoded.of(photograph(orientation, littleEndian));
            BufferedImage seen = ImageIO.read(new ByteArrayInputStream(made.bytes()));
            boolean stands = orientation >= 5;
            assertThat(seen.getWidth()).isEqualTo(stands ? 20 : 40);
            assertThat(seen.getHeight()).isEqualTo(stands ? 40 : 20);
            int right = seen.getWidth() - 4;
            assertThat(List.of(colour(seen, 3, 3), colour(seen, right, 3), colour(seen, 3, seen.getHeight() - 4)))
                    .containsExactly(upperLeft, upperRight, lowerLeft);
        }
    }

    @Test
    void standAsTheyAreWhereWhatTheCameraSaysIsBroken() throws IOException {
        byte[] photograph = photograph(6, true);
        // The directory is said to lie beyond the end.
        photograph[2 + 4 + 6 + 4] = 127;
        photograph[2 + 4 + 6 + 7] = 127;
        assertThat(Reencoded.of(photograph).width()).isEqualTo(40);
    }

    @Test
    void keepWhatIsClearClear() throws IOException {
        BufferedImage clear = new BufferedImage(10, 10, BufferedImage.TYPE_INT_ARGB);
        clear.setRGB(3, 3, Color.RED.getRGB());
        Reencoded made = Reencoded.of(file(clear, "png"));
        assertThat(made.type()).isEqualTo("image/png");
        BufferedImage again = ImageIO.read(new ByteArrayInputStream(made.bytes()));
        assertThat(again.getRGB(0, 0) >>> 24).isZero();
        assertThat(again.getRGB(3, 3)).isEqualTo(Color.RED.getRGB());
    }

    @Test
    void areMadeSmallerWhereTheyAreLarge() throws IOException {
        Reencoded made = Reencoded.of(file(new BufferedImage(6000, 1500, BufferedImage.TYPE_INT_RGB), "png"));
        assertThat(made.width()).isEqualTo(Reencoded.LONGEST);
        assertThat(made.height()).isEqualTo(600);
    }

    @Test
    void loseWhatElseTheirFileCarried() throws IOException {
        byte[] picture = file(image(20, 20, BufferedImage.TYPE_INT_RGB), "png");
        byte[] behind = "<script>alert(1)</script>".getBytes(StandardCharsets.US_ASCII);
        byte[] both = Arrays.copyOf(picture, picture.length + behind.length);
        System.arraycopy(behind, 0, both, picture.length, behind.length);
        assertThat(new String(Reencoded.of(both).bytes(), StandardCharsets.ISO_8859_1))
                .doesNotContain("<script>");
    }

    @Test
    void areRefusedByTheirHeadWhereTheyWouldFillTheMemory() throws IOException {
        byte[] bomb = file(image(4, 4, BufferedImage.TYPE_INT_RGB), "png");
        // Width and height stand behind the eight bytes of the signature and the head of the first part.
        ByteBuffer.wrap(bomb).putInt(16, 100_000).putInt(20, 100_000);
        CRC32 sum = new CRC32();
        sum.update(bomb, 12, 17);
        ByteBuffer.wrap(bomb).putInt(29, (int) sum.getValue());
        assertThatThrownBy(() -> Reencoded.of(bomb))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("100,000 × 100,000 pixels");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "no picture",
                "<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>",
                "%PDF-1.7",
                "GIF89a"
            })
    void areRefusedWhereTheyAreNone(String text) {
        assertThatThrownBy(() -> Reencoded.of(text.getBytes(StandardCharsets.US_ASCII)))
                .isInstanceOf(RefusedException.class);
    }

    @Test
    void areReadOrRefusedWhateverIsBroken() throws IOException {
        Random random = new Random(3);
        for (String format : new String[] {"png", "jpeg", "gif", "bmp"}) {
            byte[] whole = file(image(40, 40, BufferedImage.TYPE_INT_RGB), format);
            for (int n = 0; n < 300; n++) {
                byte[] broken =
                        Arrays.copyOf(whole, random.nextInt(2) == 0 ? whole.length : random.nextInt(whole.length));
                for (int b = 0; b < 3 && broken.length > 0; b++)
                    broken[random.nextInt(broken.length)] = (byte) random.nextInt();
                try {
                    assertThat(Reencoded.of(broken).width()).isPositive();
                } catch (RefusedException refused) {
                    assertThat(refused.getMessage()).endsWith(".");
                }
            }
        }
    }
}
