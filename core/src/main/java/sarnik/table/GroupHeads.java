package sarnik.table;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Finds columns that say at the head of a group only what holds for all of its rows, as people write them and tables that
 * were put together are copied: "North" beside the first of its towns, and nothing beside the others.
 */
final class GroupHeads {

    /** Rows that are looked at. */
    private static final int LOOK = 50_000;

    /** Of so many rows one has no cell of its own, at least. */
    private static final int LEAST = 5;

    private GroupHeads() {}

    /**
     * The first columns of a table, as long as they are such ones: the first row has a cell, no cell repeats the one
     * above it, however far, and a column behind them has one in each row of a group. Numbers that are no years would not hold for
     * each row of a group, and are none.
     *
     * @param sources the names in the file by those in the table
     * @return such columns as the file names them, with how many rows have no cell of their own
     */
    static Map<String, Long> gaps(TableParts parts, Map<String, String> sources) {
        Table table = parts.sample();
        if (parts.rows() > table.rows()) return Map.of();
        int rows = Math.min(LOOK, table.rows());
        Map<String, Long> gaps = new LinkedHashMap<>();
        List<String> names = new ArrayList<>(sources.keySet());
        int at = 0;
        while (at < names.size()) {
            long missing = missing(table.column(names.get(at)), rows);
            if (missing < 2 || missing * LEAST < rows || !isOfHeads(table.column(names.get(at)), rows)) break;
            gaps.put(
                    sources.get(names.get(at)),
                    rows == table.rows() ? missing : missing(table.column(names.get(at)), table.rows()));
            at++;
        }
        return at > 0 && hasRowsOfItsOwn(table, names, at, rows) ? gaps : Map.of();
    }

    /** Whether a column behind such ones has a cell wherever the first of them has none. */
    private static boolean hasRowsOfItsOwn(Table table, List<String> names, int behind, int rows) {
        Column heads = table.column(names.get(0));
        return names.subList(behind, names.size()).stream()
                .map(table::column)
                .anyMatch(column ->
                        IntStream.range(0, rows).noneMatch(row -> heads.isMissing(row) && column.isMissing(row)));
    }

    private static long missing(Column column, int rows) {
        long missing = 0;
        for (int row = 0; row < rows; row++) if (column.isMissing(row)) missing++;
        return missing;
    }

    private static boolean isOfHeads(Column column, int rows) {
        if (column.isMissing(0)
                || column.type() != ColumnType.TEXT
                        && column.type() != ColumnType.DATE
                        && column.type() != ColumnType.WHOLE) return false;
        String above = null;
        for (int row = 0; row < rows; row++) {
            if (column.isMissing(row)) continue;
            String text = column.text(row);
            if (text.equals(above) || column.type() == ColumnType.WHOLE && !CellForm.isYear(text)) return false;
            above = text;
        }
        return true;
    }
}
