package sarnik.query;

import static sarnik.language.Language.phrase;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Supplier;
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
import sarnik.table.Zones;

/**
 * A condition made ready for a scan. Works on a selection: row numbers in ascending order, of which it keeps those that
 * meet the condition. The loops have no branch on the outcome, so that their speed does not depend on the data.
 */
interface RowFilter {

    /** Steps are held in 32 bits: beyond these there are none. */
    double MOST_STEPS = 1L << 33;

    /**
     * @param selection row numbers; the kept ones are moved to the front
     * @param count how many there are
     * @return how many are kept
     */
    int keep(int[] selection, int count);

    /** The same for the rows from {@code from} to before {@code to}, whose numbers are written into the selection. */
    int keepRange(int from, int to, int[] selection);

    static RowFilter of(Table table, Condition condition) {
        if (condition instanceof Condition.Holds holds)
            return ofCodes((CodedColumn) holds.holds(), new Condition.OneOf(holds.words(), List.of("yes")));
        if (condition instanceof Condition.Meets)
            throw new IllegalStateException("What is worked out where rows are is not asked of a table in memory");
        Column column = table.find(condition.column())
                .orElseThrow(() -> new QueryException(phrase("There is no column “{0}” any more", condition.column())));
        if (condition instanceof Condition.Newest)
            throw new IllegalStateException("What is worked out where rows are is not asked of a table in memory");
        if (condition instanceof Condition.Among)
            throw new IllegalStateException("What is among the groups of a query is asked before");
        if (column instanceof SummedColumn) throw QueryException.onlySums(condition.column());
        if (condition instanceof Condition.InGroups in) return ofGroups(KeyCoder.of(table, in.key()), in.groups());
        if (condition instanceof Condition.Not not) return new AllBut(of(table, not.of()), column);
        if (condition instanceof Condition.Missing) return (SlowFilter) column::isMissing;
        if (column instanceof CodedColumn coded) return ofCodes(coded, condition);
        if (condition instanceof Condition.Contains)
            throw new QueryException(phrase(
                    "“{0}” holds {1}, in which no words are looked for",
                    condition.column(), column.type().said()));
        if (condition instanceof Condition.OneOf oneOf) return ofValues(column, oneOf.values());
        if (condition instanceof Condition.NoneOf noneOf) {
            SlowFilter any = ofValues(column, noneOf.values());
            return (SlowFilter) row -> !column.isMissing(row) && !any.meets(row);
        }
        String from = condition instanceof Condition.Between between ? between.from() : null;
        String to = condition instanceof Condition.Between between ? between.to() : null;
        if (column instanceof DateColumn dates) {
            return new WholeRange(
                    dates.days(),
                    dates::zones,
                    from == null ? Long.MIN_VALUE : LocalDateText.day(from),
                    to == null ? Long.MAX_VALUE : LocalDateText.day(to));
        }
        if (column instanceof DecimalColumn decimals) {
            double low = from == null ? Double.NEGATIVE_INFINITY : NumberText.number(from);
            double high = to == null ? Double.POSITIVE_INFINITY : NumberText.number(to);
            return decimals.steps() == null ? new DoubleRange(decimals, low, high) : ofSteps(decimals, low, high);
        }
        Wholes values = column instanceof TimeColumn times ? times.seconds() : ((WholeColumn) column).values();
        boolean isTime = column instanceof TimeColumn;
        return new WholeRange(
                values,
                isTime ? ((TimeColumn) column)::zones : ((WholeColumn) column)::zones,
                from == null ? Long.MIN_VALUE : isTime ? LocalDateText.second(from, false) : NumberText.wholeFrom(from),
                to == null ? Long.MAX_VALUE : isTime ? LocalDateText.second(to, true) : NumberText.wholeUpTo(to));
    }

    /** A range of values as one of the steps that they are held in. */
    private static RowFilter ofSteps(DecimalColumn column, double low, double high) {
        double unit = column.unit();
        double first = Math.max(-MOST_STEPS, Math.min(MOST_STEPS, Math.ceil(low * unit)));
        double last = Math.max(-MOST_STEPS, Math.min(MOST_STEPS, Math.floor(high * unit)));
        // What is multiplied is rounded: a step beside it may be the one that is meant.
        while ((first - 1) / unit >= low && first > -MOST_STEPS) first--;
        while (first / unit < low && first < MOST_STEPS) first++;
        while ((last + 1) / unit <= high && last < MOST_STEPS) last++;
        while (last / unit > high && last > -MOST_STEPS) last--;
        return new WholeRange(column.steps(), column::zones, (long) first, (long) last);
    }

