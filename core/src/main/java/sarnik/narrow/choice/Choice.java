package sarnik.narrow.choice;

import java.util.List;
import sarnik.narrow.Filter;
import sarnik.narrow.Terms;

/**
 * Any of the values of a text or yes/no column.
 *
 * @param one whether one value is chosen at a time; null for any number
 * @param all the words for nothing chosen; null for "all"
 * @param sequence values in the author's own order, the others behind them; null for the alphabet
 * @param most whether the values with most rows come first, behind those of the author's order; null for no
 */
public record Choice(
        String page,
        int order,
        long dataset,
        String column,
        String title,
        Terms terms,
        Boolean one,
        String all,
        List<String> sequence,
        Boolean most)
        implements Filter {

    /** Any values, on its own page. */
    public Choice(String page, int order, long dataset, String column, String title) {
        this(page, order, dataset, column, title, null, null, null, null, null);
    }
}
