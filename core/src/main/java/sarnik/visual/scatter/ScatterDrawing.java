package sarnik.visual.scatter;

import java.util.List;
import sarnik.visual.Axis;
import sarnik.visual.Drawing;
import sarnik.visual.Key;
import sarnik.visual.NamedKey;
import sarnik.visual.Spread;
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
        Dots dots,
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
    public double tells() {
        return Spread.together(dots.x(), dots.y());
    }

    @Override
    public List<NamedKey> keys() {
        return NamedKey.ofColours(colourWords, colours);
    }

    /**
     * The marks, the largest first, column by column: there may be thousands, and so they travel short.
     *
     * @param keys their values of the category
     * @param labels what they are called; null where all are called by their keys
     * @param x {@value #FINE}ths of the axis along
     * @param y {@value #FINE}ths of the upright axis
     * @param radii pixels; one for all where they are alike
     * @param palette the colours that occur
     * @param colours numbers in the palette; one for all where they are alike
     * @param named numbers of those that stand out so far that their name is written beside them
     * @param texts their figures in words: along, upwards, size
     */
    public record Dots(
            List<String> keys,
            List<String> labels,
            int[] x,
            int[] y,
            double[] radii,
            List<String> palette,
            int[] colours,
            int[] named,
            List<List<String>> texts) {

        /** Parts of an axis: a tenth of a pixel on a screen. */
        public static final int FINE = 10_000;

        /** Number of marks. */
        public int count() {
            return keys.size();
        }

        /** What a mark is called. */
        public String label(int dot) {
            return labels == null ? keys.get(dot) : labels.get(dot);
        }
    }

    /**
     * A straight line.
     *
     * @param from where it begins, 0 to 1 of each axis
     * @param to where it ends
     * @param words how well it fits: "r = 0.82 over 120 marks"
     */
    public record Fit(double[] from, double[] to, String words) {}
}
