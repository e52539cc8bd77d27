package sarnik.picture;

import java.awt.Shape;
import java.awt.image.BufferedImage;

/** What a picture is drawn with. Coordinates are pixels from the upper left corner; colours are #rrggbb. */
interface Pen {

    /** Fills a shape, whose holes are those of the even-odd rule. */
    void fill(Shape shape, String colour, double opacity);

    /** Fills a shape with diagonal lines: there is no data. */
    void hatch(Shape shape, String colour);

    /** Draws lines that lean the other way over what a shape was filled with: what it stands for rests on too few. */
    void lines(Shape shape, String colour);

    void stroke(Shape shape, String colour, double width, double opacity);

    /** Strokes with dashes and gaps of these lengths. */
    void dashed(Shape shape, String colour, double width, double dash, double gap);

    /** Puts a picture into a rectangle. */
    void image(BufferedImage image, double x, double y, double width, double height);

    /**
     * @param halo colour of the rim that keeps text readable; null for none
     */
    void text(String text, double x, double y, double size, Face face, String colour, String halo);

    /** Leaves out what lies outside a shape, and outside those that hold already, until {@link #unclip}. */
    void clip(Shape shape);

    void unclip();
}
