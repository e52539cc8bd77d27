package sarnik.visual.details;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param unit what has a sheet each: "town"
 * @param name what the one in sight is called; null where there is none
 * @param key its value
 * @param number which of them it is, from 1
 * @param all how many there are
 * @param before value of the one before; null for none
 * @param after value of the one after; null for none
 * @param gone whether the one that was asked for is not among those left
 * @param figures what is measured
 * @param groups what is told
 * @param tied rows of other datasets
 * @param spot where it lies; null where that is not shown
 * @param notes sentences about what is not as one would expect
 */
public record DetailsDrawing(
        String title,
        String unit,
        String name,
        String key,
        int number,
        int all,
        String before,
        String after,
        boolean gone,
        List<Counted> figures,
        List<Told> groups,
        List<TiedRows> tied,
        Spot spot,
        List<String> notes,
        Trail trail)
        implements Drawing {

    /**
     * @param words what it is
     * @param text its value, whole
     */
    public record Entry(String words, String text) {}

    /**
     * @param line heights of its tiny line, 0 to 1, NaN in gaps; null for none
     * @param lineWords what the line is of, in words; null for none
     */
    public record Counted(String words, String text, List<Double> line, String lineWords) {}

    /** A group of what is told. */
    public record Told(String title, List<Entry> entries) {}

    /**
     * Rows of another dataset.
     *
     * @param words what they are
     * @param heads their columns
     * @param rows the first of them
     * @param all how many there are
     */
    public record TiedRows(String words, List<String> heads, List<List<String>> rows, int all) {}

    /**
     * Where it lies among the others.
     *
     * @param others where they lie, x and y in turn, 0 to 1 from the upper left
     * @param x where it lies
     * @param y where it lies
     * @param aspect width by height
     * @param words its position in words
     */
    public record Spot(double[] others, double x, double y, double aspect, String words) {}
}
