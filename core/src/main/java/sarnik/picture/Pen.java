package sarnik.picture;

import java.awt.Shape;

/** What a picture is drawn with. Coordinates are pixels from the upper left corner; colours are #rrggbb. */
interface Pen {

    /** Fills a shape, whose holes are those of the even-odd rule. */
    void fill(Shape shape, String colour, double opacity);

    /** Fills a shape with diagonal lines: there is no data. */
    void hatch(Shape shape, String colour);

    void stroke(Shape shape, String colour, double width, double opacity);

    /**
     * @param halo colour of the rim that keeps text readable; null for none
     */
    void text(String text, double x, double y, double size, boolean bold, String colour, String halo);

    /** Leaves out what lies outside a rectangle, until {@link #unclip}. */
    void clip(double x, double y, double width, double height);

    void unclip();
}
