package sarnik.formula;

import java.util.ArrayList;
import java.util.List;

/**
 * One window function of a measure, its types checked.
 *
 * @param function SUM, AVG, COUNT, MIN, MAX, RANK, DENSE_RANK, ROW_NUMBER, LAG or LEAD
 * @param argument what it is of, worked out for each group; null for those that count places
 * @param steps of LAG and LEAD how many rows away
 * @param partition columns of the grouping that rows which belong together have in common
 * @param order what they are ordered by
 * @param frame the rows around each one that take part; null for all up to its equals, or all where there is no order
 * @param kind the type of its result
 */
record WindowPart(
        String function,
        Typed argument,
        int steps,
        List<String> partition,
        List<By> order,
        Expression.Frame frame,
        Kind kind) {

    /** Stands in SQL for what a column of the grouping is there; the column's name follows, and the same again. */
    static final char KEY = '\ue001';

    /** Stands in SQL for all columns of the grouping, which decide between equals. */
    static final String TIES = "\ue002";

    /**
     * @param key a column of the grouping; null where it is ordered by a value
     * @param value worked out for each group; null where it is ordered by a column
     */
    record By(String key, Typed value, boolean down) {}

    /**
     * @param measure compiles what is worked out for each group
     * @param column finds the column that a name means; null for none
     */
    static WindowPart of(
            Expression.Window window, Compiler measure, java.util.function.Function<Expression.Name, String> column) {
        Typed argument = window.argument() == null || window.argument() instanceof Expression.Star
                ? null
                : ofGroups(window, measure);
        if (argument != null && !fits(window.function(), argument.kind()))
            throw Compiler.unfit(argument, window.function(), "a number");
        List<String> partition = new ArrayList<>();
        for (Expression.Name name : window.partition()) partition.add(key(name, column));
        List<By> order = new ArrayList<>();
        for (Expression.By by : window.order()) {
            String key = by.of() instanceof Expression.Name name ? key(name, column) : null;
            order.add(new By(key, key == null ? measure.compile(by.of()) : null, by.down()));
        }
        Kind kind = switch (window.function()) {
            case "RANK", "DENSE_RANK", "ROW_NUMBER", "COUNT" -> Kind.WHOLE;
            case "LAG", "LEAD", "MIN", "MAX" -> argument.kind();
            default -> Kind.DECIMAL;
        };
        return new WindowPart(window.function(), argument, window.steps(), partition, order, window.frame(), kind);
    }

    private static boolean fits(String function, Kind kind) {
        return kind.isNumber()
                || !function.equals("SUM") && !function.equals("AVG") && (kind == Kind.DATE || kind == Kind.TIME);
    }

    /** What is summed up over groups; of plain values their sums, least or greatest in each group. */
    private static Typed ofGroups(Expression.Window window, Compiler measure) {
        try {
            return measure.compile(window.argument());
        } catch (FormulaException ofRows) {
            if (window.function().matches("AVG|COUNT|LAG|LEAD"))
                throw new FormulaException(
                        window.argument(),
                        "%s OVER is of one value for each group: sum it up first, as in %1$s(SUM(…)) OVER (…)."
                                .formatted(window.function()));
            Expression.Summary summed = new Expression.Summary(
                    window.argument().from(),
                    window.argument().to(),
                    window.function(),
                    false,
                    window.argument(),
                    null,
                    null,
                    null);
            return measure.compile(summed);
        }
    }

    private static String key(Expression.Name name, java.util.function.Function<Expression.Name, String> column) {
        String found = column.apply(name);
        if (found == null) throw new FormulaException(name, "There is no column “" + name.name() + "”.");
        return found;
    }

    String sql() {
        StringBuilder over = new StringBuilder();
        if (!partition.isEmpty())
            over.append("PARTITION BY ")
                    .append(String.join(
                            ", ", partition.stream().map(WindowPart::keySql).toList()));
        if (!order.isEmpty()) {
            over.append(" ORDER BY ");
            List<String> by = new ArrayList<>();
            for (By one : order)
                by.add((one.key() != null ? keySql(one.key()) : one.value().sql())
                        + (one.down() ? " DESC" : "")
                        + " NULLS LAST");
            over.append(String.join(", ", by));
            if (frame != null || function.matches("ROW_NUMBER|LAG|LEAD")) over.append(TIES);
        }
        if (frame != null)
            over.append(" ROWS BETWEEN ")
                    .append(edge(frame.before(), "PRECEDING"))
                    .append(" AND ")
                    .append(edge(frame.after(), "FOLLOWING"));
        String of = argument == null
                ? function.equals("COUNT") ? "*" : ""
                : argument.sql() + (function.matches("LAG|LEAD") ? ", " + steps : "");
        return "(" + function + "(" + of + ") OVER (" + over.toString().strip() + "))"
                + (kind == Kind.DECIMAL ? "::double precision" : "");
    }

    static String keySql(String column) {
        return KEY + column + KEY;
    }

    private static String edge(int rows, String side) {
        if (rows == 0) return "CURRENT ROW";
        return (rows == Integer.MAX_VALUE ? "UNBOUNDED" : String.valueOf(rows)) + " " + side;
    }
}
