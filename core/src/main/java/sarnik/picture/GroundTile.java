package sarnik.picture;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Optional;
import java.util.zip.GZIPInputStream;
import javax.imageio.ImageIO;

/** A square of the ground: a picture, or shapes that are drawn in Sarnik's own looks. */
public final class GroundTile {

    /** Larger tiles are none that a map would be drawn with. */
    private static final int MOST_BYTES = 8 << 20;

    private GroundTile() {}

    /**
     * Draws a vector tile as PNG on a clear ground.
     *
     * @param bytes the tile, compressed with gzip or not
     * @param zoom of the tile
     * @param detail 1 to 3: little, some, much
     * @param night in which colours
     * @param pixels width and height
     * @return empty where it is no vector tile
     */
    public static Optional<byte[]> drawn(byte[] bytes, int zoom, int detail, boolean night, int pixels) {
        return shapes(bytes).map(tile -> {
            RasterPen pen = RasterPen.clear(TilePainter.SIZE, pixels / (double) TilePainter.SIZE);
            new TilePainter(tile, zoom, detail, Look.of(night)).paint(pen, 0, 0, TilePainter.SIZE);
            return pen.finish();
        });
    }

    /** Whether these are the bytes of a vector tile, compressed with gzip or not. An empty one is one. */
    public static boolean isShapes(byte[] bytes) {
        return shapes(bytes).isPresent();
    }

    /** The shapes of a tile; empty where it is no vector tile. */
    static Optional<VectorTile> shapes(byte[] bytes) {
        try {
            return Optional.of(VectorTile.read(unpacked(bytes)));
        } catch (IOException none) {
            return Optional.empty();
        }
    }

    /** The pixels of a tile; empty where it is no picture that can be read here. */
    static Optional<BufferedImage> pixels(byte[] bytes) {
        try {
            return Optional.ofNullable(ImageIO.read(new ByteArrayInputStream(bytes)));
        } catch (IOException none) {
            return Optional.empty();
        }
    }

    private static byte[] unpacked(byte[] bytes) throws IOException {
        if (bytes.length < 2 || (bytes[0] & 0xFF) != 0x1F || (bytes[1] & 0xFF) != 0x8B) return bytes;
        try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(bytes))) {
            byte[] unpacked = in.readNBytes(MOST_BYTES + 1);
            if (unpacked.length > MOST_BYTES) throw new IOException("too large");
            return unpacked;
        }
    }
}
