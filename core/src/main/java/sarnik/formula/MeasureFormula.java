package sarnik.formula;

import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.IntPredicate;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import sarnik.scale.ValueWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/**
 * A formula that sums up groups of rows, such as {@code SUM(cases) * 10000.0 / SUM(people)}. It comes apart into
 * summaries
 * of columns, which an engine computes, and what is made of them.
 */
public final class MeasureFormula {

    private final Typed typed;
    private final List<String> columns;
    private final List<SummaryPart> parts;
    private final List<WindowPart> windows;

    private final Scope scope;
    private final Map<Expression, Kind> kinds;

    private MeasureFormula(Typed typed, Compiler compiler) {
        this.typed = typed;
        this.scope = compiler.scope();
        this.columns = compiler.columns();
        this.parts = List.copyOf(compiler.parts());
        this.windows = List.copyOf(compiler.windows());
        this.kinds = compiler.kinds();
    }

    /**
     * @throws FormulaException when the text is no formula, its types do not fit, or it gives no number
     */
    public static MeasureFormula parse(String text, Scope scope) {
        Compiler compiler = new Compiler(scope, true);
        Typed typed = compiler.compile(Parser.parse(text));
        if (!typed.kind().isNumber() && typed.kind() != Kind.DATE && typed.kind() != Kind.TIME) {
            throw new FormulaException(
                    typed.at(),
                    "A measure is a number or a date; this is %s."
                                    .formatted(typed.kind().words())
                            + (typed.kind() == Kind.TEXT
                                    ? " To show the commonest text of a place, choose its column for colours or labels."
                                    : ""));
        }
        if (compiler.parts().isEmpty() && compiler.windows().isEmpty())
            throw new FormulaException(
                    typed.at(),
                    "A measure sums rows up, such as SUM(litres) or COUNT(*). This is the same for all of them.");
        return new MeasureFormula(typed, compiler);
    }

    /** The type of its values. */
    public Kind kind() {
        return typed.kind();
    }

    /** How its values are read. */
    public ValueWords read() {
        return kind() == Kind.DATE ? ValueWords.DATE : kind() == Kind.TIME ? ValueWords.TIME : ValueWords.NUMBER;
    }

    /**
     * A value of it as people read it, not rounded; dates and date-times as ISO 8601 has them.
     *
     * @param value as {@link #of} gives it
     * @return the text, "–" for a missing value
     */
    public String words(double value) {
        if (!Double.isFinite(value)) return "–";
        return !read().isAmount()
                ? read().full(value)
                : new DecimalFormat("#,##0.###############", DecimalFormatSymbols.getInstance(Locale.ENGLISH))
                        .format(value);
    }

    /** The columns that it uses. */
    public List<String> columns() {
        return columns;
    }

    /**
     * The columns of which it needs no values of single rows, only their running sums.
     *
     * @param of which summaries count
     */
    public Set<String> summed(Predicate<String> of) {
        Set<String> summed = new HashSet<>();
        for (SummaryPart part : parts) if (part.column() != null && of.test(part.function())) summed.add(part.column());
        for (SummaryPart part : parts) if (part.column() == null) summed.removeIf(column -> names(part, column));
        return summed;
    }

    private static boolean names(SummaryPart part, String column) {
        return Stream.of(part.argument(), part.beside(), part.filter())
                .filter(Objects::nonNull)
                .anyMatch(typed -> Expressions.any(
                        typed.at(),
                        e -> e instanceof Expression.Name name && name.name().equalsIgnoreCase(column)));
    }

    /**
     * Stands in {@link #sql} for all columns that groups are made by, each behind a comma; they decide between equals.
     */
    public static final String TIES = WindowPart.TIES;

    /** What stands in {@link #sql} for a column that groups are made by. */
    public static String keyIn(String column) {
        return WindowPart.keySql(column);
    }

    /** The same as an SQL expression over groups. */
    public String sql() {
        return typed.sql();
    }

    /** Each of its summaries as an SQL expression over groups, in the order of {@link #parts}. */
    public List<String> partSql() {
        return parts.stream().map(SummaryPart::sql).toList();
    }

