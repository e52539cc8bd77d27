package sarnik.table;

import java.util.Arrays;
import java.util.List;
import java.util.function.IntToLongFunction;
import java.util.stream.Stream;

/**
 * Finds whether rows stand in a table more than once by mistake, as where a part of it was copied twice or several
 * files overlap. Of a table in which each row is an event of its own, two may well be alike; of one in which all other rows
 * differ in what they are of, they are not.
 */
final class RepeatedRows {

    /** Rows of tables that are looked at. */
    private static final int MOST = 5_000_000;

    /** Most tables of events are told by so many of their rows. */
    private static final int FIRST = 20_000;

    private RepeatedRows() {}

    /**
     * Whether some rows are alike in all columns, no more than the others, though those can be told apart by their
     * words, days and times, or by whole numbers in their first column, and have numbers besides.
     */
    static boolean areLikely(TableParts parts) {
        Table table = parts.sample();
        int rows = table.rows();
        if (rows < 2 || rows > MOST || parts.rows() > rows) return false;
        List<Column> columns = table.names().stream().map(table::column).toList();
        if (columns.stream().noneMatch(column -> column.type().isNumber())) return false;
        if (columns.stream()
                .anyMatch(column -> column instanceof CodedColumn coded
                        && coded.dictionary().size() == rows)) return false;
        return Stream.of(
                        columns.stream()
                                .filter(column -> !column.type().isNumber())
                                .toList(),
                        columns.stream()
                                .limit(1)
                                .filter(column -> column.type() == ColumnType.WHOLE)
                                .toList())
                .anyMatch(some -> tell(some, columns, Math.min(FIRST, rows)) && areFewAndTold(some, columns, rows));
    }

    /** Whether the first rows that are not alike can be told apart by some of the columns. */
    private static boolean tell(List<Column> some, List<Column> all, int rows) {
        return !some.isEmpty() && different(some, rows) == different(all, rows);
    }

    private static boolean areFewAndTold(List<Column> some, List<Column> all, int rows) {
        int told = different(some, rows);
        return told < rows && rows - told <= told && different(all, rows) == told;
    }

    /** How many of the first rows are different in some columns, at least one. */
    private static int different(List<Column> columns, int rows) {
        long[] hashes = new long[rows];
        Arrays.fill(hashes, RowHash.EMPTY);
        for (Column column : columns) {
            IntToLongFunction cells = cells(column);
            for (int row = 0; row < rows; row++) hashes[row] = RowHash.with(hashes[row], cells.applyAsLong(row));
        }
        Arrays.parallelSort(hashes);
        int different = 1;
        for (int row = 1; row < rows; row++) if (hashes[row] != hashes[row - 1]) different++;
        return different;
    }

    /** A number for each row that is the same where the cells are. */
    private static IntToLongFunction cells(Column column) {
        if (column instanceof CodedColumn coded) return coded.codes()::get;
        if (column instanceof WholeColumn whole) return whole::get;
        if (column instanceof DateColumn date) return date::day;
        if (column instanceof TimeColumn time) return time::second;
        if (column instanceof DecimalColumn decimal) return row -> Double.doubleToLongBits(decimal.get(row));
        return row -> RowHash.with(RowHash.EMPTY, column.text(row));
    }
}
