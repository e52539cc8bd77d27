package sarnik.table;

import java.util.Optional;

/**
 * The rows in which a column of numbers, dates or times has its smallest and its largest value; of equal ones the
 * first.
 */
public record Extremes(int lowest, int highest) {

    /**
     * @return empty where no row has a value
     * @throws IllegalArgumentException when the column's values have no order: text and yes/no
     */
    static Optional<Extremes> of(Column column) {
        int low = -1;
        int high = -1;
        for (int row = 0; row < column.size(); row++) {
            if (column.isMissing(row)) continue;
            if (low < 0 || compare(column, row, low) < 0) low = row;
            if (high < 0 || compare(column, row, high) > 0) high = row;
        }
        return low < 0 ? Optional.empty() : Optional.of(new Extremes(low, high));
    }

    private static int compare(Column column, int a, int b) {
        if (column instanceof WholeColumn whole) return Long.compare(whole.get(a), whole.get(b));
        if (column instanceof DecimalColumn decimal) return Double.compare(decimal.get(a), decimal.get(b));
        if (column instanceof DateColumn dates) return Integer.compare(dates.day(a), dates.day(b));
        if (column instanceof TimeColumn times) return Long.compare(times.second(a), times.second(b));
        throw new IllegalArgumentException("Values of " + column.type().words() + " have no order");
    }
}
