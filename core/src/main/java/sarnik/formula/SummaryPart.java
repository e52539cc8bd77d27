package sarnik.formula;

/**
 * One summary of a measure: what is summed up over the rows of a group, and how.
 *
 * @param function SUM, AVG, COUNT, MIN, MAX, STDDEV_SAMP, VAR_SAMP, PERCENTILE_CONT, PERCENTILE_DISC or MODE
 * @param distinct whether equal values count once
 * @param argument its value in a row; null for COUNT(*)
 * @param filter the rows that take part; null for all
 * @param fraction of percentiles, 0 to 1
 * @param kind the type of its result
 * @param sql the same for PostgreSQL
 */
record SummaryPart(String function, boolean distinct, Typed argument, Typed filter, double fraction, Kind kind, String sql) {

    /**
     * @param rows compiles what is computed row by row
     */
    static SummaryPart of(Expression.Summary summary, Compiler rows) {
        Typed filter = summary.filter() == null ? null : rows.compile(summary.filter());
        if (filter != null) Compiler.condition(filter, "FILTER");
        String where = filter == null ? "" : " FILTER (WHERE " + filter.sql() + ")";
        if (summary.argument() instanceof Expression.Star) return new SummaryPart("COUNT", false, null, filter, 0, Kind.WHOLE, "COUNT(*)" + where);
        Typed argument = rows.compile(summary.argument());
        String function = summary.function();
        boolean number = argument.kind().isNumber();
        boolean ordered = number || argument.kind() == Kind.DATE || argument.kind() == Kind.TIME;
        boolean fits = switch (function) {
            case "COUNT" -> argument.kind().column() != null;
            case "MIN", "MAX", "PERCENTILE_DISC", "MODE" -> ordered;
            default -> number;
        };
        if (!fits) throw Compiler.unfit(argument, function, function.equals("COUNT") ? "a value" : function.equals("MIN") || function.equals("MAX") || ordered ? "a number or a date" : "a number");
        double fraction = summary.fraction() == null ? 0 : fraction(summary.fraction());
        Kind kind = switch (function) {
            case "COUNT" -> Kind.WHOLE;
            case "MIN", "MAX", "PERCENTILE_DISC", "MODE" -> argument.kind();
            default -> Kind.DECIMAL;
        };
        String distinct = summary.distinct() ? "DISTINCT " : "";
        String sql = switch (function) {
            case "COUNT", "MIN", "MAX" -> function + "(" + distinct + argument.sql() + ")";
            case "STDDEV_SAMP", "VAR_SAMP" -> function + "(" + distinct + "(" + argument.sql() + ")::double precision)";
            case "SUM", "AVG" -> function + "(" + distinct + argument.sql() + ")";
            case "PERCENTILE_CONT" -> "PERCENTILE_CONT(" + fraction + ") WITHIN GROUP (ORDER BY (" + argument.sql() + ")::double precision)";
            case "PERCENTILE_DISC" -> "PERCENTILE_DISC(" + fraction + ") WITHIN GROUP (ORDER BY " + argument.sql() + ")";
            default -> "MODE() WITHIN GROUP (ORDER BY " + argument.sql() + ")";
        };
        String whole = "(" + sql + where + ")" + (kind == Kind.DECIMAL ? "::double precision" : "");
        return new SummaryPart(function, summary.distinct(), argument, filter, fraction, kind, "(" + whole + ")");
    }

    private static double fraction(Expression e) {
        if (e instanceof Expression.Literal literal && literal.value() instanceof Number number && number.doubleValue() >= 0 && number.doubleValue() <= 1) return number.doubleValue();
        throw new FormulaException(e, "The share of a percentile is a number from 0 to 1, such as PERCENTILE_CONT(0.5).");
    }
}
