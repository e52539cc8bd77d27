package sarnik.table;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * What differs between two tables of the same kind, such as two versions of a dataset.
 *
 * @param same rows that stand in both
 * @param changed rows with the same key and other cells; 0 where no column is a key
 * @param added rows that stand only in the later table
 * @param gone rows that stand only in the earlier table
 * @param key the column by which rows are told to be the same one; null where rows are compared whole
 * @param newColumns columns that only the later table has
 * @param goneColumns columns that only the earlier table has
 */
public record TableDiff(
        long same, long changed, long added, long gone, String key, List<String> newColumns, List<String> goneColumns) {

    /**
     * Compares two tables over the columns that both have. A text column whose values are all filled and distinct in
     * both
     * is taken as the key; without one, rows are compared whole, however often they occur.
     */
    public static TableDiff of(Table before, Table after) {
        List<String> newColumns =
                after.names().stream().filter(n -> before.find(n).isEmpty()).toList();
        List<String> goneColumns =
                before.names().stream().filter(n -> after.find(n).isEmpty()).toList();
        List<String> shared =
                before.names().stream().filter(n -> after.find(n).isPresent()).toList();
        Optional<String> key = shared.stream()
                .filter(n -> isKey(before.column(n)) && isKey(after.column(n)))
                .findFirst();
        long[] counts = key.isPresent() ? byKey(before, after, shared, key.get()) : whole(before, after, shared);
        return new TableDiff(counts[0], counts[1], counts[2], counts[3], key.orElse(null), newColumns, goneColumns);
    }

    /**
     * The rows of a table that do not stand in another, compared whole over the columns that both have, however often
     * they
     * occur.
     *
     * @return row numbers of {@code after}, ascending
     */
    public static int[] rowsNotIn(Table before, Table after) {
        List<String> shared =
                before.names().stream().filter(n -> after.find(n).isPresent()).toList();
        Map<Long, int[]> counts = counts(before, shared);
        return IntStream.range(0, after.rows())
                .filter(row -> !take(counts, hash(after, shared, row)))
                .toArray();
    }

    private static Map<Long, int[]> counts(Table table, List<String> columns) {
        Map<Long, int[]> counts = new HashMap<>();
        for (int row = 0; row < table.rows(); row++)
            counts.computeIfAbsent(hash(table, columns, row), h -> new int[1])[0]++;
        return counts;
    }

    private static boolean take(Map<Long, int[]> counts, long hash) {
        int[] left = counts.get(hash);
        return left != null && left[0]-- > 0;
    }

    private static boolean isKey(Column column) {
        if (!(column instanceof CodedColumn coded)
                || coded.type() != ColumnType.TEXT
                || coded.dictionary().size() != coded.size()) return false;
        for (int row = 0; row < coded.size(); row++) if (coded.isMissing(row)) return false;
        return true;
    }

    private static long[] byKey(Table before, Table after, List<String> shared, String key) {
        Map<String, Integer> rowOf = new HashMap<>();
        for (int row = 0; row < before.rows(); row++)
            rowOf.put(before.column(key).text(row), row);
        long same = 0;
        long changed = 0;
        for (int row = 0; row < after.rows(); row++) {
            Integer earlier = rowOf.get(after.column(key).text(row));
            if (earlier == null) continue;
            if (cells(before, shared, earlier).equals(cells(after, shared, row))) same++;
            else changed++;
        }
        return new long[] {same, changed, after.rows() - same - changed, before.rows() - same - changed};
    }

    private static List<String> cells(Table table, List<String> columns, int row) {
        return columns.stream()
                .map(n -> String.valueOf(table.column(n).text(row)))
                .toList();
    }

    private static long[] whole(Table before, Table after, List<String> shared) {
        Map<Long, int[]> counts = counts(before, shared);
        long same = IntStream.range(0, after.rows())
                .filter(row -> take(counts, hash(after, shared, row)))
                .count();
        return new long[] {same, 0, after.rows() - same, before.rows() - same};
    }

    private static long hash(Table table, List<String> columns, int row) {
        long hash = RowHash.EMPTY;
        for (String name : columns) hash = RowHash.with(hash, table.column(name).text(row));
        return hash;
    }
}
