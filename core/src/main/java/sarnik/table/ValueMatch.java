package sarnik.table;

import java.util.HashSet;
import java.util.Set;

/**
 * How well two columns of equal values match, row by row; the share of a tie.
 *
 * @param matchedLeft rows at the left whose value occurs at the right
 * @param left all rows at the left
 * @param matchedRight rows at the right whose value occurs at the left
 * @param right all rows at the right
 */
public record ValueMatch(long matchedLeft, long left, long matchedRight, long right) {

    public static ValueMatch of(Column left, Column right) {
        return new ValueMatch(matched(left, values(right)), left.size(), matched(right, values(left)), right.size());
    }

    private static Set<String> values(Column column) {
        Set<String> values = new HashSet<>();
        if (column instanceof CodedColumn coded) return new HashSet<>(coded.dictionary());
        for (int row = 0; row < column.size(); row++) if (!column.isMissing(row)) values.add(column.text(row));
        return values;
    }

    private static long matched(Column column, Set<String> values) {
        long matched = 0;
        for (int row = 0; row < column.size(); row++)
            if (!column.isMissing(row) && values.contains(column.text(row))) matched++;
        return matched;
    }
}
