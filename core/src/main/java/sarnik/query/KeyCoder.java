package sarnik.query;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.Comparator;
import java.util.function.IntFunction;
import java.util.function.IntUnaryOperator;
import java.util.function.LongFunction;
import java.util.function.LongUnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.SummedColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;
import sarnik.table.Wholes;

/**
 * Turns the values of a column into small whole numbers for grouping; the highest code stands for missing. Safe to
 * share
 * between threads.
 */
final class KeyCoder {

    private final int size;
    private final IntUnaryOperator code;
    private final IntFunction<String> text;
    /** The column's own codes where it has them, else null: then codes ascend with their values. */
    private final Codes codes;

    private volatile int[] ranks;
    private volatile Boolean missing;

    private KeyCoder(int size, IntUnaryOperator code, IntFunction<String> text, Codes codes) {
        this.size = size;
        this.code = code;
        this.text = text;
        this.codes = codes;
    }

    /** Whether a row has no value. */
    boolean hasMissing(int rows) {
        Boolean known = missing;
        if (known == null) {
            known = IntStream.range(0, rows).anyMatch(row -> code.applyAsInt(row) == size - 1);
            missing = known;
        }
        return known;
    }

    /** The codes of its column, -1 for missing; null where the column has none. */
    Codes codes() {
        return codes;
    }

    /** Number of codes, missing included. */
    int size() {
        return size;
    }

    /** The code of a row. */
    int code(int row) {
        return code.applyAsInt(row);
    }

    /** The canonical text of a code, null for missing. */
    String text(int code) {
        return text.apply(code);
    }

    /**
     * Where a code stands in the order of values: that of numbers and dates, that of characters for text; missing last.
     * The order of a dictionary is worked out when it is first asked for.
     */
    int rank(int code) {
        if (codes == null) return code;
        int[] known = ranks;
        if (known == null) {
            known = new int[size];
            int[] sorted = IntStream.range(0, size - 1)
                    .boxed()
                    .sorted(Comparator.comparing(text::apply))
                    .mapToInt(i -> i)
                    .toArray();
            for (int r = 0; r < sorted.length; r++) known[sorted[r]] = r;
            known[size - 1] = size - 1;
            ranks = known;
        }
        return known[code];
    }

    /** A range of whole values up to this wide is used as codes directly. */
    private static final long DIRECT = 1 << 22;

    /**
     * @throws QueryException when the table lacks the column, or its type does not fit the key
     */
    static KeyCoder of(Table table, GroupKey key) {
        Column column = table.find(key.column())
                .orElseThrow(() -> new QueryException(phrase("There is no column “{0}” any more", key.column())));
        if (column instanceof SummedColumn) throw QueryException.onlySums(key.column());
        if (key instanceof GroupKey.Step step) return ofSteps(table, column, step);
        if (key instanceof GroupKey.Classes classes) return ofClasses(column, classes);
        return of(column);
    }

