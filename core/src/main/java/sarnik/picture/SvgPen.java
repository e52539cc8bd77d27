package sarnik.picture;

import java.awt.Shape;
import java.awt.geom.PathIterator;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.Locale;
import javax.imageio.ImageIO;

/** Draws into SVG (Scalable Vector Graphics 1.1). */
final class SvgPen implements Pen {

    private final StringBuilder svg = new StringBuilder();
    private int clips;
    private boolean hasLines;

    SvgPen(int width, int height, String title) {
        svg.append(("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%d\" height=\"%d\" viewBox=\"0 0 %d %d\" "
                        + "font-family=\"Hanken Grotesk, Helvetica, Arial, sans-serif\">\n")
                .formatted(width, height, width, height));
        svg.append("<title>").append(escaped(title)).append("</title>\n<style>\n");
        // The letters go along, so that the picture looks the same where they are not known.
        embed("Hanken Grotesk", 400, Face.TEXT);
        embed("Hanken Grotesk", 600, Face.BOLD);
        embed("Bricolage Grotesque", 600, Face.TITLE);
        svg.append("</style>\n");
        svg.append("<defs><pattern id=\"none\" width=\"6\" height=\"6\" patternUnits=\"userSpaceOnUse\" "
                + "patternTransform=\"rotate(45)\"><line x1=\"0\" y1=\"0\" x2=\"0\" y2=\"6\" "
                + "stroke=\"#8a8f80\" stroke-width=\"1.6\"/></pattern></defs>\n");
    }

    private void embed(String family, int weight, Face face) {
        svg.append("@font-face{font-family:\"%s\";font-weight:%d;src:url(data:font/ttf;base64,"
                        .formatted(family, weight))
                .append(Base64.getEncoder().encodeToString(face.file()))
                .append(")}\n");
    }

    @Override
    public void fill(Shape shape, String colour, double opacity) {
        path(
                shape,
                "fill=\"%s\" fill-rule=\"evenodd\"%s"
                        .formatted(colour, opacity < 1 ? " fill-opacity=\"" + plain(opacity) + "\"" : ""));
    }

    @Override
    public void hatch(Shape shape, String colour) {
        path(shape, "fill=\"url(#none)\" fill-rule=\"evenodd\"");
    }

    @Override
    public void lines(Shape shape, String colour) {
        if (!hasLines)
            svg.append("<defs><pattern id=\"unsure\" width=\"5\" height=\"5\" patternUnits=\"userSpaceOnUse\" "
                            + "patternTransform=\"rotate(-45)\"><line x1=\"0\" y1=\"0\" x2=\"0\" y2=\"5\" stroke=\"")
                    .append(colour)
                    .append("\" stroke-opacity=\"0.75\" stroke-width=\"1.2\"/></pattern></defs>\n");
        hasLines = true;
        path(shape, "fill=\"url(#unsure)\" fill-rule=\"evenodd\"");
    }

    @Override
    public void stroke(Shape shape, String colour, double width, double opacity) {
        path(
                shape,
                "fill=\"none\" stroke=\"%s\" stroke-width=\"%s\" stroke-linejoin=\"round\" stroke-linecap=\"round\"%s"
                        .formatted(
                                colour, plain(width), opacity < 1 ? " stroke-opacity=\"" + plain(opacity) + "\"" : ""));
    }

    @Override
    public void dashed(Shape shape, String colour, double width, double dash, double gap) {
        path(
                shape,
                "fill=\"none\" stroke=\"%s\" stroke-width=\"%s\" stroke-dasharray=\"%s %s\""
                        .formatted(colour, plain(width), plain(dash), plain(gap)));
    }

    @Override
    public void image(BufferedImage image, double x, double y, double width, double height) {
        try (ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            ImageIO.write(image, "png", out);
            svg.append(("<image x=\"%s\" y=\"%s\" width=\"%s\" height=\"%s\" preserveAspectRatio=\"none\" "
                                    + "href=\"data:image/png;base64,")
                            .formatted(plain(x), plain(y), plain(width), plain(height)))
                    .append(Base64.getEncoder().encodeToString(out.toByteArray()))
                    .append("\"/>\n");
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    @Override
    public void text(String text, double x, double y, double size, Face face, String colour, String halo) {
        String rim = halo == null
                ? ""
                : " stroke=\"%s\" stroke-width=\"3\" stroke-linejoin=\"round\" paint-order=\"stroke\"".formatted(halo);
        svg.append("<text x=\"%s\" y=\"%s\" font-size=\"%s\"%s fill=\"%s\"%s>"
                        .formatted(plain(x), plain(y), plain(size), looks(face), colour, rim))
                .append(escaped(text))
                .append("</text>\n");
    }

    /** What differs from the plain face, which the whole picture has. */
    private static String looks(Face face) {
        return switch (face) {
            case TEXT -> "";
            case BOLD -> " font-weight=\"600\"";
            case TITLE ->
                " font-weight=\"600\" font-family=\"Bricolage Grotesque, Hanken Grotesk, Helvetica, Arial, "
                        + "sans-serif\"";
        };
    }

    @Override
    public void clip(Shape shape) {
        clips++;
        svg.append("<clipPath id=\"c%d\">".formatted(clips));
        path(shape, "");
        svg.append("</clipPath>\n<g clip-path=\"url(#c%d)\">\n".formatted(clips));
    }

    @Override
    public void unclip() {
        svg.append("</g>\n");
    }

    String finish() {
        return svg + "</svg>\n";
    }

    private void path(Shape shape, String looks) {
        StringBuilder d = new StringBuilder();
        double[] p = new double[6];
        for (PathIterator i = shape.getPathIterator(null); !i.isDone(); i.next()) {
            switch (i.currentSegment(p)) {
                case PathIterator.SEG_MOVETO ->
                    d.append('M').append(plain(p[0])).append(' ').append(plain(p[1]));
                case PathIterator.SEG_LINETO ->
                    d.append('L').append(plain(p[0])).append(' ').append(plain(p[1]));
                case PathIterator.SEG_QUADTO ->
                    d.append('Q')
                            .append(plain(p[0]))
                            .append(' ')
                            .append(plain(p[1]))
                            .append(' ')
                            .append(plain(p[2]))
                            .append(' ')
                            .append(plain(p[3]));
                case PathIterator.SEG_CUBICTO -> {
                    d.append('C');
                    for (int k = 0; k < 6; k++) d.append(k == 0 ? "" : " ").append(plain(p[k]));
                }
                default -> d.append('Z');
            }
        }
        if (d.length() > 0)
            svg.append("<path d=\"").append(d).append("\" ").append(looks).append("/>\n");
    }

    /** Two decimals of a pixel are enough. */
    private static String plain(double value) {
        String text = String.format(Locale.ROOT, "%.2f", value);
        return text.replaceFirst("\\.?0+$", "");
    }

    private static String escaped(String text) {
        StringBuilder clean = new StringBuilder();
        text.codePoints().filter(c -> c >= 32 || c == '\n' || c == '\t').forEach(clean::appendCodePoint);
        return clean.toString()
                .replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
