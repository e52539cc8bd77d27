package sarnik.table;

import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Gathers computed values of one type into a column. */
public final class ColumnValues {

    /** What a word takes beside its letters: the object, and its place among the others. */
    private static final int WORD_BYTES = 112;

    private final ColumnType type;
    private int size;
    private int[] ints = new int[0];
    private long[] longs = new long[0];
    private double[] doubles = new double[0];
    private final Map<String, Integer> codes = new LinkedHashMap<>();
    private long wordBytes;

    /** Texts that are taken for another word, with its code. */
    private final Map<String, Integer> spellings = new HashMap<>();

    /**
     * @param rows the number of values to come; there may be more
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
        switch (type) {
            case TEXT -> addText(value == null ? "" : (String) value);
            case YES_NO -> addInt(value == null ? -1 : (Boolean) value ? 1 : 0);
            case DATE -> addInt(value == null ? DateColumn.MISSING : (Integer) value);
            case WHOLE, TIME -> addLong(value == null ? WholeColumn.MISSING : (Long) value);
            case DECIMAL -> addDouble(value == null ? Double.NaN : (Double) value);
        }
    }

    /** Adds a text; an empty one is missing. */
    void addText(String text) {
        Integer code = text.isEmpty() ? Integer.valueOf(-1) : codes.get(text);
        if (code == null) {
            code = codes.size();
            codes.put(text, code);
            wordBytes += WORD_BYTES + 2L * text.length();
        }
        addInt(code);
    }

    /** The same with a text that may be written with what cannot be seen, see {@link CellText#plain}. */
    void addPlain(String text) {
        Integer code = codes.get(text);
        if (code == null) code = spellings.get(text);
        if (code != null) {
            addInt(code);
            return;
        }
        String plain = CellText.plain(text);
        addText(plain);
        if (plain.equals(text)) return;
        spellings.put(text, ints[size - 1]);
        wordBytes += WORD_BYTES + 2L * text.length();
    }

    /** Adds a date as days since 1970-01-01, or 1 for yes and 0 for no; a missing one as its column marks it. */
    void addInt(int value) {
        if (size == ints.length) ints = Arrays.copyOf(ints, more());
        ints[size++] = value;
    }

    /** Adds a whole number, or a date-time as seconds since 1970-01-01T00:00. */
    void addLong(long value) {
        if (size == longs.length) longs = Arrays.copyOf(longs, more());
        longs[size++] = value;
    }

    /** Adds a decimal number; what is not finite is missing. */
    void addDouble(double value) {
        if (size == doubles.length) doubles = Arrays.copyOf(doubles, more());
        doubles[size++] = Double.isFinite(value) ? value : Double.NaN;
    }

    private int more() {
        return Math.max(1024, size + (size >> 1));
    }

    /** Bytes that it takes now, about. */
    long bytes() {
        return ints.length * 4L + longs.length * 8L + doubles.length * 8L + wordBytes;
    }

    public Column build() {
        return switch (type) {
            case TEXT -> new CodedColumn(type, Codes.of(ints, size, codes.size()), List.copyOf(codes.keySet()));
            case YES_NO -> new CodedColumn(type, Codes.of(ints, size, 2), CodedColumn.NO_YES);
            case DATE -> new DateColumn(Arrays.copyOf(ints, size));
            case WHOLE -> new WholeColumn(Arrays.copyOf(longs, size));
            case TIME -> new TimeColumn(Arrays.copyOf(longs, size));
            case DECIMAL -> new DecimalColumn(Arrays.copyOf(doubles, size)).narrow();
        };
    }
}
