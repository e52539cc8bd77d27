package sarnik.query;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import sarnik.table.Table;

/** Answers queries. */
public interface QueryEngine {

    /**
     * @return one entry a group; without grouping keys always exactly one
     * @throws QueryException when a column is missing or a condition or measure does not fit its type
     */
    Frame answer(Table table, Query query);

    /**
     * Answers several queries to one table; an engine may share what they have in common.
     *
     * @return an answer for each, in their order
     * @throws QueryException when one of them does not fit the table
     */
    default List<Frame> answer(Table table, List<Query> queries) {
        return queries.stream().map(query -> answer(table, query)).toList();
    }

    /**
     * Rows as they are.
     *
     * @throws QueryException when a column is missing or a condition does not fit its type
     */
    RowPage rows(Table table, RowQuery query);

    /**
     * Rows taken along.
     *
     * @param rows null where there are more than were wanted
     * @param all how many there are
     */
    record Taken(Table rows, long all) {}

    /**
     * The rows that are left, as a table of their own.
     *
     * @param stages row conditions, applied in this order
     * @param columns the columns wanted
     * @param most the most rows wanted
     * @throws QueryException when a column is missing or a condition does not fit its type
     */
    default Taken taken(Table table, List<Stage> stages, List<String> columns, int most) {
        if (table.weights() != null) throw QueryException.noRows();
        int[] rows = RowSelection.of(table, resolved(stages));
        return new Taken(rows.length > most ? null : table.only(columns).pick(rows), rows.length);
    }

    /** Stages in which every condition about the groups of another query is one about their keys. */
    default List<Stage> resolved(List<Stage> stages) {
        if (stages.stream().allMatch(s -> s.conditions().stream().noneMatch(QueryEngine::asks))) return stages;
        List<Stage> plain = new ArrayList<>();
        for (Stage stage : stages)
            plain.add(new Stage(
                    stage.words(),
                    stage.conditions().stream().map(this::resolved).toList()));
        return plain;
    }

    private static boolean asks(Condition condition) {
        return condition instanceof Condition.Among || condition instanceof Condition.Not not && asks(not.of());
    }

    private Condition resolved(Condition condition) {
        if (condition instanceof Condition.Not not) return new Condition.Not(resolved(not.of()));
        if (!(condition instanceof Condition.Among among)) return condition;
        List<String> keys = keys(among);
        if (among.through() != null) keys = among.through().values(keys);
        if (among.step() != null) {
            Condition in = new Condition.InGroups(new GroupKey.Step(among.column(), among.step(), null), keys);
            return among.not() ? new Condition.Not(in) : in;
        }
        return among.not() ? new Condition.NoneOf(among.column(), keys) : new Condition.OneOf(among.column(), keys);
    }

    /** The keys that a condition asks for; an engine may keep them. */
    default List<String> keys(Condition.Among among) {
        return Arrays.stream(answer(among.table(), among.query()).keys().get(among.key()))
                .filter(Objects::nonNull)
                .toList();
    }
}