    private static KeyCoder ofSteps(Table table, Column column, GroupKey.Step key) {
        TimeStep step = key.step();
        if (column instanceof DateColumn dates && !step.needsTime()) {
            var range = IntStream.range(0, dates.size())
                    .map(dates::day)
                    .filter(d -> d != DateColumn.MISSING)
                    .summaryStatistics();
            if (range.getCount() == 0) return new KeyCoder(1, row -> 0, code -> null, null);
            // Each day's step is looked up, not worked out row by row.
            int first = range.getMin();
            if ((long) range.getMax() - first >= DIRECT)
                return ofLongs(
                        dates.size(),
                        row -> dates.day(row) == DateColumn.MISSING ? Long.MIN_VALUE : step.number(dates.day(row), 0),
                        Long.MIN_VALUE,
                        step::text);
            long[] steps = LongStream.rangeClosed(first, range.getMax())
                    .map(day -> step.number(day, 0))
                    .toArray();
            return ofSteps(step, steps, row -> dates.day(row) == DateColumn.MISSING ? -1 : dates.day(row) - first);
        }
        if (!(column instanceof TimeColumn times))
            throw new QueryException(
                    step.needsTime()
                            ? phrase(
                                    "“{0}” holds {1}, which have no hours",
                                    key.column(), column.type().said())
                            : phrase(
                                    "“{0}” holds {1}, which are no dates",
                                    key.column(), column.type().said()));
        LongAt seconds = local(table, times, key);
        var range = IntStream.range(0, times.size())
                .mapToLong(seconds::at)
                .filter(s -> s != TimeColumn.MISSING)
                .summaryStatistics();
        if (range.getCount() == 0) return new KeyCoder(1, row -> 0, code -> null, null);
        int width = step == TimeStep.MINUTE ? 60 : step.needsTime() ? 3600 : 86_400;
        long first = Math.floorDiv(range.getMin(), width);
        long last = Math.floorDiv(range.getMax(), width);
        LongUnaryOperator stepOf =
                second -> step.number(Math.floorDiv(second, 86_400), (int) (Math.floorMod(second, 86_400) / 60));
        // Times that stand for none, such as of the years 1 or 9999, leave more units between them than can be looked
        // up.
        if (last - first >= DIRECT)
            return ofLongs(
                    times.size(),
                    row -> seconds.at(row) == TimeColumn.MISSING ? Long.MIN_VALUE : stepOf.applyAsLong(seconds.at(row)),
                    Long.MIN_VALUE,
                    step::text);
        long[] steps = LongStream.rangeClosed(first, last)
                .map(unit -> stepOf.applyAsLong(unit * width))
                .toArray();
        return ofSteps(step, steps, row -> {
            long second = seconds.at(row);
            return second == TimeColumn.MISSING ? -1 : (int) (Math.floorDiv(second, width) - first);
        });
    }

    /** What the clock showed that a key reads. */
    private static LongAt local(Table table, TimeColumn times, GroupKey.Step key) {
        if (key.zone() == null) return times::second;
        if (key.zoneColumn() == null) return at(ZoneShift.of(key.zone()).local(times.seconds()));
        if (!(table.find(key.zoneColumn()).orElse(null) instanceof CodedColumn zones))
            throw new QueryException(phrase(
                    "The clock of each place can be read only where rows have places, which those here have not"));
        return at(ZoneShift.local(times.seconds(), zones));
    }

    private static LongAt at(long[] values) {
        return row -> values[row];
    }

    /**
     * @param steps the step of each unit of time that occurs
     * @param unit the number of a row's unit; -1 for missing
     */
    private static KeyCoder ofSteps(TimeStep step, long[] steps, IntUnaryOperator unit) {
        long low = Arrays.stream(steps).min().orElseThrow();
        int size = (int) (Arrays.stream(steps).max().orElseThrow() - low) + 1;
        int[] codes = Arrays.stream(steps).mapToInt(s -> (int) (s - low)).toArray();
        return new KeyCoder(
                size + 1,
                row -> {
                    int at = unit.applyAsInt(row);
                    return at < 0 ? size : codes[at];
                },
                code -> code == size ? null : step.text(low + code),
                null);
    }

    private interface IntToDouble {
        double apply(int row);
    }

    private static KeyCoder ofClasses(Column column, GroupKey.Classes key) {
        if (!column.type().isNumber())
            throw new QueryException(phrase(
                    "“{0}” holds {1}, which have no classes",
                    key.column(), column.type().said()));
        double[] breaks = key.breaks().stream().mapToDouble(b -> b).toArray();
        int missing = breaks.length + 1;
        IntToDouble value = column instanceof DecimalColumn decimals
                ? row -> decimals.get(row)
                : row -> column.isMissing(row) ? Double.NaN : (double) ((WholeColumn) column).get(row);
        return new KeyCoder(
                missing + 1,
                row -> {
                    double v = value.apply(row);
                    if (Double.isNaN(v)) return missing;
                    int at = Arrays.binarySearch(breaks, v);
                    return at >= 0 ? at + 1 : -at - 1;
                },
                code -> code == missing ? null : String.valueOf(code),
                null);
    }

