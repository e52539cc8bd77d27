package sarnik.table;

import java.util.BitSet;
import java.util.Comparator;
import java.util.Locale;
import java.util.stream.IntStream;

/** Which rows of a table hold some words, and in which order they stand by a column. */
public final class RowOrder {

    private RowOrder() {}

    /**
     * @param find words that some cell of a row has to hold, in any case; empty for all rows
     * @param sort column to order by; null for the order of the table
     * @param down whether the largest come first; rows without a value come last either way
     * @return row numbers
     * @throws IllegalArgumentException when there is no such column
     */
    public static int[] rows(Table table, String find, String sort, boolean down) {
        int[] rows = holding(table, find == null ? "" : find.strip().toLowerCase(Locale.ROOT));
        if (sort == null || sort.isEmpty()) return rows;
        return IntStream.of(rows)
                .boxed()
                .sorted(by(table.column(sort), down))
                .mapToInt(i -> i)
                .toArray();
    }

    /**
     * Compares rows by a column: numbers and times by size, texts in any case by letter.
     *
     * @param down whether the largest come first; rows without a value come last either way
     */
    public static Comparator<Integer> by(Column column, boolean down) {
        Comparator<Integer> order = order(column);
        return Comparator.<Integer, Boolean>comparing(column::isMissing).thenComparing(down ? order.reversed() : order);
    }

    private static int[] holding(Table table, String find) {
        if (find.isEmpty()) return IntStream.range(0, table.rows()).toArray();
        BitSet found = new BitSet(table.rows());
        for (String name : table.names()) {
            Column column = table.column(name);
            if (column instanceof CodedColumn coded) {
                BitSet codes = new BitSet();
                for (int c = 0; c < coded.dictionary().size(); c++)
                    codes.set(
                            c,
                            coded.dictionary().get(c).toLowerCase(Locale.ROOT).contains(find));
                if (codes.isEmpty()) continue;
                for (int row = 0; row < table.rows(); row++)
                    if (coded.codes().get(row) >= 0 && codes.get(coded.codes().get(row))) found.set(row);
            } else {
                for (int row = 0; row < table.rows(); row++) {
                    if (!found.get(row)
                            && !column.isMissing(row)
                            && column.text(row).toLowerCase(Locale.ROOT).contains(find)) found.set(row);
                }
            }
        }
        return found.stream().toArray();
    }

    private static Comparator<Integer> order(Column column) {
        if (column instanceof WholeColumn whole) return Comparator.comparingLong(r -> whole.get(r));
        if (column instanceof DecimalColumn decimal) return Comparator.comparingDouble(r -> decimal.get(r));
        if (column instanceof DateColumn dates) return Comparator.comparingInt(r -> dates.day(r));
        if (column instanceof TimeColumn times) return Comparator.comparingLong(r -> times.second(r));
        CodedColumn coded = (CodedColumn) column;
        int[] rank = ranks(coded);
        return Comparator.comparingInt(
                r -> coded.codes().get(r) < 0 ? -1 : rank[coded.codes().get(r)]);
    }

    private static int[] ranks(CodedColumn column) {
        int[] codes = IntStream.range(0, column.dictionary().size())
                .boxed()
                .sorted(Comparator.comparing(column.dictionary()::get, String.CASE_INSENSITIVE_ORDER))
                .mapToInt(i -> i)
                .toArray();
        int[] rank = new int[codes.length];
        for (int i = 0; i < codes.length; i++) rank[codes[i]] = i;
        return rank;
    }
}
