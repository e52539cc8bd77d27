package sarnik.narrow;

import java.util.List;
import sarnik.data.Datasets;
import sarnik.table.Column;

/**
 * What a filter lets the reader choose from.
 *
 * @param type the kind of filter
 * @param words the words before the control
 * @param values the values of a choice, ascending; empty for dates
 * @param more how many values there are beyond those
 * @param from the first day of a range, ISO 8601, or the least number; null for a choice or where there is no value
 * @param to the last day, or the greatest number
 * @param misfit a sentence that says why nothing can be chosen; null where something can
 * @param spread how many values lie in each of as many equal steps of a range, in hundredths of the most; may be empty
 */
public record FilterOffer(
        String type,
        String words,
        List<String> values,
        int more,
        String from,
        String to,
        String misfit,
        List<Integer> spread) {

    /** An offer without a spread. */
    public FilterOffer(
            String type, String words, List<String> values, int more, String from, String to, String misfit) {
        this(type, words, values, more, from, to, misfit, List.of());
    }

    /** What this filter offers; a filter that no longer fits its data offers nothing and says why. */
    public static FilterOffer of(Filter filter, Datasets datasets, Registry kinds) {
        FilterKind<Filter> kind = kinds.of(filter);
        Column column = datasets.ready(filter.dataset())
                .flatMap(d -> d.table().find(filter.column()))
                .orElse(null);
        if (column == null)
            return misfit(
                    kind,
                    filter,
                    "The column of this filter has gone. Choose another in its brief, or take the filter away.");
        return kind.fits(column) ? kind.offer(filter, column) : misfit(kind, filter, kind.misfit());
    }

    private static FilterOffer misfit(FilterKind<?> kind, Filter filter, String why) {
        return new FilterOffer(kind.name(), filter.words(), List.of(), 0, null, null, why);
    }
}
