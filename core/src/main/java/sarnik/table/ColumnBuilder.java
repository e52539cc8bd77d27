package sarnik.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Gathers the cells of one column, written in one form, into a column. */
final class ColumnBuilder {

    private final CellForm form;
    private int size;
    private int[] ints = new int[0];
    private long[] longs = new long[0];
    private double[] doubles = new double[0];
    private final Map<String, Integer> codes = new HashMap<>();
    private final List<String> dictionary = new ArrayList<>();

    /**
     * @param rows the number of rows to come, so that the arrays are made once
     */
    ColumnBuilder(CellForm form, int rows) {
        this.form = form;
        switch (form.type()) {
            case TEXT, YES_NO, DATE -> ints = new int[rows];
            case WHOLE, TIME -> longs = new long[rows];
            case DECIMAL -> doubles = new double[rows];
        }
    }

    /** A builder for values in the canonical text form of {@link Column#text}. */
    static ColumnBuilder canonical(ColumnType type, int rows) {
        return new ColumnBuilder(switch (type) {
            case TEXT -> CellForm.TEXT;
            case WHOLE -> CellForm.WHOLE;
            case DECIMAL -> CellForm.DECIMAL_POINT;
            case DATE -> CellForm.DATE_ISO;
            case TIME -> CellForm.TIME_ISO;
            case YES_NO -> CellForm.YES_NO;
        }, rows);
    }

    ColumnType type() {
        return form.type();
    }

    /**
     * Adds a cell.
     *
     * @param text the trimmed cell; empty means missing
     * @return false where the text is not written in the column's form: the value is then missing
     */
    boolean add(String text) {
        boolean filled = !text.isEmpty();
        boolean readable = filled && form.fits(text);
        int row = size++;
        switch (form.type()) {
            case TEXT -> ints[row] = filled ? code(text) : -1;
            case YES_NO -> ints[row] = filled ? CellForm.yesNo(text) : -1;
            case WHOLE -> longs[row] = readable ? Long.parseLong(text) : WholeColumn.MISSING;
            case DECIMAL -> doubles[row] = readable ? finite(form.decimal(text)) : Double.NaN;
            case DATE -> ints[row] = filled ? form.date(text) : DateColumn.MISSING;
            case TIME -> longs[row] = filled ? CellForm.time(text) : TimeColumn.MISSING;
        }
        return !filled || readable;
    }

    Column build() {
        return switch (form.type()) {
            case TEXT -> new CodedColumn(ColumnType.TEXT, Codes.of(ints, size, dictionary.size()), dictionary);
            case YES_NO -> new CodedColumn(ColumnType.YES_NO, Codes.of(ints, size, 2), CodedColumn.NO_YES);
            case WHOLE -> new WholeColumn(Arrays.copyOf(longs, size));
            case DECIMAL -> new DecimalColumn(Arrays.copyOf(doubles, size));
            case DATE -> new DateColumn(Arrays.copyOf(ints, size));
            case TIME -> new TimeColumn(Arrays.copyOf(longs, size));
        };
    }

    private int code(String text) {
        Integer code = codes.get(text);
        if (code == null) {
            code = dictionary.size();
            codes.put(text, code);
            dictionary.add(text);
        }
        return code;
    }

    private static double finite(double value) {
        return Double.isFinite(value) ? value : Double.NaN;
    }
}
