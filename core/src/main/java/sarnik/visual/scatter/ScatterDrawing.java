package sarnik.visual.scatter;

import java.util.List;
import sarnik.visual.Axis;
import sarnik.visual.Drawing;
import sarnik.visual.Key;
import sarnik.visual.NamedKey;
import sarnik.visual.Trail;

/**
 * @param across the axis along
 * @param up the upright axis
 * @param dots the marks, the largest first
 * @param fit the line of least squares; null for none
 * @param cut where the quarters are cut, 0 to 1 of each axis; null for none
 * @param quarters what lies in each quarter, in words: upper left, upper right, lower left, lower right
 * @param sizeWords what sizes stand for; null for one size
 * @param colourWords what colours stand for; null for one
 * @param colours what each colour stands for
 * @param notes sentences about what is not as one would expect
 */
public record ScatterDrawing(
        String title,
        Axis across,
        Axis up,
        List<Dot> dots,
        Fit fit,
        double[] cut,
        List<String> quarters,
        String sizeWords,
        String colourWords,
        List<Key.Swatch> colours,
        List<String> notes,
        Trail trail)
        implements Drawing {

    @Override
    public List<NamedKey> keys() {
        return NamedKey.ofColours(colourWords, colours);
    }

    /**
     * @param x 0 to 1 of the axis along
     * @param y 0 to 1 of the upright axis
     * @param radius pixels
     * @param named whether it stands out so far that its name is written beside it
     * @param texts its figures in words: along, upwards, size
     */
    public record Dot(
            String key,
            String label,
            double x,
            double y,
            double radius,
            String colour,
            boolean named,
            List<String> texts) {}

    /**
     * A straight line.
     *
     * @param from where it begins, 0 to 1 of each axis
     * @param to where it ends
     * @param words how well it fits: "r = 0.82 over 120 marks"
     */
    public record Fit(double[] from, double[] to, String words) {}
}
