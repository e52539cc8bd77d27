package sarnik.narrow;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Map;
import sarnik.data.MisfitException;
import sarnik.table.Column;

/**
 * What a filter lets the reader choose from.
 *
 * @param type the kind of filter
 * @param words the words before the control
 * @param values the values of a choice in their order; empty for ranges
 * @param more how many values there are beyond those
 * @param from the first day of a range, ISO 8601, or the least number; null for a choice or where there is no value
 * @param to the last day, or the greatest number
 * @param misfit a sentence that says why nothing can be chosen; null where something can
 * @param spread how many values lie in each of as many equal steps of a range, in hundredths of the most; may be empty
 * @param said further words that its control needs, by what they are for
 */
public record FilterOffer(
        String type,
        String words,
        List<String> values,
        int more,
        String from,
        String to,
        String misfit,
        List<Integer> spread,
        Map<String, Object> said) {

    /** An offer of values. */
    public static FilterOffer values(
            String type, String words, List<String> values, int more, Map<String, Object> said) {
        return new FilterOffer(type, words, values, more, null, null, null, List.of(), said);
    }

    /** An offer of a range. */
    public static FilterOffer range(
            String type, String words, String from, String to, List<Integer> spread, Map<String, Object> said) {
        return new FilterOffer(type, words, List.of(), 0, from, to, null, spread, said);
    }

    /** What this filter offers; a filter that no longer fits its data offers nothing and says why. */
    public static FilterOffer of(Filter filter, FilterScene scene, Registry kinds) {
        FilterKind<Filter> kind = kinds.of(filter);
        Column column = null;
        if (filter.column() != null) {
            column = scene.of(filter)
                    .flatMap(d -> d.table().find(filter.column()))
                    .orElse(null);
            if (column == null)
                return misfit(
                        kind,
                        filter,
                        phrase(
                                "The column of this filter has gone. Choose another in its brief, or take the filter away."));
            if (!kind.fits(column)) return misfit(kind, filter, kind.misfit());
        } else if (scene.of(filter).isEmpty()) {
            return misfit(kind, filter, phrase("The dataset of this filter cannot be asked. Take the filter away."));
        }
        try {
            return kind.offer(filter, column, scene);
        } catch (MisfitException unfit) {
            return misfit(kind, filter, unfit.getMessage());
        }
    }

    private static FilterOffer misfit(FilterKind<?> kind, Filter filter, String why) {
        return new FilterOffer(kind.name(), filter.words(), List.of(), 0, null, null, why, List.of(), Map.of());
    }
}
