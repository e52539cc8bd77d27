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
        List<String> keys =
                query.groupBy().stream().map(key -> key(key, identifier)).toList();
        List<String> names = new ArrayList<>();
        List<String> selected = new ArrayList<>();
        for (int k = 0; k < keys.size(); k++) {
            boolean plain = query.groupBy().get(k) instanceof GroupKey.Of;
            names.add(plain ? keys.get(k) : "k" + k);
            selected.add(plain ? keys.get(k) : keys.get(k) + " AS k" + k);
        }
        for (int i = 0; i < query.measures().size(); i++)
            selected.add(measure(query.measures().get(i), query, identifier) + " AS m" + i);
        List<String> conditions = new ArrayList<>();
        for (Stage stage : query.stages()) {
            for (Condition condition : stage.conditions())
                conditions.add(condition(table, condition, from, identifier));
        }
        if (query.missing() == Query.Missing.LEFT_OUT) keys.forEach(k -> conditions.add(k + " IS NOT NULL"));
        String sql = "SELECT " + String.join(", ", selected) + " FROM " + from
                + (conditions.isEmpty() ? "" : " WHERE " + String.join(" AND ", conditions))
                + (keys.isEmpty() ? "" : " GROUP BY " + String.join(", ", keys));
        sql = worked(sql, query, names);
        sql = ranked(sql, query, names);
        Sort sort = query.sort();
        List<String> order = new ArrayList<>();
        if (sort.measure() >= 0)
            order.add("m" + sort.measure() + (sort.descending() ? " DESC" : " ASC") + " NULLS LAST");
        names.forEach(g -> order.add(g + (sort.measure() < 0 && sort.descending() ? " DESC" : "")));
        if (!order.isEmpty()) sql += " ORDER BY " + String.join(", ", order);
        if (query.limit() < Integer.MAX_VALUE) sql += " LIMIT " + query.limit();
        return new SqlText(sql);
    }

    /** Measures over measures, and conditions on groups. */
    private static String worked(String grouped, Query query, List<String> names) {
        String sql = grouped;
        List<Measure> measures = query.measures();
        if (measures.stream().anyMatch(m -> m.over() != null)) {
            List<String> selected = new ArrayList<>(names);
            GroupKey last = names.isEmpty() ? null : query.groupBy().get(names.size() - 1);
            String step = last instanceof GroupKey.Step of ? number(of.step(), names.get(names.size() - 1)) : null;
            for (int m = 0; m < measures.size(); m++)
                selected.add(
                        measures.get(m).over() == null
                                ? "m" + m
                                : measures.get(m).over().sql("m" + m, names, step) + " AS m" + m);
            sql = "SELECT " + String.join(", ", selected) + " FROM (" + sql + ") AS grouped";
        }
        if (query.having().isEmpty()) return sql;
        return "SELECT * FROM (" + sql + ") AS worked WHERE "
                + query.having().stream().map(SqlText::having).collect(Collectors.joining(" AND "));
    }

    private static String having(Having having) {
        String measure = "m" + having.measure();
        if (having.missing()) return measure + " IS NULL";
        List<String> parts = new ArrayList<>(List.of(measure + " IS NOT NULL"));
        if (having.low() != null)
            parts.add(measure + (having.withLow() ? " >= " : " > ") + "CAST(" + having.low() + " AS DOUBLE PRECISION)");
        if (having.high() != null)
            parts.add(
                    measure + (having.withHigh() ? " <= " : " < ") + "CAST(" + having.high() + " AS DOUBLE PRECISION)");
        return String.join(" AND ", parts);
    }

    private static String ranked(String sql, Query query, List<String> names) {
        if (query.rank().isEmpty()) return sql;
        Rank rank = query.rank().get();
        List<String> places = new ArrayList<>();
        List<String> kept = new ArrayList<>();
        for (Rank.End end :
                rank.end() == Rank.End.BOTH ? List.of(Rank.End.TOP, Rank.End.BOTTOM) : List.of(rank.end())) {
            String order = "m" + rank.measure() + (end == Rank.End.TOP ? " DESC" : " ASC");
            String ties = rank.keepTies() || names.isEmpty()
                    ? ""
                    : names.stream().map(g -> ", " + g).collect(Collectors.joining());
            String place = "place_in_order" + (places.isEmpty() ? "" : "_back");
            places.add(
                    (rank.keepTies() ? "RANK" : "ROW_NUMBER") + "() OVER (ORDER BY " + order + ties + ") AS " + place);
            kept.add(place + " <= " + rank.count());
        }
        return "SELECT * FROM (SELECT *, " + String.join(", ", places) + " FROM (" + sql + ") AS grouped WHERE m"
                + rank.measure() + " IS NOT NULL) AS ranked WHERE " + String.join(" OR ", kept);
    }

    private static String key(GroupKey key, UnaryOperator<String> identifier) {
        String column = identifier.apply(key.column());
        if (key instanceof GroupKey.Step step)
            return "TO_CHAR(CAST(" + column + " AS TIMESTAMP)"
                    + (step.zone() == null
                            ? ""
                            : " AT TIME ZONE 'UTC' AT TIME ZONE "
                                    + (step.zoneColumn() == null
                                            ? "'" + quoted(step.zone()) + "'"
                                            : identifier.apply(step.zoneColumn())))
                    + ", '" + step.step().pattern() + "')";
        if (key instanceof GroupKey.Classes classes) {
            String breaks = classes.breaks().stream()
                    .map(b -> "CAST(" + b + " AS DOUBLE PRECISION)")
                    .collect(Collectors.joining(", "));
            return "CAST(WIDTH_BUCKET(CAST(" + column + " AS DOUBLE PRECISION), ARRAY[" + breaks + "]) AS TEXT)";
        }
        return column;
    }

    /** The number of the step of time whose text this is, but for where numbers begin. */
    private static String number(TimeStep step, String text) {
        return switch (step) {
            case MINUTE -> "EXTRACT(EPOCH FROM CAST(" + text + " AS TIMESTAMP)) / 60";
            case HOUR -> "EXTRACT(EPOCH FROM CAST(" + text + " AS TIMESTAMP)) / 3600";
            case DAY -> "CAST(" + text + " AS DATE) - DATE '1970-01-01'";
            case WEEK -> "(TO_DATE(" + text + ", '" + step.pattern() + "') - DATE '1970-01-05') / 7";
            case MONTH -> "12 * CAST(LEFT(" + text + ", -3) AS INTEGER) + CAST(RIGHT(" + text + ", 2) AS INTEGER)";
            case QUARTER -> "4 * CAST(LEFT(" + text + ", -3) AS INTEGER) + CAST(RIGHT(" + text + ", 1) AS INTEGER)";
            case YEAR, HOUR_OF_DAY, WEEKDAY, MONTH_OF_YEAR -> "CAST(" + text + " AS INTEGER)";
        };
    }

    /** A formula whose windows know what the groups are made by. */
    private static String windowed(String formula, Query query, UnaryOperator<String> identifier) {
        String sql = formula;
        StringBuilder ties = new StringBuilder();
        for (GroupKey key : query.groupBy()) {
            String of = key(key, identifier);
            sql = sql.replace(FormulaMeasure.keyIn(key.column()), of);
            ties.append(", ").append(of).append(" NULLS LAST");
        }
        return sql.replace(FormulaMeasure.TIES, ties);
    }

    private static String measure(Measure measure, Query query, UnaryOperator<String> identifier) {
        if (measure.column() == null) return "COUNT(*)";
        if (measure.summary() == Summary.FORMULA)
            return windowed(query.formulas().get(measure.column()).sql(), query, identifier);
        String column = identifier.apply(measure.column());
        return switch (measure.summary()) {
            case SUM -> "SUM(" + column + ")";
            case AVERAGE -> "AVG(" + column + ")";
            case COUNT -> "COUNT(" + column + ")";
            case DISTINCT -> "COUNT(DISTINCT " + column + ")";
            case MINIMUM -> "MIN(" + column + ")";
            case MAXIMUM -> "MAX(" + column + ")";
            case MEDIAN, PERCENTILE ->
                "PERCENTILE_CONT(" + measure.fraction() + ") WITHIN GROUP (ORDER BY CAST(" + column
                        + " AS DOUBLE PRECISION))";
            case FORMULA -> throw new IllegalStateException("A formula has its own SQL");
        };
    }

    private static String condition(Table table, Condition condition, String from, UnaryOperator<String> identifier) {
        if (condition instanceof Condition.Holds)
            throw new QueryException("A condition that was worked out is not of the database");
        if (condition instanceof Condition.Not not)
            return "NOT (" + condition(table, not.of(), from, identifier) + ") AND "
                    + identifier.apply(condition.column()) + " IS NOT NULL";
        String column = identifier.apply(condition.column());
        if (condition instanceof Condition.Missing) return column + " IS NULL";
        if (condition instanceof Condition.Contains contains)
            return "POSITION(LOWER('" + quoted(contains.text()) + "') IN LOWER(" + column + ")) > 0";
        if (condition instanceof Condition.InGroups in) {
            if (in.groups().isEmpty()) return "FALSE";
            return key(in.key(), identifier) + " IN ("
                    + in.groups().stream().map(g -> "'" + quoted(g) + "'").collect(Collectors.joining(", ")) + ")";
        }
        if (condition instanceof Condition.Among among) {
            if (among.table() != table || among.step() != null || among.through() != null)
                throw new QueryException("The rows of another table cannot be asked for in one statement");
            GroupKey key = among.query().groupBy().get(among.key());
            String name = key instanceof GroupKey.Of ? identifier.apply(key.column()) : "k" + among.key();
            return column + (among.not() ? " NOT" : "") + " IN (SELECT " + name + " FROM ("
                    + of(table, among.query(), from, identifier).sql() + ") AS asked WHERE " + name + " IS NOT NULL)";
        }
        ColumnType type = table.column(condition.column()).type();
        if (condition instanceof Condition.OneOf oneOf) {
            if (oneOf.values().isEmpty()) return "FALSE";
            return column + " IN ("
                    + oneOf.values().stream().map(v -> literal(type, v)).collect(Collectors.joining(", ")) + ")";
        }
        if (condition instanceof Condition.NoneOf noneOf) {
            if (noneOf.values().isEmpty()) return column + " IS NOT NULL";
            return column + " NOT IN ("
                    + noneOf.values().stream().map(v -> literal(type, v)).collect(Collectors.joining(", ")) + ")";
        }
        if (condition instanceof Condition.Between between) {
            List<String> parts = new ArrayList<>();
            parts.add(column + " IS NOT NULL");
            if (between.from() != null) parts.add(column + " >= " + literal(type, between.from()));
            if (between.to() != null) parts.add(column + " <= " + literal(type, upTo(type, between.to())));
            return String.join(" AND ", parts);
        }
        return column + " IS NOT NULL";
    }

    /** A day as the upper bound of times goes to its end. */
    private static String upTo(ColumnType type, String bound) {
        return type == ColumnType.TIME && bound.length() <= 10 ? bound + "T23:59:59" : bound;
    }

    private static String literal(ColumnType type, String value) {
        return switch (type) {
            case WHOLE, DECIMAL -> {
                long[] whole = type == ColumnType.WHOLE ? NumberText.wholes(List.of(value)) : new long[0];
                yield whole.length == 1 ? Long.toString(whole[0]) : "CAST('" + quoted(value) + "' AS DOUBLE PRECISION)";
            }
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
