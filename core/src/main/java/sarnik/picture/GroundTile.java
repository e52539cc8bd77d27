package sarnik.picture;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.Optional;
import java.util.zip.GZIPInputStream;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;

/** A square of the ground: a picture, or shapes that are drawn in Sarnik's own looks. */
public final class GroundTile {

    /** Larger tiles are none that a map would be drawn with. */
    private static final int MOST_BYTES = 8 << 20;

    private static final int MOST_PIXELS = 2048;

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

    /** The pixels of a tile; empty where it is no picture that can be read here, or one larger than a tile. */
    static Optional<BufferedImage> pixels(byte[] bytes) {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) return Optional.empty();
            ImageReader reader = readers.next();
            try {
                reader.setInput(in);
                // A few bytes can stand for very many pixels.
                if (reader.getWidth(0) > MOST_PIXELS || reader.getHeight(0) > MOST_PIXELS) return Optional.empty();
                return Optional.of(reader.read(0));
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException damaged) {
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
