package sarnik.picture;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.Rectangle;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.TexturePaint;
import java.awt.font.TextLayout;
import java.awt.geom.AffineTransform;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import javax.imageio.ImageIO;

/** Draws into a picture of pixels. */
final class RasterPen implements Pen {

    private final BufferedImage picture;
    private final Graphics2D graphics;
    private final Deque<Optional<Shape>> clips = new ArrayDeque<>();

    /**
     * @param ratio pixels of the picture for each pixel of the drawing
     */
    RasterPen(int width, int height, int ratio) {
        this(new BufferedImage(width * ratio, height * ratio, BufferedImage.TYPE_INT_RGB), ratio);
    }

    private RasterPen(BufferedImage picture, double ratio) {
        this.picture = picture;
        graphics = picture.createGraphics();
        graphics.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        graphics.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        graphics.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        graphics.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        graphics.scale(ratio, ratio);
    }

    /** A square picture that is clear where nothing is drawn. */
    static RasterPen clear(int size, double ratio) {
        int pixels = (int) Math.round(size * ratio);
        return new RasterPen(new BufferedImage(pixels, pixels, BufferedImage.TYPE_INT_ARGB), ratio);
    }

    private static Color colour(String hex, double opacity) {
        Color plain = Color.decode(hex);
        return new Color(plain.getRed(), plain.getGreen(), plain.getBlue(), (int)
                Math.round(255 * Math.max(0, Math.min(1, opacity))));
    }

    @Override
    public void fill(Shape shape, String colour, double opacity) {
        graphics.setPaint(colour(colour, opacity));
        graphics.fill(evenOdd(shape));
    }

    private static Shape evenOdd(Shape shape) {
        if (!(shape instanceof Path2D path) || path.getWindingRule() == Path2D.WIND_EVEN_ODD) return shape;
        Path2D copy = new Path2D.Double(path);
        copy.setWindingRule(Path2D.WIND_EVEN_ODD);
        return copy;
    }

    @Override
    public void hatch(Shape shape, String colour) {
        diagonal(shape, Color.decode(colour).getRGB(), 6, true);
    }

    @Override
    public void lines(Shape shape, String colour) {
        diagonal(shape, Color.decode(colour).getRGB() & 0xBFFFFFFF, 5, false);
    }

    private void diagonal(Shape shape, int argb, int step, boolean up) {
        BufferedImage tile = new BufferedImage(step, step, BufferedImage.TYPE_INT_ARGB);
        for (int i = 0; i < step; i++) tile.setRGB(i, up ? step - 1 - i : i, argb);
        graphics.setPaint(new TexturePaint(tile, new Rectangle(0, 0, step, step)));
        graphics.fill(evenOdd(shape));
    }

    @Override
    public void stroke(Shape shape, String colour, double width, double opacity) {
        graphics.setPaint(colour(colour, opacity));
        graphics.setStroke(new BasicStroke((float) width, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        graphics.draw(shape);
    }

    @Override
    public void dashed(Shape shape, String colour, double width, double dash, double gap) {
        graphics.setPaint(colour(colour, 1));
        graphics.setStroke(new BasicStroke(
                (float) width,
                BasicStroke.CAP_BUTT,
                BasicStroke.JOIN_ROUND,
                10,
                new float[] {(float) dash, (float) gap},
                0));
        graphics.draw(shape);
    }

    @Override
    public void image(BufferedImage image, double x, double y, double width, double height) {
        // To whole pixels, so that no seam shows between tiles.
        int left = (int) Math.round(x);
        int top = (int) Math.round(y);
        graphics.drawImage(
                image, left, top, (int) Math.round(x + width) - left, (int) Math.round(y + height) - top, null);
    }

    @Override
    public void text(String text, double x, double y, double size, Face face, String colour, String halo) {
        if (text.isBlank()) return;
        TextLayout layout = face.layout(text, size, graphics.getFontRenderContext());
        if (halo != null) stroke(layout.getOutline(AffineTransform.getTranslateInstance(x, y)), halo, 3, 1);
        graphics.setPaint(colour(colour, 1));
        layout.draw(graphics, (float) x, (float) y);
    }

    @Override
    public void clip(Shape shape) {
        clips.push(Optional.ofNullable(graphics.getClip()));
        graphics.clip(shape);
    }

    @Override
    public void unclip() {
        graphics.setClip(clips.pop().orElse(null));
    }

    /** The picture as PNG. */
    byte[] finish() {
        graphics.dispose();
        try (ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            ImageIO.write(picture, "png", out);
            return out.toByteArray();
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }
}