    static KeyCoder of(Column column) {
        if (column instanceof CodedColumn coded) {
            int missing = coded.dictionary().size();
            Codes codes = coded.codes();
            return new KeyCoder(
                    missing + 1,
                    row -> {
                        int code = codes.get(row);
                        return code < 0 ? missing : code;
                    },
                    code -> code == missing ? null : coded.dictionary().get(code),
                    codes);
        }
        if (column instanceof DateColumn dates) {
            return ofLongs(
                    column.size(),
                    row -> dates.day(row),
                    DateColumn.MISSING,
                    day -> LocalDate.ofEpochDay(day).toString());
        }
        if (column instanceof WholeColumn whole) {
            return ofLongs(column.size(), row -> whole.get(row), WholeColumn.MISSING, Long::toString);
        }
        if (column instanceof TimeColumn times) {
            return ofLongs(
                    column.size(),
                    row -> times.second(row),
                    TimeColumn.MISSING,
                    second -> LocalDateTime.ofEpochSecond(second, 0, ZoneOffset.UTC)
                            .toString());
        }
        DecimalColumn values = (DecimalColumn) column;
        if (values.steps() != null)
            return ofLongs(
                    column.size(), values.steps()::get, Wholes.MISSING, step -> Double.toString(step / values.unit()));
        double[] distinct = Arrays.stream(values.all())
                .filter(v -> !Double.isNaN(v))
                .sorted()
                .distinct()
                .toArray();
        return new KeyCoder(
                distinct.length + 1,
                row -> values.isMissing(row) ? distinct.length : Arrays.binarySearch(distinct, values.get(row)),
                code -> code == distinct.length ? null : Double.toString(distinct[code]),
                null);
    }

    private interface LongAt {
        long at(int row);
    }

    private static KeyCoder ofLongs(int rows, LongAt value, long missing, LongFunction<String> text) {
        var range = IntStream.range(0, rows)
                .mapToLong(value::at)
                .filter(v -> v != missing)
                .summaryStatistics();
        if (range.getCount() == 0) return new KeyCoder(1, row -> 0, code -> null, null);
        long low = range.getMin();
        if (range.getMax() - low >= 0 && range.getMax() - low < DIRECT) {
            int size = (int) (range.getMax() - low) + 1;
            return new KeyCoder(
                    size + 1,
                    row -> {
                        long v = value.at(row);
                        return v == missing ? size : (int) (v - low);
                    },
                    code -> code == size ? null : text.apply(low + code),
                    null);
        }
        long[] distinct = IntStream.range(0, rows)
                .mapToLong(value::at)
                .filter(v -> v != missing)
                .sorted()
                .distinct()
                .toArray();
        return new KeyCoder(
                distinct.length + 1,
                row -> {
                    long v = value.at(row);
                    return v == missing ? distinct.length : Arrays.binarySearch(distinct, v);
                },
                code -> code == distinct.length ? null : text.apply(distinct[code]),
                null);
    }

    /** Adds {@code factor} times the code of each selected row to its key. */
    void addTo(long[] keys, int[] selection, int count, long factor) {
        if (codes instanceof Codes.Bytes bytes) {
            byte[] values = bytes.values();
            for (int i = 0; i < count; i++) keys[i] += factor * known(values[selection[i]], size - 1);
        } else if (codes instanceof Codes.Shorts shorts) {
            short[] values = shorts.values();
            for (int i = 0; i < count; i++) keys[i] += factor * known(values[selection[i]], size - 1);
        } else {
            for (int i = 0; i < count; i++) keys[i] += factor * code.applyAsInt(selection[i]);
        }
    }

    /** The code of each selected row, where it is the group's number as it stands. */
    void groups(int[] groups, int[] selection, int count) {
        // Rows that follow each other are read without looking up where each stands.
        boolean follow = count > 0 && selection[count - 1] - selection[0] == count - 1;
        int first = follow ? selection[0] : 0;
        int missing = size - 1;
        if (codes instanceof Codes.Bytes bytes) {
            byte[] values = bytes.values();
            if (follow) for (int i = 0; i < count; i++) groups[i] = known(values[first + i], missing);
            else for (int i = 0; i < count; i++) groups[i] = known(values[selection[i]], missing);
        } else if (codes instanceof Codes.Shorts shorts) {
            short[] values = shorts.values();
            if (follow) for (int i = 0; i < count; i++) groups[i] = known(values[first + i], missing);
            else for (int i = 0; i < count; i++) groups[i] = known(values[selection[i]], missing);
        } else {
            for (int i = 0; i < count; i++) groups[i] = code.applyAsInt(selection[i]);
        }
    }

    private static int known(int code, int missing) {
        return code < 0 ? missing : code;
    }
}
