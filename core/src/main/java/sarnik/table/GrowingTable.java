package sarnik.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A table to which rows come, of which tables as they stand are handed out. Arrays have room for what comes, so a row
 * costs as much however many there are. Not safe for use by several threads at once; what is handed out is.
 */
public final class GrowingTable {

    private static final int FIRST_ROOM = 1024;

    private final Map<String, Growing> columns = new LinkedHashMap<>();
    private int rows;

    /** Values of one column; what they stand for depends on its type, as in the columns that are handed out. */
    private static final class Growing {
        final ColumnType type;
        int[] ints;
        long[] longs;
        double[] doubles;
        final Map<String, Integer> codes = new LinkedHashMap<>();
        List<String> dictionary = List.of();

        Growing(ColumnType type) {
            this.type = type;
            switch (type) {
                case TEXT, YES_NO, DATE -> ints = new int[FIRST_ROOM];
                case WHOLE, TIME -> longs = new long[FIRST_ROOM];
                case DECIMAL -> doubles = new double[FIRST_ROOM];
            }
        }

        void room(int rows) {
            if (ints != null && rows > ints.length) ints = Arrays.copyOf(ints, rows + (rows >> 1));
            if (longs != null && rows > longs.length) longs = Arrays.copyOf(longs, rows + (rows >> 1));
            if (doubles != null && rows > doubles.length) doubles = Arrays.copyOf(doubles, rows + (rows >> 1));
        }

        void set(int row, Object value) {
            switch (type) {
                case TEXT -> ints[row] = value == null ? -1 : code((String) value);
                case YES_NO -> ints[row] = value == null ? -1 : (Boolean) value ? 1 : 0;
                case DATE -> ints[row] = value == null ? DateColumn.MISSING : (Integer) value;
                case WHOLE -> longs[row] = value == null ? WholeColumn.MISSING : ((Number) value).longValue();
                case TIME -> longs[row] = value == null ? TimeColumn.MISSING : (Long) value;
                case DECIMAL -> doubles[row] = value == null ? Double.NaN : (Double) value;
            }
        }

        private int code(String text) {
            return codes.computeIfAbsent(text, t -> codes.size());
        }

        boolean isMissing(int row) {
            return switch (type) {
                case TEXT, YES_NO -> ints[row] < 0;
                case DATE -> ints[row] == DateColumn.MISSING;
                case WHOLE, TIME -> longs[row] == WholeColumn.MISSING;
                case DECIMAL -> Double.isNaN(doubles[row]);
            };
        }

        void drop(int first, int rows) {
            if (ints != null) System.arraycopy(ints, first, ints, 0, rows - first);
            if (longs != null) System.arraycopy(longs, first, longs, 0, rows - first);
            if (doubles != null) System.arraycopy(doubles, first, doubles, 0, rows - first);
        }

        Column column(int rows) {
            if (dictionary.size() != codes.size()) dictionary = List.copyOf(codes.keySet());
            return switch (type) {
                case TEXT -> new CodedColumn(type, Codes.of(ints, rows, codes.size()), dictionary);
                case YES_NO -> new CodedColumn(type, Codes.of(ints, rows, 2), CodedColumn.NO_YES);
                case DATE -> new DateColumn(Arrays.copyOf(ints, rows));
                case WHOLE -> new WholeColumn(Arrays.copyOf(longs, rows));
                case TIME -> new TimeColumn(Arrays.copyOf(longs, rows));
                case DECIMAL -> new DecimalColumn(Arrays.copyOf(doubles, rows));
            };
        }
    }

    /** @param types by the names of columns, in their order */
    public GrowingTable(Map<String, ColumnType> types) {
        types.forEach((name, type) -> columns.put(name, new Growing(type)));
    }

    public int rows() {
        return rows;
    }

    /**
     * Adds a row.
     *
     * @param values one for each column: Number, String, Boolean, Integer days for a date, Long seconds for a time;
     *     null for missing
     */
    public void add(Object... values) {
        int column = 0;
        for (Growing each : columns.values()) {
            each.room(rows + 1);
            each.set(rows, values[column++]);
        }
        rows++;
    }

    /** Sets what is missing in a row; what has a value keeps it. */
    public void fill(int row, Object... values) {
        int column = 0;
        for (Growing each : columns.values()) {
            Object value = values[column++];
            if (value != null && each.isMissing(row)) each.set(row, value);
        }
    }

    /** The whole number, time or day in a row, as the columns that are handed out have it. */
    public long whole(String column, int row) {
        Growing found = columns.get(column);
        return found.longs != null ? found.longs[row] : found.ints[row];
    }

    /** Leaves the first rows out; words that no row holds any more stay in dictionaries. */
    public void dropFirst(int count) {
        if (count <= 0) return;
        columns.values().forEach(each -> each.drop(count, rows));
        rows -= count;
    }

    /** The rows as they stand now, which later ones do not change. */
    public Table table() {
        Map<String, Column> now = new LinkedHashMap<>();
        columns.forEach((name, each) -> now.put(name, each.column(rows)));
        return new Table(now);
    }

    /** The names of its columns. */
    public List<String> names() {
        return new ArrayList<>(columns.keySet());
    }
}
