package sarnik.visual.list;

import java.util.List;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.States;
import sarnik.visual.Visual;

/**
 * A list: a line of words for each row, or for each value of a column.
 *
 * @param each column of whose values each has a line; null for a line for each row
 * @param text what a line says, with fields in braces: of rows their columns, of values the column and the figures
 * @param below what stands below it, in small letters; null for nothing
 * @param figures of values: what can stand in braces, and what is told when a line is opened; null for rows
 * @param pick column of rows whose value a pick takes; null where rows cannot be picked. Values are picked themselves
 * @param order what lines are ordered by; null for the order of the rows, or for the most of the first figure first
 * @param mark when a line is good and when it is bad; null for no judgement
 * @param opened columns that a row shows when it is opened; null for all
 * @param rule a standing rule; null for none
 */
public record Listing(
        String page,
        Box at,
        String title,
        long dataset,
        String each,
        String text,
        String below,
        List<Measure> figures,
        String pick,
        By order,
        Mark mark,
        List<String> opened,
        Rule rule)
        implements Visual {

    /**
     * @param by name of a column of rows; of values the words of a figure, or the column itself
     * @param down whether the most come first
     */
    public record By(String by, boolean down) {}

    /**
     * @param of name of the column, or the words of the figure, that decides
     * @param limits of numbers: from where on they are good and bad; null for words
     * @param good of words: those that are good; null for none
     * @param bad of words: those that are bad; null for none
     */
    public record Mark(String of, States limits, List<String> good, List<String> bad) {

        /** good, watch or bad; null for neither. */
        String of(String text, double value) {
            if (limits != null) return limits.of(value);
            if (text == null) return null;
            if (good != null && good.contains(text)) return "good";
            return bad != null && bad.contains(text) ? "bad" : null;
        }
    }
}
