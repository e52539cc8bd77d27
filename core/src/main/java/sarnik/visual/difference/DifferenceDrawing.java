package sarnik.visual.difference;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param head what differs, and by how much; empty where nothing is picked
 * @param words what the figures of a line are called: its part of the difference, of what is picked, of the rest, and
 *     how much of each it is; of shares without the first
 * @param lines what parts the one from the other, the most first
 * @param numbers columns of numbers whose usual value is another than that of all, the farthest first
 * @param notes sentences about how to read it, and what is left out
 */
public record DifferenceDrawing(
        String title,
        String head,
        List<String> words,
        List<Line> lines,
        List<Number> numbers,
        List<String> notes,
        Trail trail)
        implements Drawing {

    /**
     * A value of a column.
     *
     * @param key what a pick takes
     * @param column what its column is called
     * @param text what it is called
     * @param part how much more or less it brings than its size alone would, of the most in the list, -1 to 1; of
     *     shares their difference
     * @param own the same in words
     * @param figures in the order of the words
     * @param chance whether chance alone may well have made it
     * @param few whether it rests on few
     */
    public record Line(
            String key,
            String column,
            String text,
            double part,
            String own,
            List<String> figures,
            boolean chance,
            boolean few) {}

    /**
     * A column of numbers.
     *
     * @param text what it is called
     * @param here its middle value among what is picked
     * @param all among all
     * @param away how far that is, in widths of the middle of all, of the farthest in the list, -1 to 1
     */
    public record Number(String text, String here, String all, double away) {}
}
