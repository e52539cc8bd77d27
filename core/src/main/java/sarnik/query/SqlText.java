package sarnik.query;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/**
 * A query as SQL, for a database that holds the same rows. It is the second opinion against which the engine is checked
 * and measured.
 *
 * @param sql one statement; it returns the grouping columns, then the measures
 */
public record SqlText(String sql) {

    /**
     * @param table supplies the types of the columns
     * @param from the table in the database, quoted as it has to be
     * @param identifier the database's name of a column, quoted
     */
    public static SqlText of(Table table, Query query, String from, UnaryOperator<String> identifier) {
        List<String> groups = query.groupBy().stream().map(identifier).toList();
        List<String> measures = new ArrayList<>();
        for (int i = 0; i < query.measures().size(); i++)
            measures.add(measure(query.measures().get(i), query, identifier) + " AS m" + i);
        List<String> conditions = new ArrayList<>();
        for (Stage stage : query.stages()) {
            for (Condition condition : stage.conditions()) conditions.add(condition(table, condition, identifier));
        }
        if (query.missing() == Query.Missing.LEFT_OUT) groups.forEach(g -> conditions.add(g + " IS NOT NULL"));

        List<String> selected = new ArrayList<>(groups);
        selected.addAll(measures);
        String sql = "SELECT " + String.join(", ", selected) + " FROM " + from
                + (conditions.isEmpty() ? "" : " WHERE " + String.join(" AND ", conditions))
                + (groups.isEmpty() ? "" : " GROUP BY " + String.join(", ", groups));
        if (query.rank().isPresent()) {
            Rank rank = query.rank().get();
            String order = "m" + rank.measure() + (rank.end() == Rank.End.TOP ? " DESC" : " ASC");
            String keys = rank.keepTies() || groups.isEmpty()
                    ? ""
                    : groups.stream().map(g -> ", " + g).collect(Collectors.joining());
            sql = "SELECT * FROM (SELECT *, " + (rank.keepTies() ? "RANK" : "ROW_NUMBER") + "() OVER (ORDER BY " + order
                    + keys
                    + ") AS place_in_order FROM (" + sql + ") AS grouped WHERE m" + rank.measure()
                    + " IS NOT NULL) AS ranked WHERE place_in_order <= " + rank.count();
        }
        Sort sort = query.sort();
        List<String> order = new ArrayList<>();
        if (sort.measure() >= 0)
            order.add("m" + sort.measure() + (sort.descending() ? " DESC" : " ASC") + " NULLS LAST");
        groups.forEach(g -> order.add(g + (sort.measure() < 0 && sort.descending() ? " DESC" : "")));
        if (!order.isEmpty()) sql += " ORDER BY " + String.join(", ", order);
        if (query.limit() < Integer.MAX_VALUE) sql += " LIMIT " + query.limit();
        return new SqlText(sql);
    }

    private static String measure(Measure measure, Query query, UnaryOperator<String> identifier) {
        if (measure.column() == null) return "COUNT(*)";
        if (measure.summary() == Summary.FORMULA)
            return query.formulas().get(measure.column()).sql();
        String column = identifier.apply(measure.column());
        return switch (measure.summary()) {
            case SUM -> "SUM(" + column + ")";
            case AVERAGE -> "AVG(" + column + ")";
            case COUNT -> "COUNT(" + column + ")";
            case DISTINCT -> "COUNT(DISTINCT " + column + ")";
            case MINIMUM -> "MIN(" + column + ")";
            case MAXIMUM -> "MAX(" + column + ")";
            case MEDIAN -> "PERCENTILE_CONT(0.5) WITHIN GROUP (ORDER BY CAST(" + column + " AS DOUBLE PRECISION))";
            case FORMULA -> throw new IllegalStateException("A formula has its own SQL");
        };
    }

    private static String condition(Table table, Condition condition, UnaryOperator<String> identifier) {
        String column = identifier.apply(condition.column());
        ColumnType type = table.column(condition.column()).type();
        if (condition instanceof Condition.OneOf oneOf) {
            if (oneOf.values().isEmpty()) return "FALSE";
            return column + " IN ("
                    + oneOf.values().stream().map(v -> literal(type, v)).collect(Collectors.joining(", ")) + ")";
        }
        if (condition instanceof Condition.Between between) {
            List<String> parts = new ArrayList<>();
            parts.add(column + " IS NOT NULL");
            if (between.from() != null) parts.add(column + " >= " + literal(type, between.from()));
            if (between.to() != null) parts.add(column + " <= " + literal(type, between.to()));
            return String.join(" AND ", parts);
        }
        return column + " IS NOT NULL";
    }

    private static String literal(ColumnType type, String value) {
        return switch (type) {
            case WHOLE, DECIMAL -> "CAST('" + quoted(value) + "' AS DOUBLE PRECISION)";
            case DATE -> "DATE '" + quoted(value) + "'";
            case TIME -> "TIMESTAMP '" + quoted(value) + "'";
            case YES_NO -> value.equals("yes") ? "TRUE" : "FALSE";
            case TEXT -> "'" + quoted(value) + "'";
        };
    }

    private static String quoted(String text) {
        return text.replace("'", "''");
    }
}