    private static RowFilter ofCodes(CodedColumn column, Condition condition) {
        if (condition instanceof Condition.Between) {
            throw new QueryException(phrase("“{0}” holds text, which has no range", condition.column()));
        }
        // allowed[code + 1]; missing is at 0.
        byte[] allowed = new byte[column.dictionary().size() + 1];
        if (condition instanceof Condition.OneOf oneOf) {
            Set<String> wanted = new HashSet<>(oneOf.values());
            for (int code = 0; code < column.dictionary().size(); code++) {
                if (wanted.contains(column.dictionary().get(code))) allowed[code + 1] = 1;
            }
        } else if (condition instanceof Condition.Contains contains) {
            String wanted = contains.text().toLowerCase(Locale.ROOT);
            for (int code = 0; code < column.dictionary().size(); code++)
                if (column.dictionary().get(code).toLowerCase(Locale.ROOT).contains(wanted)) allowed[code + 1] = 1;
        } else {
            Arrays.fill(allowed, 1, allowed.length, (byte) 1);
            if (condition instanceof Condition.NoneOf noneOf) {
                Set<String> unwanted = new HashSet<>(noneOf.values());
                for (int code = 0; code < column.dictionary().size(); code++)
                    if (unwanted.contains(column.dictionary().get(code))) allowed[code + 1] = 0;
            }
        }
        if (column.codes() instanceof Codes.Bytes bytes) return new ByteCodes(bytes.values(), allowed);
        if (column.codes() instanceof Codes.Shorts shorts) return new ShortCodes(shorts.values(), allowed);
        return new IntCodes(((Codes.Ints) column.codes()).values(), allowed);
    }

    private static RowFilter ofGroups(KeyCoder coder, List<String> groups) {
        Set<String> wanted = new HashSet<>(groups);
        // The last code stands for missing, which is in no group.
        boolean[] allowed = new boolean[coder.size()];
        for (int code = 0; code < allowed.length - 1; code++) allowed[code] = wanted.contains(coder.text(code));
        return (SlowFilter) row -> allowed[coder.code(row)];
    }

    private static SlowFilter ofValues(Column column, List<String> values) {
        if (column instanceof DecimalColumn decimals) {
            double[] wanted =
                    values.stream().mapToDouble(NumberText::number).sorted().toArray();
            return row -> {
                double value = decimals.get(row);
                return !Double.isNaN(value) && Arrays.binarySearch(wanted, value) >= 0;
            };
        }
        if (column instanceof DateColumn dates) {
            int[] wanted = values.stream()
                    .mapToInt(v -> (int) LocalDateText.day(v))
                    .sorted()
                    .toArray();
            return row -> Arrays.binarySearch(wanted, dates.day(row)) >= 0;
        }
        boolean isTime = column instanceof TimeColumn;
        Wholes all = isTime ? ((TimeColumn) column).seconds() : ((WholeColumn) column).values();
        long[] wanted = isTime
                ? values.stream().mapToLong(v -> LocalDateText.second(v, false)).toArray()
                : NumberText.wholes(values);
        Arrays.sort(wanted);
        return row -> Arrays.binarySearch(wanted, all.get(row)) >= 0;
    }

    /** Reads the bounds of date and time conditions. */
    final class LocalDateText {
        private LocalDateText() {}

        static long day(String text) {
            try {
                return LocalDate.parse(text.length() > 10 ? text.substring(0, 10) : text)
                        .toEpochDay();
            } catch (DateTimeException unreadable) {
                throw new QueryException(phrase("“{0}” is not a date such as 2026-05-31", text));
            }
        }

        static long second(String text, boolean endOfDay) {
            if (text.length() <= 10) return day(text) * 86_400 + (endOfDay ? 86_399 : 0);
            try {
                return LocalDateTime.parse(text).toEpochSecond(ZoneOffset.UTC);
            } catch (DateTimeException unreadable) {
                throw new QueryException(phrase("“{0}” is not a time such as 2026-05-31T12:30", text));
            }
        }
    }

    /** One row at a time; for conditions that are rare enough not to need a loop of their own. */
    @FunctionalInterface
    interface SlowFilter extends RowFilter {
        boolean meets(int row);