    /** Each of its summaries for a database that holds the rows, in the order of {@link #parts}. */
    public List<Summed> summed() {
        return parts.stream().map(part -> new Summed(part, kinds, scope)).toList();
    }

    /**
     * The condition under which a row takes no part because what is summed up cannot be worked out in it, for a database
     * that holds the rows; null for never.
     *
     * @throws FormulaException when the database has no word for a part of it
     */
    public String unworked(SqlScope where) {
        SqlExpressions write = new SqlExpressions(where, kinds, scope);
        String any = parts.stream()
                .map(part -> part.unworked(write))
                .filter(Objects::nonNull)
                .distinct()
                .collect(Collectors.joining(" OR "));
        return any.isEmpty() ? null : any;
    }

    /** One of its summaries, to be worked out by a database. */
    public static final class Summed {

        private final SummaryPart part;
        private final Map<Expression, Kind> kinds;
        private final Scope scope;

        private Summed(SummaryPart part, Map<Expression, Kind> kinds, Scope scope) {
            this.part = part;
            this.kinds = kinds;
            this.scope = scope;
        }

        /** Its function. */
        public String function() {
            return part.function();
        }

        /** Whether running sums are enough for it. */
        public boolean isSummedUp() {
            return SummaryPart.isSummedUp(part.function(), part.distinct());
        }

        /** Whether every row takes part that has a value of the one thing that is summed up. */
        public boolean takesAllWithAValue() {
            return part.argument() != null
                    && part.beside() == null
                    && part.filter() == null
                    && !part.function().equals("COUNT");
        }

        /** The column of numbers that is summed up as it stands; null where values are worked out or gathered. */
        public String column() {
            return part.column();
        }

        /** In how many rows there is a value of what is summed up. */
        public Summed counted() {
            return new Summed(part.counted(), kinds, scope);
        }

        /** Of a mean the sum and the number of values, which it divides. */
        public List<Summed> divided() {
            return List.of(new Summed(part.as("SUM"), kinds, scope), new Summed(part.as("COUNT"), kinds, scope));
        }

        /**
         * The summary as SQL that gives a decimal number: days since 1970-01-01 of dates, seconds of date-times.
         *
         * @param only which rows take part besides its own filter; null for all
         * @throws FormulaException when the database has no word for a part of it
         */
        public String sql(SqlScope where, String only) {
            return part.sql(where, new SqlExpressions(where, kinds, scope), only);
        }
    }

    /**
     * One summary that an engine computes.
     *
     * @param function SUM, AVG, COUNT, MIN, MAX, STDDEV_SAMP, VAR_SAMP, PERCENTILE_CONT, PERCENTILE_DISC, MODE, CORR,
     *     REGR_SLOPE,
     *     REGR_INTERCEPT or REGR_R2
     * @param distinct whether equal values count once
     * @param fraction of percentiles, 0 to 1
     * @param values what is summed up, as numbers: a row that takes no part has none. Of a text it is its place among
     *     all, of two
     *     columns the number of the row
     * @param texts all texts that occur, ascending by code point; empty where the values are no texts
     * @param pair the two columns of a summary of two, the one that depends first; null for others
     * @param blocks works the values out for the rows that are asked for; null where they are held
     * @param known what counts once for each key instead of once for each row; null for values of rows
     */
    public record Part(
            String function,
            boolean distinct,
            double fraction,
            Column values,
            List<String> texts,
            double[][] pair,
            BlockNumbers blocks,
            Known known) {

        /** Whether running sums are enough for it. */
        public boolean isSummedUp() {
            return SummaryPart.isSummedUp(function, distinct);
        }
    }

    /**
     * Figures that are known by key.
     *
     * @param column the column of keys
     * @param figures the figure of each key
     */
    public record Known(String column, Map<String, Double> figures) {}

    /**
     * Its summaries over a table; dates are days since 1970-01-01, date-times seconds.
     *
     * @throws IllegalArgumentException when the table lacks a column that it uses
     */
    public List<Part> parts(Table table, Surroundings surroundings) {
        return parts(table, surroundings, new Unworked());
    }

