package sarnik.visual.unlikely;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param lines what stands out, the farthest first
 * @param found how many stand out in all
 * @param looked at how many values was looked
 * @param notes sentences about how to read it
 */
public record UnlikelyDrawing(String title, List<Line> lines, int found, int looked, List<String> notes, Trail trail)
        implements Drawing {

    /**
     * Something that stands out.
     *
     * @param key what a pick takes
     * @param text what it is called
     * @param when the step of time; null where it is compared with neighbours
     * @param value in words
     * @param why in a sentence
     * @param up whether it is more than usual
     * @param series its history, or its neighbours' values, 0 to 1 between the least and the greatest of them; NaN
     *     where there is none
     * @param at which of the history it is; of neighbours where it lies itself, in thousandths
     * @param low where what is usual begins, 0 to 1
     * @param high where it ends
     */
    public record Line(
            String key,
            String text,
            String when,
            String value,
            String why,
            boolean up,
            double[] series,
            int at,
            double low,
            double high) {}
}
