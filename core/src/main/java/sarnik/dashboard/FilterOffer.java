package sarnik.dashboard;

import java.util.List;
import java.util.Optional;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.Extremes;
import sarnik.table.TimeColumn;

/**
 * What a filter lets the reader choose from.
 *
 * @param words the words before the control
 * @param values the values of a choice, ascending, at most {@link #MOST}; empty for dates
 * @param more how many values there are beyond those
 * @param from the first day of a range, ISO 8601; null for a choice or where there is no date
 * @param to the last day
 * @param misfit a sentence that says why nothing can be chosen; null where something can
 */
public record FilterOffer(String words, List<String> values, int more, String from, String to, String misfit) {

    /** The most values that a reader can be asked to choose from. */
    public static final int MOST = 1000;

    /** What this filter offers; a filter that no longer fits its data offers nothing and says why. */
    public static FilterOffer of(Filter filter, Datasets datasets) {
        Column column = datasets.ready(filter.dataset())
                .flatMap(d -> d.table().find(filter.column()))
                .orElse(null);
        if (column == null)
            return misfit(
                    filter,
                    "The column of this filter has gone. Choose another in its brief, or take the filter away.");
        if (filter instanceof Filter.Choice) {
            if (!(column instanceof CodedColumn coded))
                return misfit(
                        filter,
                        "This column no longer holds text to choose from. Choose another in the filter's brief.");
            List<String> sorted = coded.dictionary().stream().sorted().toList();
            int shown = Math.min(MOST, sorted.size());
            return new FilterOffer(filter.words(), sorted.subList(0, shown), sorted.size() - shown, null, null, null);
        }
        if (!(column instanceof DateColumn) && !(column instanceof TimeColumn)) {
            return misfit(filter, "This column no longer holds dates. Choose another in the filter's brief.");
        }
        Optional<Extremes> ends = Extremes.of(column);
        return new FilterOffer(
                filter.words(),
                List.of(),
                0,
                ends.map(e -> day(column, e.lowest())).orElse(null),
                ends.map(e -> day(column, e.highest())).orElse(null),
                null);
    }

    private static String day(Column column, int row) {
        return column.text(row).substring(0, 10);
    }

    private static FilterOffer misfit(Filter filter, String why) {
        return new FilterOffer(filter.words(), List.of(), 0, null, null, why);
    }
}
