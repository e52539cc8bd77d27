package sarnik.formula;

import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * One summary of a measure: what is summed up over the rows of a group, and how.
 *
 * @param function SUM, AVG, COUNT, MIN, MAX, STDDEV_SAMP, VAR_SAMP, PERCENTILE_CONT, PERCENTILE_DISC, MODE, CORR,
 *     REGR_SLOPE,
 *     REGR_INTERCEPT or REGR_R2
 * @param distinct whether equal values count once
 * @param argument its value in a row; null for COUNT(*)
 * @param beside what the first depends on, for summaries of two columns; null for others
 * @param filter the rows that take part; null for all
 * @param fraction of percentiles, 0 to 1
 * @param column the column of numbers whose running sums it is as they stand; null where values are worked out or
 *     gathered
 * @param kind the type of its result
 * @param sql the same for PostgreSQL
 */
record SummaryPart(
        String function,
        boolean distinct,
        Typed argument,
        Typed beside,
        Typed filter,
        double fraction,
        String column,
        Kind kind,
        String sql) {

    /**
     * @param rows compiles what is computed row by row
     */
    static SummaryPart of(Expression.Summary summary, Compiler rows) {
        Typed filter = summary.filter() == null ? null : rows.compile(summary.filter());
        if (filter != null) Compiler.condition(filter, "FILTER");
        String where = filter == null ? "" : " FILTER (WHERE " + filter.sql() + ")";
        if (summary.argument() instanceof Expression.Star)
            return new SummaryPart("COUNT", false, null, null, filter, 0, null, Kind.WHOLE, "COUNT(*)" + where);
        Typed argument = rows.compile(summary.argument());
        String function = summary.function();
        boolean number = argument.kind().isNumber();
        boolean ordered =
                number || argument.kind() == Kind.DATE || argument.kind() == Kind.TIME || argument.kind() == Kind.TEXT;
        Typed beside = summary.beside() == null ? null : rows.compile(summary.beside());
        if (beside != null && !beside.kind().isNumber()) throw Compiler.unfit(beside, function, "a number");
        String by = argument.kind() == Kind.TEXT ? " COLLATE \"C\"" : "";
        boolean fits = switch (function) {
            case "COUNT" -> argument.kind().column() != null;
            case "MIN", "MAX", "PERCENTILE_DISC", "MODE" -> ordered;
            default -> number;
        };
        if (!fits)
            throw Compiler.unfit(
                    argument,
                    function,
                    function.equals("COUNT")
                            ? "a value"
                            : function.equals("MIN") || function.equals("MAX") || ordered
                                    ? "a number, a date or a text"
                                    : "a number");
        double fraction = summary.fraction() == null ? 0 : fraction(summary.fraction());
        Kind kind = switch (function) {
            case "COUNT" -> Kind.WHOLE;
            case "MIN", "MAX", "PERCENTILE_DISC", "MODE" -> argument.kind();
            default -> Kind.DECIMAL;
        };
        String distinct = summary.distinct() ? "DISTINCT " : "";
        String sql = switch (function) {
            case "COUNT" -> function + "(" + distinct + argument.sql() + ")";
            case "MIN", "MAX" -> function + "(" + distinct + argument.sql() + by + ")";
            case "CORR", "REGR_SLOPE", "REGR_INTERCEPT", "REGR_R2" ->
                function + "((" + argument.sql() + ")::double precision, (" + beside.sql() + ")::double precision)";
            case "STDDEV_SAMP", "VAR_SAMP" -> function + "(" + distinct + "(" + argument.sql() + ")::double precision)";
            case "SUM", "AVG" -> function + "(" + distinct + argument.sql() + ")";
            case "PERCENTILE_CONT" ->
                "PERCENTILE_CONT(" + fraction + ") WITHIN GROUP (ORDER BY (" + argument.sql() + ")::double precision)";
            case "PERCENTILE_DISC" ->
                "PERCENTILE_DISC(" + fraction + ") WITHIN GROUP (ORDER BY " + argument.sql() + by + ")";
            default -> "MODE() WITHIN GROUP (ORDER BY " + argument.sql() + by + ")";
        };
        String whole = "(" + sql + where + ")" + (kind == Kind.DECIMAL ? "::double precision" : "");
        return new SummaryPart(
                function,
                summary.distinct(),
                argument,
                beside,
                filter,
                fraction,
                isSummedUp(function, summary.distinct()) && filter == null ? column(argument, rows) : null,
                kind,
                "(" + whole + ")");
    }

    /** The same values summed up otherwise. */
    SummaryPart as(String other) {
        return new SummaryPart(other, distinct, argument, beside, filter, fraction, column, kind, sql);
    }

    /** In how many rows there is a value. */
    SummaryPart counted() {
        return new SummaryPart("COUNT", false, argument, beside, filter, fraction, column, kind, sql);
    }

    /**
     * The same for a database that holds the rows.
     *
     * @param only which rows take part besides; null for all
     */
    String sql(SqlScope where, SqlExpressions write, String only) {
        SqlDialect dialect = where.dialect();
        String some = filter == null
                ? only
                : "(" + write.whole(filter.at()) + ")" + (only == null ? "" : " AND (" + only + ")");
        String behind = SqlDialect.only(some);
        if (argument == null) return dialect.cast("COUNT(*)" + behind, Kind.DECIMAL);
        String once = distinct ? "DISTINCT " : "";
        if (function.equals("COUNT"))
            return dialect.cast("COUNT(" + once + write.whole(argument.at()) + ")" + behind, Kind.DECIMAL);
        if (argument.kind() == Kind.TEXT)
            throw dialect.lacks(argument.at().from(), argument.at().to(), "The " + function + " of texts");
        String exact = write.exact(argument.at());
        String plain = number(dialect, argument.kind(), write.whole(argument.at()));
        String sql = switch (function) {
            case "SUM" -> "SUM(" + once + exact + ")" + behind;
            case "AVG" ->
                dialect.cast("SUM(" + once + exact + ")" + behind, Kind.DECIMAL) + " / NULLIF(COUNT(" + once + exact
                        + ")" + behind + ", 0)";
            case "MIN", "MAX" -> function + "(" + plain + ")" + behind;
            case "STDDEV_SAMP", "VAR_SAMP" -> function + "(" + once + dialect.cast(plain, Kind.DECIMAL) + ")" + behind;
            case "PERCENTILE_CONT" -> dialect.percentile(fraction, plain, some);
            case "PERCENTILE_DISC" -> dialect.percentileOfValues(fraction, plain, some);
            case "MODE" -> dialect.mode(plain, some);
            case "REGR_R2" -> dialect.knows("REGR_R2") ? ofTwo(dialect, plain, write) + behind : null;
            default -> ofTwo(dialect, plain, write) + behind;
        };
        if (sql == null) throw dialect.lacks(argument.at().from(), argument.at().to(), function);
        return dialect.cast("(" + sql + ")", Kind.DECIMAL);
    }

    /** The condition under which what is summed up cannot be worked out in a row that takes part; null for never. */
    String unworked(SqlExpressions write) {
        String within = Stream.of(argument, beside)
                .filter(Objects::nonNull)
                .map(of -> write.unworked(of.at()))
                .filter(Objects::nonNull)
                .distinct()
                .collect(Collectors.joining(" OR "));
        if (filter == null) return within.isEmpty() ? null : "(" + within + ")";
        String first = write.unworked(filter.at());
        if (within.isEmpty()) return first;
        String then = "(" + write.whole(filter.at()) + " AND (" + within + "))";
        return first == null ? then : "(" + first + " OR " + then + ")";
    }

    private String ofTwo(SqlDialect dialect, String depends, SqlExpressions write) {
        return function + "(" + dialect.cast(depends, Kind.DECIMAL) + ", "
                + dialect.cast(write.whole(beside.at()), Kind.DECIMAL) + ")";
    }

    private static String number(SqlDialect dialect, Kind kind, String value) {
        return switch (kind) {
            case DATE -> dialect.day(value);
            case TIME -> dialect.second(value);
            default -> value;
        };
    }

    /** Whether running sums are enough for a summary. */
    static boolean isSummedUp(String function, boolean distinct) {
        return switch (function) {
            case "COUNT", "SUM", "AVG" -> !distinct;
            case "MIN", "MAX" -> true;
            default -> false;
        };
    }

    private static String column(Typed argument, Compiler rows) {
        return argument.kind().isNumber() && argument.at() instanceof Expression.Name name ? rows.column(name) : null;
    }

    private static double fraction(Expression e) {
        if (e instanceof Expression.Literal literal
                && literal.value() instanceof Number number
                && number.doubleValue() >= 0
                && number.doubleValue() <= 1) return number.doubleValue();
        throw new FormulaException(
                e, "The share of a percentile is a number from 0 to 1, such as PERCENTILE_CONT(0.5).");
    }
}
