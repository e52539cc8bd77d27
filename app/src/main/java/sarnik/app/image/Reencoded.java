package sarnik.app.image;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Iterator;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageInputStream;
import javax.imageio.stream.MemoryCacheImageInputStream;
import javax.imageio.stream.MemoryCacheImageOutputStream;
import sarnik.app.web.RefusedException;

/**
 * A picture made anew from what was uploaded: only its pixels are taken over, at most {@value #LONGEST} on a side. What
 * else a file carries (places, names of cameras, scripts, other files) is left behind.
 *
 * @param type its media type
 * @param width pixels
 * @param height pixels
 */
record Reencoded(String type, int width, int height, byte[] bytes) {

    /** Pixels on the longer side. */
    static final int LONGEST = 2400;

    private static final long MOST_PIXELS = 60_000_000;
    private static final float QUALITY = 0.88f;

    /**
     * @throws RefusedException when it is no picture, a broken one, or has more pixels than are looked at
     */
    static Reencoded of(byte[] uploaded) {
        try (ImageInputStream in = new MemoryCacheImageInputStream(new ByteArrayInputStream(uploaded))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext())
                throw new RefusedException("This is no picture that can be read. PNG, JPEG, GIF and BMP are.");
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                return written(Orientation.upright(scaled(read(reader)), Orientation.of(uploaded)));
            } finally {
                reader.dispose();
            }
        } catch (IOException
                | IllegalArgumentException
                | IndexOutOfBoundsException
                | NegativeArraySizeException broken) {
            throw new RefusedException(
                    "The picture is broken and cannot be read to its end. Save it anew and choose it again.");
        }
    }

    private static BufferedImage read(ImageReader reader) throws IOException {
        // The size stands in the head of the file: a bomb is refused before a pixel is unpacked.
        long width = reader.getWidth(0);
        long height = reader.getHeight(0);
        if (width * height > MOST_PIXELS)
            throw new RefusedException(
                    "The picture has %,d × %,d pixels; at most %,d million are looked at. Make it smaller."
                            .formatted(width, height, MOST_PIXELS / 1_000_000));
        ImageReadParam param = reader.getDefaultReadParam();
        int every = (int) Math.max(1, Math.max(width, height) / LONGEST);
        param.setSourceSubsampling(every, every, 0, 0);
        return reader.read(0, param);
    }

    private static BufferedImage scaled(BufferedImage image) {
        double scale = Math.min(1, (double) LONGEST / Math.max(image.getWidth(), image.getHeight()));
        int width = Math.max(1, (int) Math.round(image.getWidth() * scale));
        int height = Math.max(1, (int) Math.round(image.getHeight() * scale));
        boolean clear = image.getColorModel().hasAlpha();
        BufferedImage made =
                new BufferedImage(width, height, clear ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        Graphics2D pen = made.createGraphics();
        pen.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        pen.drawImage(image, 0, 0, width, height, null);
        pen.dispose();
        return made;
    }

    private static Reencoded written(BufferedImage image) throws IOException {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(image, "png", png);
        if (image.getColorModel().hasAlpha()) return made("image/png", image, png);
        ByteArrayOutputStream jpeg = new ByteArrayOutputStream();
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        try (MemoryCacheImageOutputStream out = new MemoryCacheImageOutputStream(jpeg)) {
            writer.setOutput(out);
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            param.setCompressionQuality(QUALITY);
            writer.write(null, new IIOImage(image, null, null), param);
        } finally {
            writer.dispose();
        }
        // Drawings are smaller as PNG and stay sharp; photographs are smaller as JPEG.
        return png.size() <= jpeg.size() ? made("image/png", image, png) : made("image/jpeg", image, jpeg);
    }

    private static Reencoded made(String type, BufferedImage image, ByteArrayOutputStream bytes) {
        return new Reencoded(type, image.getWidth(), image.getHeight(), bytes.toByteArray());
    }

    /** The SHA-256 of the bytes. */
    String name() {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException never) {
            throw new IllegalStateException(never);
        }
    }
}