    /**
     * The same.
     *
     * @param unworked takes the rows that take no part because what is summed up cannot be worked out in them
     * @throws IllegalArgumentException when the table lacks a column that it uses
     */
    public List<Part> parts(Table table, Surroundings surroundings, Unworked unworked) {
        return parts.stream()
                .map(part -> held(part, table, surroundings, unworked))
                .toList();
    }

    /**
     * The same where its parameters change often: what is summed up is worked out for the rows that are asked for, and
     * only what no parameter changes is kept.
     *
     * @param keeper keeps what was worked out for all rows
     * @throws IllegalArgumentException when the table lacks a column that it uses
     */
    public List<Part> parts(Table table, Surroundings surroundings, Keeper keeper) {
        BlockCompiler compiler = new BlockCompiler(table, scope, surroundings, keeper);
        return parts.stream()
                .map(part -> part.beside() != null
                                || part.argument() != null && part.argument().kind() == Kind.TEXT
                        ? held(part, table, surroundings, new Unworked())
                        : inBlocks(part, compiler, table))
                .toList();
    }

    /** Keeps what was worked out for all rows. */
    public interface Keeper {

        /**
         * @param words what was worked out; equal words mean the same numbers of the same rows
         * @param work works it out
         */
        DecimalColumn of(String words, Supplier<DecimalColumn> work);
    }

    private static Part inBlocks(SummaryPart part, BlockCompiler compiler, Table table) {
        BlockNumbers blocks = compiler.of(
                part.argument() == null ? null : part.argument().at(),
                part.filter() == null ? null : part.filter().at());
        boolean summed = SummaryPart.isSummedUp(part.function(), part.distinct());
        return new Part(
                part.function(),
                part.distinct(),
                part.fraction(),
                summed ? null : all(blocks, table.rows()),
                List.of(),
                null,
                summed ? blocks : null,
                null);
    }

    private static DecimalColumn all(BlockNumbers blocks, int size) {
        double[] all = new double[size];
        double[] some = new double[BlockNumbers.MOST];
        int[] rows = new int[BlockNumbers.MOST];
        BlockNumbers.Reading reading = blocks.open();
        for (int start = 0; start < size; start += rows.length) {
            int count = Math.min(rows.length, size - start);
            for (int i = 0; i < count; i++) rows[i] = start + i;
            reading.fill(rows, count, some);
            System.arraycopy(some, 0, all, start, count);
        }
        return new DecimalColumn(all);
    }

    private Part held(SummaryPart part, Table table, Surroundings surroundings, Unworked unworked) {
        if (part.column() != null)
            return new Part(part.function(), false, 0, table.column(part.column()), List.of(), null, null, null);
        IntPredicate all = row -> true;
        Column filter = computed(part.filter(), table, surroundings, all, unworked);
        IntPredicate asked = filter == null ? all : row -> "yes".equals(filter.text(row));
        Column argument = computed(part.argument(), table, surroundings, asked, unworked);
        Column beside = computed(part.beside(), table, surroundings, asked, unworked);
        boolean text = part.argument() != null && part.argument().kind() == Kind.TEXT;
        List<String> texts = text
                ? ((CodedColumn) argument)
                        .dictionary().stream().sorted(Texts::compare).toList()
                : List.of();
        int[] places = text
                ? ((CodedColumn) argument)
                        .dictionary().stream()
                                .mapToInt(t -> Collections.binarySearch(texts, t, Texts::compare))
                                .toArray()
                : null;
        double[][] pair = beside == null ? null : new double[2][table.rows()];
        double[] values = new double[table.rows()];
        for (int row = 0; row < values.length; row++) {
            boolean takesPart = asked.test(row)
                    && (argument == null || !argument.isMissing(row))
                    && (beside == null || !beside.isMissing(row));
            values[row] = !takesPart
                    ? Double.NaN
                    : argument == null
                            ? 1
                            : pair != null ? row : text ? places[(int) number(argument, row)] : number(argument, row);
            if (pair == null || !takesPart) continue;
            pair[0][row] = number(argument, row);
            pair[1][row] = number(beside, row);
        }
        return new Part(
                part.function(), part.distinct(), part.fraction(), new DecimalColumn(values), texts, pair, null, null);
    }

