package sarnik.visual.table;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param heads the columns
 * @param rows those in sight
 * @param from number of the first row in sight
 * @param all how many rows there are
 * @param total the row of all; null for none
 * @param lineWords what the tiny lines of rows show; null for none
 * @param page how many rows make a page
 * @param notes sentences about what is not as one would expect
 */
public record TableDrawing(
        String title,
        List<Head> heads,
        List<Row> rows,
        int from,
        int all,
        Row total,
        String lineWords,
        int page,
        List<String> notes,
        Trail trail)
        implements Drawing {

    /**
     * @param figure whether it holds figures, which stand to the right
     * @param sorted {@code up} or {@code down} where rows are ordered by it; null where they are not
     */
    public record Head(String words, boolean figure, String sorted) {}

    /**
     * @param key the value of the first category, by which the row is picked; null for a total
     * @param cells its texts
     * @param tints colour behind each cell; null for none
     * @param states good, watch or bad for each cell; null for none
     * @param sure how sure the rate in each cell is, null for those that are none; null for none of all
     * @param line a tiny line, heights 0 to 1, NaN for a gap; null for none
     * @param sub whether it is a subtotal
     */
    public record Row(
            String key,
            List<String> cells,
            List<String> tints,
            List<String> states,
            List<Sure> sure,
            List<Double> line,
            boolean sub) {}

    /**
     * How sure a rate is.
     *
     * @param words where it may well lie
     * @param unsure whether it rests on too few to be sure
     */
    public record Sure(String words, boolean unsure) {}
}
