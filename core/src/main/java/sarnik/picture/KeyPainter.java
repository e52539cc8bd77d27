package sarnik.picture;

import static sarnik.language.Language.phrase;

import java.awt.geom.Ellipse2D;
import java.awt.geom.Rectangle2D;
import java.util.List;
import java.util.stream.IntStream;
import sarnik.scale.NumberWords;
import sarnik.visual.Key;
import sarnik.visual.map.Layer;
import sarnik.visual.map.LayerDrawn;

/** Draws the keys of a picture, one below the other. */
final class KeyPainter {

    private static final double WIDTH = 180;

    private final Pen pen;
    private final Look look;
    private final double x;
    private double y;

    /**
     * @param x of the left edge
     * @param y of the upper edge
     */
    KeyPainter(Pen pen, Look look, double x, double y) {
        this.pen = pen;
        this.look = look;
        this.x = x;
        this.y = y;
    }

    /**
     * @param colours of the classes, as the picture shows them
     */
    void paint(LayerDrawn layer, List<String> colours) {
        Key key = layer.key();
        y += 12;
        pen.text(layer.head().name(), x, y, 12, Face.BOLD, look.ink(), null);
        if (key.sizeWords() != null) sizes(key, layer instanceof LayerDrawn.OfFlows);
        if (key.colourWords() != null) classes(layer, colours);
        if (!wearsShapes(key)) for (Key.ShapeSwatch swatch : key.shapes()) shape(swatch, look.ink());
        y += 10;
    }

    /** What sizes or colours stand for, on as many lines as it takes. */
    private void words(String words) {
        StringBuilder line = new StringBuilder();
        for (String word : words.split(" ")) {
            if (line.length() > 0 && Face.TEXT.wide(line + " " + word, 11) > WIDTH) {
                line(line.toString(), 0, 11, look.faint());
                line.setLength(0);
            }
            line.append(line.length() == 0 ? "" : " ").append(word);
        }
        line(line.toString(), 0, 11, look.faint());
    }

    private void line(String text, double indent, double size, String colour) {
        y += 15;
        pen.text(text, x + indent, y, size, Face.TEXT, colour, null);
    }

    private void sizes(Key key, boolean widths) {
        words(key.sizeWords());
        double largest = key.circles().isEmpty() ? 0 : key.circles().get(0).radius();
        for (Key.Circle circle : key.circles()) {
            double r = circle.radius();
            if (widths) pen.fill(new Rectangle2D.Double(x, y + 9 - r / 2, 42, r), look.ink(), 1);
            else pen.stroke(new Ellipse2D.Double(x + largest - r, y + 4, 2 * r, 2 * r), look.ink(), 0.9, 1);
            pen.text(
                    circle.text(),
                    x + (widths ? 50 : 2 * largest + 10),
                    y + (widths ? 13 : r + 8),
                    11,
                    Face.TEXT,
                    look.ink(),
                    null);
            y += widths ? 17 : Math.max(15, 2 * r + 4);
        }
        y += 4;
    }

    private void classes(LayerDrawn layer, List<String> colours) {
        Key key = layer.key();
        words(key.colourWords());
        if (key.ramp()) {
            for (int i = 0; i < colours.size(); i++)
                pen.fill(
                        new Rectangle2D.Double(x + i * 150.0 / colours.size(), y + 5, 150.0 / colours.size() + 0.3, 10),
                        colours.get(i),
                        1);
            y += 20;
        } else {
            for (int i = 0; i < colours.size(); i++) {
                if (wearsShapes(key)) {
                    shape(key.shapes().get(i), colours.get(i));
                    continue;
                }
                pen.fill(new Rectangle2D.Double(x, y + 5, 14, 12), colours.get(i), 1);
                beside(key.colours().get(i).text());
            }
        }
        if (key.missing() > 0) {
            pen.hatch(new Rectangle2D.Double(x, y + 5, 14, 12), look.faint());
            beside(phrase("no data"));
        }
        if (key.unsure() > 0) {
            pen.lines(new Rectangle2D.Double(x, y + 5, 14, 12), look.ink());
            beside(key.unsureWords());
        }
        beyond(
                layer,
                key.below(),
                phrase("below {0}", key.low() == null ? "" : key.read().full(key.low())),
                false);
        beyond(
                layer,
                key.above(),
                phrase("above {0}", key.high() == null ? "" : key.read().full(key.high())),
                true);
    }

    /** Whether colours and shapes stand for the same values: then one list says both. */
    private static boolean wearsShapes(Key key) {
        return key.colourWords() != null
                && key.shapes().size() == key.colours().size()
                && IntStream.range(0, key.shapes().size())
                        .allMatch(i -> key.shapes()
                                .get(i)
                                .text()
                                .equals(key.colours().get(i).text()));
    }

    private void shape(Key.ShapeSwatch swatch, String colour) {
        pen.fill(Marks.of(Layer.Shape.values()[swatch.shape()], x + 7, y + 11, 5), colour, 1);
        beside(swatch.text());
    }

    private void beyond(LayerDrawn layer, int[] marks, String words, boolean up) {
        if (marks.length == 0) return;
        if (Marks.beyondIsMarked(layer)) pen.fill(Marks.arrow(x + 7, y + 11, 4, up), look.ink(), 1);
        beside(NumberWords.full(marks.length) + " " + words);
    }

    /** The words beside a swatch. */
    private void beside(String text) {
        line(text, 21, 12, look.ink());
        y += 2;
    }
}
