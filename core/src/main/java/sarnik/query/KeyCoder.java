package sarnik.query;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.function.IntFunction;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/**
 * Turns the values of a column into small whole numbers for grouping; the highest code stands for missing.
 *
 * @param size number of codes, missing included
 * @param code the code of a row
 * @param text the canonical text of a code, null for missing
 * @param codes the column's own codes where it has them, else null
 */
record KeyCoder(int size, IntUnaryOperator code, IntFunction<String> text, Codes codes) {

    /** A range of whole values up to this wide is used as codes directly. */
    private static final long DIRECT = 1 << 22;

    /** Whether codes ascend with their values: all but those of text. */
    boolean isOrdered() {
        return codes == null;
    }

    static KeyCoder of(Column column) {
        if (column instanceof CodedColumn coded) {
            int missing = coded.dictionary().size();
            Codes codes = coded.codes();
            return new KeyCoder(missing + 1, row -> {
                int code = codes.get(row);
                return code < 0 ? missing : code;
            }, code -> code == missing ? null : coded.dictionary().get(code), codes);
        }
        if (column instanceof DateColumn dates) {
            return ofLongs(column.size(), row -> dates.days()[row], DateColumn.MISSING,
                    day -> LocalDate.ofEpochDay(day).toString());
        }
        if (column instanceof WholeColumn whole) {
            return ofLongs(column.size(), row -> whole.values()[row], WholeColumn.MISSING, Long::toString);
        }
        if (column instanceof TimeColumn times) {
            return ofLongs(column.size(), row -> times.seconds()[row], TimeColumn.MISSING,
                    second -> LocalDateTime.ofEpochSecond(second, 0, ZoneOffset.UTC).toString());
        }
        double[] values = ((DecimalColumn) column).values();
        double[] distinct = Arrays.stream(values).filter(v -> !Double.isNaN(v)).sorted().distinct().toArray();
        return new KeyCoder(distinct.length + 1,
                row -> Double.isNaN(values[row]) ? distinct.length : Arrays.binarySearch(distinct, values[row]),
                code -> code == distinct.length ? null : Double.toString(distinct[code]), null);
    }

    private interface LongAt {
        long at(int row);
    }

    private static KeyCoder ofLongs(int rows, LongAt value, long missing, java.util.function.LongFunction<String> text) {
        var range = IntStream.range(0, rows).mapToLong(value::at).filter(v -> v != missing).summaryStatistics();
        if (range.getCount() == 0) return new KeyCoder(1, row -> 0, code -> null, null);
        long low = range.getMin();
        if (range.getMax() - low >= 0 && range.getMax() - low < DIRECT) {
            int size = (int) (range.getMax() - low) + 1;
            return new KeyCoder(size + 1, row -> {
                long v = value.at(row);
                return v == missing ? size : (int) (v - low);
            }, code -> code == size ? null : text.apply(low + code), null);
        }
        long[] distinct = IntStream.range(0, rows).mapToLong(value::at).filter(v -> v != missing).sorted().distinct().toArray();
        return new KeyCoder(distinct.length + 1, row -> {
            long v = value.at(row);
            return v == missing ? distinct.length : Arrays.binarySearch(distinct, v);
        }, code -> code == distinct.length ? null : text.apply(distinct[code]), null);
    }

    /** Adds {@code factor} times the code of each selected row to its key. */
    void addTo(long[] keys, int[] selection, int count, long factor) {
        if (codes instanceof Codes.Bytes bytes) {
            byte[] values = bytes.values();
            for (int i = 0; i < count; i++) {
                int c = values[selection[i]];
                keys[i] += factor * (c < 0 ? size - 1 : c);
            }
        } else if (codes instanceof Codes.Shorts shorts) {
            short[] values = shorts.values();
            for (int i = 0; i < count; i++) {
                int c = values[selection[i]];
                keys[i] += factor * (c < 0 ? size - 1 : c);
            }
        } else {
            for (int i = 0; i < count; i++) keys[i] += factor * code.applyAsInt(selection[i]);
        }
    }
}
