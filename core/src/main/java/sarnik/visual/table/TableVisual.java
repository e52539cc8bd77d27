package sarnik.visual.table;

import java.util.List;
import sarnik.data.Format;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.States;
import sarnik.visual.Visual;

/**
 * A table of figures: a row for each combination of categories.
 *
 * @param categories columns whose values make the rows
 * @param measures what is measured, a column each
 * @param order what the rows are ordered by, the most important first; null for the first measure, the most first
 * @param first how many rows are shown at most; null for all, page by page
 * @param totals whether the last row is of all; null for no
 * @param subtotals whether the rows of each value of the first category end with one of all of them; null for no
 * @param heat whether cells are tinted by their size within their column; null for no
 * @param looks which figures are good and which are bad; null for no judgement
 * @param over column of time over which each row has a tiny line of the first measure; null for none
 * @param format how figures are written; null for the usual
 * @param rule a standing rule; null for none
 */
public record TableVisual(
        String page,
        Box at,
        String title,
        long dataset,
        List<String> categories,
        List<Measure> measures,
        List<By> order,
        Integer first,
        Boolean totals,
        Boolean subtotals,
        Boolean heat,
        List<Look> looks,
        String over,
        Format format,
        Rule rule)
        implements Visual {

    /**
     * @param measure which measure, said whole so that it stays the same where the columns change
     * @param states when it is good and when it is bad
     */
    public record Look(Measure measure, States states) {}

    /**
     * @param column number of the column, categories first, from 0
     * @param down whether the largest come first
     */
    public record By(int column, boolean down) {}
}
