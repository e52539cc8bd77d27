package sarnik.table;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * What a column holds, for looking at before it is kept.
 *
 * @param filled rows that have a value
 * @param distinct number of distinct values; -1 where they were not counted, for numbers, dates and times
 * @param bins how many values lie in each of {@link #BINS} equal steps between the smallest and the largest; empty for
 *     text
 *     and yes/no
 * @param commonest the commonest values, for text and yes/no
 */
public record ColumnProfile(long filled, long distinct, List<Long> bins, List<Common> commonest) {

    public static final int BINS = 12;
    private static final int COMMONEST = 3;

    /** A value and how many rows have it. */
    public record Common(String value, long rows) {}

    public static ColumnProfile of(Column column) {
        return column instanceof CodedColumn coded ? ofCodes(coded) : ofNumbers(column);
    }

    private static ColumnProfile ofCodes(CodedColumn column) {
        long[] rows = new long[column.dictionary().size()];
        long filled = 0;
        for (int row = 0; row < column.size(); row++) {
            int code = column.codes().get(row);
            if (code < 0) continue;
            rows[code]++;
            filled++;
        }
        List<Common> commonest = IntStream.range(0, rows.length)
                .boxed()
                .filter(c -> rows[c] > 0)
                .sorted(Comparator.comparingLong((Integer c) -> -rows[c]).thenComparing(c -> c))
                .limit(COMMONEST)
                .map(c -> new Common(column.dictionary().get(c), rows[c]))
                .toList();
        return new ColumnProfile(filled, Arrays.stream(rows).filter(n -> n > 0).count(), List.of(), commonest);
    }

    private static ColumnProfile ofNumbers(Column column) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        long filled = 0;
        for (int row = 0; row < column.size(); row++) {
            if (column.isMissing(row)) continue;
            filled++;
            double value = number(column, row);
            low = Math.min(low, value);
            high = Math.max(high, value);
        }
        if (filled == 0) return new ColumnProfile(0, -1, List.of(), List.of());
        Long[] bins = new Long[BINS];
        Arrays.fill(bins, 0L);
        double step = (high - low) / BINS;
        for (int row = 0; row < column.size(); row++) {
            if (column.isMissing(row)) continue;
            int bin = step > 0 && Double.isFinite(step) ? (int) ((number(column, row) - low) / step) : 0;
            bins[Math.max(0, Math.min(BINS - 1, bin))]++;
        }
        return new ColumnProfile(filled, -1, List.of(bins), List.of());
    }

    private static double number(Column column, int row) {
        if (column instanceof WholeColumn whole) return whole.get(row);
        if (column instanceof DecimalColumn decimal) return decimal.get(row);
        if (column instanceof DateColumn dates) return dates.day(row);
        return ((TimeColumn) column).second(row);
    }
}