    private Column computed(Typed of, Table table, Surroundings surroundings, IntPredicate asked, Unworked unworked) {
        if (of == null) return null;
        Formula.Computed computed = Formula.compute(of, columns, table, surroundings, asked);
        unworked.add(computed.unworked());
        return computed.column();
    }

    private static double number(Column column, int row) {
        if (column instanceof WholeColumn whole) return whole.get(row);
        if (column instanceof DecimalColumn decimal) return decimal.get(row);
        if (column instanceof DateColumn dates) return dates.day(row);
        if (column instanceof TimeColumn times) return times.second(row);
        return ((CodedColumn) column).codes().get(row);
    }

    /**
     * A window function that an engine works out over the groups.
     *
     * @param function SUM, AVG, COUNT, MIN, MAX, RANK, DENSE_RANK, ROW_NUMBER, LAG or LEAD
     * @param argument its argument for a group, from a number for each of the parts; null for those that have none
     * @param steps of LAG and LEAD how many rows away
     * @param partition columns of the grouping that rows which belong together have in common
     * @param order what rows are ordered by
     * @param before how many rows before each take part, {@link Integer#MAX_VALUE} for all; -1 for all up to its
     *     equals, or all where there is no order
     * @param after how many rows behind each take part
     */
    public record Window(
            String function,
            ToDoubleFunction<double[]> argument,
            int steps,
            List<String> partition,
            List<By> order,
            int before,
            int after) {

        /**
         * @param key a column of the grouping; null where it is ordered by a value
         * @param value the value of a group; null where it is ordered by a column
         * @param down whether the greatest comes first; what is missing comes last either way
         */
        public record By(String key, ToDoubleFunction<double[]> value, boolean down) {}

        /** The columns that groups have to be made by. */
        public Stream<String> keys() {
            return Stream.concat(partition.stream(), order.stream().map(By::key).filter(k -> k != null));
        }
    }

    /**
     * Its window functions, in the order in which {@link #of} takes their values.
     *
     * @param made the parts as {@link #parts} made them
     */
    public List<Window> windows(List<Part> made, Surroundings surroundings) {
        return windows.stream()
                .map(part -> new Window(
                        part.function(),
                        part.argument() == null ? null : sums -> number(part.argument(), sums, made, surroundings),
                        part.steps(),
                        part.partition(),
                        part.order().stream()
                                .map(by -> new Window.By(
                                        by.key(),
                                        by.value() == null
                                                ? null
                                                : sums -> number(by.value(), sums, made, surroundings),
                                        by.down()))
                                .toList(),
                        part.frame() == null ? -1 : part.frame().before(),
                        part.frame() == null ? 0 : part.frame().after()))
                .toList();
    }

    /**
     * The measure of a group.
     *
     * @param sums a number for each of the parts, then for each of the window functions; NaN for missing
     * @param made the parts as {@link #parts} made them
     * @return NaN where it is missing or cannot be computed
     */
    public double of(double[] sums, List<Part> made, Surroundings surroundings) {
        return number(typed, sums, made, surroundings);
    }

    private double number(Typed of, double[] sums, List<Part> made, Surroundings surroundings) {
        Typed.Cursor cursor = new Typed.Cursor();
        cursor.surroundings = surroundings;
        cursor.sums = new Object[parts.size()];
        for (int i = 0; i < cursor.sums.length; i++)
            cursor.sums[i] = value(parts.get(i).kind(), made.get(i), sums[i]);
        cursor.windows = new Object[sums.length - cursor.sums.length];
        for (int i = 0; i < cursor.windows.length; i++)
            cursor.windows[i] = value(windows.get(i).kind(), null, sums[cursor.sums.length + i]);
        try {
            Object value = of.eval().at(cursor);
            return value == null ? Double.NaN : ((Number) value).doubleValue();
        } catch (RowError error) {
            return Double.NaN;
        }
    }

    private static Object value(Kind kind, Part part, double number) {
        if (Double.isNaN(number)) return null;
        return switch (kind) {
            case WHOLE, TIME -> (long) number;
            case DATE -> (int) number;
            case TEXT -> part.texts().get((int) number);
            default -> number;
        };
    }
}