        @Override
        default int keep(int[] selection, int count) {
            int kept = 0;
            for (int i = 0; i < count; i++) if (meets(selection[i])) selection[kept++] = selection[i];
            return kept;
        }

        @Override
        default int keepRange(int from, int to, int[] selection) {
            int kept = 0;
            for (int row = from; row < to; row++) if (meets(row)) selection[kept++] = row;
            return kept;
        }
    }

    /** What another condition does not keep, but for what is missing. */
    record AllBut(RowFilter of, Column column) implements RowFilter {
        @Override
        public int keep(int[] selection, int count) {
            int[] rows = Arrays.copyOf(selection, count);
            int left = of.keep(rows, count);
            return without(selection, count, rows, left);
        }

        @Override
        public int keepRange(int from, int to, int[] selection) {
            int[] rows = new int[to - from];
            int left = of.keepRange(from, to, rows);
            for (int row = from; row < to; row++) selection[row - from] = row;
            return without(selection, to - from, rows, left);
        }

        /** Both ascending. */
        private int without(int[] selection, int count, int[] rows, int left) {
            int kept = 0;
            int next = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                if (next < left && rows[next] == row) next++;
                else if (!column.isMissing(row)) selection[kept++] = row;
            }
            return kept;
        }
    }

    record ByteCodes(byte[] codes, byte[] allowed) implements RowFilter {
        @Override
        public int keep(int[] selection, int count) {
            int kept = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                selection[kept] = row;
                kept += allowed[codes[row] + 1];
            }
            return kept;
        }

        @Override
        public int keepRange(int from, int to, int[] selection) {
            int kept = 0;
            for (int row = from; row < to; row++) {
                selection[kept] = row;
                kept += allowed[codes[row] + 1];
            }
            return kept;
        }
    }

    record ShortCodes(short[] codes, byte[] allowed) implements RowFilter {
        @Override
        public int keep(int[] selection, int count) {
            int kept = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                selection[kept] = row;
                kept += allowed[codes[row] + 1];
            }
            return kept;
        }

        @Override
        public int keepRange(int from, int to, int[] selection) {
            int kept = 0;
            for (int row = from; row < to; row++) {
                selection[kept] = row;
                kept += allowed[codes[row] + 1];
            }
            return kept;
        }
    }

    record IntCodes(int[] codes, byte[] allowed) implements RowFilter {
        @Override
        public int keep(int[] selection, int count) {
            int kept = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                selection[kept] = row;
                kept += allowed[codes[row] + 1];
            }
            return kept;
        }

        @Override
        public int keepRange(int from, int to, int[] selection) {
            int kept = 0;
            for (int row = from; row < to; row++) {
                selection[kept] = row;
                kept += allowed[codes[row] + 1];
            }
            return kept;
        }
    }

    /** A range of whole numbers. Of tables with many rows it is known which blocks need not be looked at. */
    final class WholeRange implements RowFilter {

        private static final int MANY = 1 << 16;

        private final Wholes values;
        private final Zones zones;
        private final long low;
        private final long high;

        WholeRange(Wholes values, Supplier<Zones> zones, long low, long high) {
            this.values = values;
            this.zones = values.size() < MANY ? null : zones.get();
            this.low = low;
            this.high = high;
        }

        @Override
        public int keep(int[] selection, int count) {
            return values.keep(selection, count, low, high);
        }

        @Override
        public int keepRange(int from, int to, int[] selection) {
            if (zones != null && zones.areOutside(from, to, low, high)) return 0;
            if (zones == null || !zones.areWithin(from, to, low, high))
                return values.keepRange(from, to, selection, low, high);
            for (int row = from; row < to; row++) selection[row - from] = row;
            return to - from;
        }
    }

    record DoubleRange(DecimalColumn values, double low, double high) implements RowFilter {

        /** What is missing is asked for by name: compiled to JavaScript, a comparison with it may turn out true. */
        private boolean isWithin(double value) {
            return !Double.isNaN(value) & value >= low & value <= high;
        }

        @Override
        public int keep(int[] selection, int count) {
            int kept = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                double value = values.get(row);
                selection[kept] = row;
                kept += isWithin(value) ? 1 : 0;
            }
            return kept;
        }

        @Override
        public int keepRange(int from, int to, int[] selection) {
            int kept = 0;
            for (int row = from; row < to; row++) {
                double value = values.get(row);
                selection[kept] = row;
                kept += isWithin(value) ? 1 : 0;
            }
            return kept;
        }
    }
}
