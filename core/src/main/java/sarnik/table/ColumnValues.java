package sarnik.table;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Gathers computed values of one type into a column. */
public final class ColumnValues {

    private final ColumnType type;
    private int size;
    private int[] ints = new int[0];
    private long[] longs = new long[0];
    private double[] doubles = new double[0];
    private final Map<String, Integer> codes = new LinkedHashMap<>();

    /**
     * @param rows the number of values to come
     */
    public ColumnValues(ColumnType type, int rows) {
        this.type = type;
        switch (type) {
            case TEXT, YES_NO, DATE -> ints = new int[rows];
            case WHOLE, TIME -> longs = new long[rows];
            case DECIMAL -> doubles = new double[rows];
        }
    }

    /**
     * @param value Long, Double, String, Boolean, Integer days for a date, Long seconds for a time; null for missing
     */
    public void add(Object value) {
        int row = size++;
        switch (type) {
            case TEXT -> ints[row] = value == null || ((String) value).isEmpty() ? -1 : codes.computeIfAbsent((String) value, v -> codes.size());
            case YES_NO -> ints[row] = value == null ? -1 : (Boolean) value ? 1 : 0;
            case DATE -> ints[row] = value == null ? DateColumn.MISSING : (Integer) value;
            case WHOLE, TIME -> longs[row] = value == null ? WholeColumn.MISSING : (Long) value;
            case DECIMAL -> doubles[row] = value == null ? Double.NaN : (Double) value;
        }
    }

    public Column build() {
        return switch (type) {
            case TEXT -> new CodedColumn(type, Codes.of(ints, size, codes.size()), List.copyOf(codes.keySet()));
            case YES_NO -> new CodedColumn(type, Codes.of(ints, size, 2), CodedColumn.NO_YES);
            case DATE -> new DateColumn(Arrays.copyOf(ints, size));
            case WHOLE -> new WholeColumn(Arrays.copyOf(longs, size));
            case TIME -> new TimeColumn(Arrays.copyOf(longs, size));
            case DECIMAL -> new DecimalColumn(Arrays.copyOf(doubles, size));
        };
    }
}
