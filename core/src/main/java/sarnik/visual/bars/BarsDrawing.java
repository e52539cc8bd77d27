package sarnik.visual.bars;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param words what is measured
 * @param bars in their order
 * @param others how many bars are not shown, 0 for none
 */
public record BarsDrawing(String title, String words, List<Bar> bars, int others, Trail trail) implements Drawing {

    /**
     * @param key the category's value, null for missing
     * @param start where the bar starts, 0 to 1 of the width
     * @param end where it ends
     */
    public record Bar(String key, String label, double start, double end, String text, String full) {}
}
