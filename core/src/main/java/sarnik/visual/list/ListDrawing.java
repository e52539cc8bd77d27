package sarnik.visual.list;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param lines those in sight
 * @param from number of the first line in sight
 * @param all how many lines there are
 * @param page how many lines make a page
 * @param unit what one line stands for: "row", or the column
 * @param notes sentences about what is not as one would expect
 */
public record ListDrawing(
        String title, List<Line> lines, int from, int all, int page, String unit, List<String> notes, Trail trail)
        implements Drawing {

    /**
     * @param key the value that a pick takes; null where it cannot be picked
     * @param text what it says
     * @param below what stands below it; null for nothing
     * @param state good, watch or bad; null for no judgement
     * @param record what it shows when it is opened
     */
    public record Line(String key, String text, String below, String state, List<Entry> record) {}

    /**
     * @param words what it is
     * @param text its value, whole
     */
    public record Entry(String words, String text) {}
}
