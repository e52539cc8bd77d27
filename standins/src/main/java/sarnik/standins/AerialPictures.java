package sarnik.standins;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;

/**
 * Stands in for a server of aerial pictures: square tiles of 256 pixels at {@code /aerial/{z}/{x}/{y}.png}, in Web
 * Mercator. The
 * country in them is made up: hills by noise, fields in a patchwork, the same at every zoom.
 */
final class AerialPictures {

    private static final int SIZE = 256;

    private AerialPictures() {}

    /** The tile as PNG. */
    static byte[] picture(int z, long x, long y) throws IOException {
        BufferedImage image = new BufferedImage(SIZE, SIZE, BufferedImage.TYPE_INT_RGB);
        double size = 1.0 / (1L << z);
        for (int py = 0; py < SIZE; py++) {
            for (int px = 0; px < SIZE; px++)
                image.setRGB(px, py, colour((x + px / (double) SIZE) * size, (y + py / (double) SIZE) * size, z));
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    /** The colour at a point of the world, whose width is 1. */
    private static int colour(double x, double y, int z) {
        double hill = 0;
        double weight = 0.5;
        // As many octaves as can be seen at the zoom.
        for (int octave = 4; octave <= Math.min(Tiles.DEEPEST, z + 6); octave += 2) {
            hill += weight * noise(x * (1L << octave), y * (1L << octave));
            weight *= 0.55;
        }
        double dry = noise(x * 90, y * 90);
        double field = z < 8
                ? 0.5
                : random((long) Math.floor(x * 60_000 + noise(x * 900, y * 900)), (long) Math.floor(y * 90_000));
        int red = (int) (70 + 95 * dry + 60 * hill + 30 * (field - 0.5));
        int green = (int) (88 + 52 * dry + 55 * hill + 40 * (field - 0.5));
        int blue = (int) (58 + 40 * dry + 40 * hill);
        return clamp(red) << 16 | clamp(green) << 8 | clamp(blue);
    }

    private static int clamp(int value) {
        return Math.max(0, Math.min(255, value));
    }

    /** Values between the corners of a grid, smoothly (Perlin 1985, with values at the corners). */
    private static double noise(double x, double y) {
        long ix = (long) Math.floor(x);
        long iy = (long) Math.floor(y);
        double fx = smooth(x - ix);
        double fy = smooth(y - iy);
        double top = random(ix, iy) + fx * (random(ix + 1, iy) - random(ix, iy));
        double bottom = random(ix, iy + 1) + fx * (random(ix + 1, iy + 1) - random(ix, iy + 1));
        return top + fy * (bottom - top);
    }

    private static double smooth(double t) {
        return t * t * (3 - 2 * t);
    }

    /** A number from 0 to 1 that always belongs to the same corner. */
    private static double random(long x, long y) {
        long h = x * 0x9E3779B97F4A7C15L ^ y * 0xC2B2AE3D27D4EB4FL;
        h = (h ^ h >>> 29) * 0xBF58476D1CE4E5B9L;
        return (h >>> 11) / (double) (1L << 53);
    }
}
