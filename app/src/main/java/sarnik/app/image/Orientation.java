package sarnik.app.image;

import java.awt.Graphics2D;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;

/**
 * How a photograph has to be turned to stand upright, as cameras write it into JPEG files (Exif 2.32, tag 0x0112): its
 * pixels are turned when it is made anew, for what said so is left behind.
 */
final class Orientation {

    private static final int UPRIGHT = 1;
    private static final int APP1 = 0xFFE1;
    private static final int START_OF_SCAN = 0xFFDA;
    private static final String EXIF = "Exif\0\0";
    private static final int TAG = 0x0112;

    private Orientation() {}

    /**
     * @param file what was uploaded, of any form
     * @return 1 to 8; 1 where nothing is said or it cannot be read
     */
    static int of(byte[] file) {
        try {
            ByteBuffer in = ByteBuffer.wrap(file);
            if ((in.getShort() & 0xFFFF) != 0xFFD8) return UPRIGHT;
            for (; ; ) {
                int marker = in.getShort() & 0xFFFF;
                int length = (in.getShort() & 0xFFFF) - 2;
                if (marker == START_OF_SCAN || marker < 0xFF00 || length < 0) return UPRIGHT;
                if (marker == APP1 && startsWithExif(in)) {
                    int at = in.position() + EXIF.length();
                    return inTiff(
                            ByteBuffer.wrap(file, at, length - EXIF.length()).slice());
                }
                in.position(in.position() + length);
            }
        } catch (BufferUnderflowException | IllegalArgumentException | IndexOutOfBoundsException broken) {
            return UPRIGHT;
        }
    }

    private static boolean startsWithExif(ByteBuffer in) {
        byte[] head = new byte[EXIF.length()];
        in.duplicate().get(head);
        return new String(head, StandardCharsets.ISO_8859_1).equals(EXIF);
    }

    private static int inTiff(ByteBuffer tiff) {
        tiff.order(tiff.getShort(0) == 0x4949 ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        int directory = tiff.getInt(4);
        int entries = tiff.getShort(directory) & 0xFFFF;
        for (int e = 0; e < entries; e++) {
            int entry = directory + 2 + 12 * e;
            if ((tiff.getShort(entry) & 0xFFFF) != TAG) continue;
            int said = tiff.getShort(entry + 8);
            return said >= 1 && said <= 8 ? said : UPRIGHT;
        }
        return UPRIGHT;
    }

    /** The image turned upright. */
    static BufferedImage upright(BufferedImage image, int orientation) {
        if (orientation == UPRIGHT) return image;
        int w = image.getWidth();
        int h = image.getHeight();
        // Where a pixel (x, y) goes: x' = m00 x + m01 y + m02, y' = m10 x + m11 y + m12.
        AffineTransform turn = switch (orientation) {
            case 2 -> new AffineTransform(-1, 0, 0, 1, w, 0);
            case 3 -> new AffineTransform(-1, 0, 0, -1, w, h);
            case 4 -> new AffineTransform(1, 0, 0, -1, 0, h);
            case 5 -> new AffineTransform(0, 1, 1, 0, 0, 0);
            case 6 -> new AffineTransform(0, 1, -1, 0, h, 0);
            case 7 -> new AffineTransform(0, -1, -1, 0, h, w);
            default -> new AffineTransform(0, -1, 1, 0, 0, w);
        };
        boolean lies = orientation >= 5;
        BufferedImage made = new BufferedImage(lies ? h : w, lies ? w : h, image.getType());
        Graphics2D pen = made.createGraphics();
        pen.drawImage(image, turn, null);
        pen.dispose();
        return made;
    }
}
