package sarnik.dashboard;

import java.util.List;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.DateColumn;
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
        Column column = datasets.find(filter.dataset()).flatMap(d -> d.table().find(filter.column())).orElse(null);
        if (column == null) return misfit(filter, "The column of this filter has gone. Choose another in its brief, or take the filter away.");
        if (filter instanceof Filter.Choice) {
            if (!(column instanceof CodedColumn coded)) return misfit(filter, "This column no longer holds text to choose from. Choose another in the filter's brief.");
            List<String> sorted = coded.dictionary().stream().sorted().toList();
            int shown = Math.min(MOST, sorted.size());
            return new FilterOffer(filter.words(), sorted.subList(0, shown), sorted.size() - shown, null, null, null);
        }
        if (!(column instanceof DateColumn) && !(column instanceof TimeColumn)) {
            return misfit(filter, "This column no longer holds dates. Choose another in the filter's brief.");
        }
        String first = null;
        String last = null;
        for (int row : extremes(column)) {
            if (row < 0) continue;
            String day = column.text(row).substring(0, 10);
            if (first == null) first = day;
            last = day;
        }
        return new FilterOffer(filter.words(), List.of(), 0, first, last, null);
    }

    private static FilterOffer misfit(Filter filter, String why) {
        return new FilterOffer(filter.words(), List.of(), 0, null, null, why);
    }

    /** Rows of the earliest and the latest value, -1 where there is none. */
    private static int[] extremes(Column column) {
        int low = -1;
        int high = -1;
        for (int row = 0; row < column.size(); row++) {
            if (column.isMissing(row)) continue;
            long value = moment(column, row);
            if (low < 0 || value < moment(column, low)) low = row;
            if (high < 0 || value > moment(column, high)) high = row;
        }
        return new int[] {low, high};
    }

    private static long moment(Column column, int row) {
        return column instanceof DateColumn dates ? dates.days()[row] : ((TimeColumn) column).seconds()[row];
    }
}
