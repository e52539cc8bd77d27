package sarnik.app.dataset;

import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.TableParts;
import sarnik.table.TimeColumn;

/**
 * How the rows of a version are parted in the database, so that a question about some days reads theirs only: by ranges
 * of the first column of days or times that half of the rows have, which hold about as many rows each (PostgreSQL
 * documentation, "Table Partitioning"). Rows that have none stand in a partition of their own.
 *
 * @param column its number
 * @param bounds where all ranges but the first begin, rising; days or seconds since 1970-01-01
 */
record RowPartitions(int column, ColumnType type, List<Long> bounds) {

    private static final int FEWEST = 4;
    private static final int MOST = 64;
    /** So many rows go into a partition, as far as there are not too many of them. */
    private static final int ROWS = 500_000;
    /** So many rows are looked at to find the bounds. */
    static final int SAMPLE = 100_000;

    /** Values of a column of days or times, for finding the bounds. */
    interface Values {

        /**
         * @param column its number
         * @return some of its values, spread evenly; null stands for one that is missing
         */
        List<Long> of(int column) throws SQLException;
    }

    /** @return empty where no column parts the rows */
    static Optional<RowPartitions> of(List<StoredColumn> columns, TableParts rows) throws SQLException {
        return of(
                columns,
                rows.rows(),
                column -> values(rows.sample().column(columns.get(column).name())));
    }

    /**
     * @param rows how many there are
     * @param values some values of its columns of days and times
     * @return empty where no column parts the rows
     */
    static Optional<RowPartitions> of(List<StoredColumn> columns, long rows, Values values) throws SQLException {
        for (int c = 0; c < columns.size(); c++) {
            ColumnType type = columns.get(c).type();
            if (type != ColumnType.DATE && type != ColumnType.TIME) continue;
            List<Long> bounds = bounds(values.of(c), rows);
            if (!bounds.isEmpty()) return Optional.of(new RowPartitions(c, type, bounds));
        }
        return Optional.empty();
    }

    private static List<Long> values(Column column) {
        int step = Math.max(1, column.size() / SAMPLE);
        return IntStream.iterate(0, row -> row < column.size(), row -> row + step)
                .mapToObj(row -> column.isMissing(row)
                        ? null
                        : (Long)
                                (column instanceof DateColumn days ? days.day(row) : ((TimeColumn) column).second(row)))
                .toList();
    }

    private static List<Long> bounds(List<Long> some, long rows) {
        long[] values = some.stream()
                .filter(Objects::nonNull)
                .mapToLong(v -> v)
                .sorted()
                .toArray();
        if (values.length == 0 || values.length < some.size() / 2) return List.of();
        long parts = Math.min(MOST, Math.max(FEWEST, rows / ROWS));
        return LongStream.range(1, parts)
                .map(part -> values[(int) (part * values.length / parts)])
                .filter(bound -> bound > values[0])
                .distinct()
                .boxed()
                .toList();
    }

    /** What is said of the whole table where it is made. */
    String clause() {
        return " PARTITION BY RANGE (c" + column + ")";
    }

    /** Statements that make the partitions of a table. */
    List<String> made(String table) {
        List<String> made = new ArrayList<>();
        for (int part = 0; part <= bounds.size(); part++)
            made.add("CREATE TABLE %sp%d PARTITION OF %s FOR VALUES FROM (%s) TO (%s)"
                    .formatted(
                            table,
                            part,
                            table,
                            part == 0 ? "MINVALUE" : sql(bounds.get(part - 1)),
                            part == bounds.size() ? "MAXVALUE" : sql(bounds.get(part))));
        made.add("CREATE TABLE %sp PARTITION OF %s DEFAULT".formatted(table, table));
        return made;
    }

    private String sql(long bound) {
        return type == ColumnType.DATE
                ? "DATE '1970-01-01' + " + bound
                : "TIMESTAMP '1970-01-01' + " + bound + " * INTERVAL '1 second'";
    }
}
