package sarnik.query;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import sarnik.formula.Formula;
import sarnik.formula.Surroundings;
import sarnik.table.Column;
import sarnik.table.Table;

/**
 * A condition on the rows of a table. A row whose value is missing meets none of them but {@link Missing}, as in SQL.
 */
public sealed interface Condition {

    String column();

    /**
     * The value is one of these.
     *
     * @param values in the canonical text form of {@link sarnik.table.Column#text}; an empty list keeps no row
     */
    record OneOf(String column, List<String> values) implements Condition {
        public OneOf {
            values = List.copyOf(values);
        }
    }

    /**
     * The number, date or time lies between two bounds, both included.
     *
     * @param from lower bound in canonical text form, null for none
     * @param to upper bound in canonical text form, null for none
     */
    record Between(String column, String from, String to) implements Condition {}

    /**
     * The value is one of the keys of the groups that a query answers with.
     *
     * @param table the rows that are asked
     * @param query the question
     * @param key which of its grouping columns
     * @param not whether the value is none of them
     * @param step the step of time that a moment and a key share; null where they are equal
     * @param through what each key stands for; null for itself
     */
    record Among(String column, Table table, Query query, int key, boolean not, TimeStep step, Through through)
            implements Condition {

        public Among(String column, Table table, Query query, int key, boolean not) {
            this(column, table, query, key, not, null, null);
        }

        /** The same of what keys stand for. */
        public Among through(Through other) {
            return new Among(column, table, query, key, not, step, other);
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Among among
                    && among.table == table
                    && among.column.equals(column)
                    && among.query.equals(query)
                    && among.key == key
                    && among.not == not
                    && among.step == step
                    && Objects.equals(among.through, through);
        }

        @Override
        public int hashCode() {
            return 31 * (31 * column.hashCode() + query.hashCode()) + System.identityHashCode(table);
        }
    }

    /** What keys stand for; two that mean the same are equal. */
    interface Through {

        /** The values that these keys stand for. */
        List<String> values(List<String> keys);
    }

    /**
     * The row lies in one of these groups of a key: in May, on a Monday, in the third class.
     *
     * @param groups texts of the groups
     */
    record InGroups(GroupKey key, List<String> groups) implements Condition {
        public InGroups {
            groups = List.copyOf(groups);
        }

        @Override
        public String column() {
            return key.column();
        }
    }

    /** The value is none of these, and not missing. */
    record NoneOf(String column, List<String> values) implements Condition {
        public NoneOf {
            values = List.copyOf(values);
        }
    }

    /**
     * The text holds these words, in any case.
     *
     * @param text what is looked for
     */
    record Contains(String column, String text) implements Condition {}

    /** A condition is not met, and its value is not missing. */
    record Not(Condition of) implements Condition {
        @Override
        public String column() {
            return of.column();
        }
    }

    /** The value is missing. */
    record Missing(String column) implements Condition {}

    /**
     * A condition that was worked out for each row.
     *
     * @param words the condition, by which it is told from others
     * @param holds yes, no or missing for each row
     */
    record Holds(String words, Column holds) implements Condition {

        @Override
        public String column() {
            return words;
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Holds condition && condition.words.equals(words) && condition.holds == holds;
        }

        @Override
        public int hashCode() {
            return words.hashCode();
        }
    }

    /**
     * A condition that is worked out where the rows are that stay elsewhere.
     *
     * @param words the condition with what is set, by which it is told from others
     * @param formula gives yes or no
     * @param ways what its parameters and today may be; it is met where it is for one of them
     */
    record Meets(String words, Formula formula, List<Surroundings> ways) implements Condition {
        public Meets {
            ways = List.copyOf(ways);
        }

        @Override
        public String column() {
            return words;
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Meets meets
                    && meets.words.equals(words)
                    && meets.days().equals(days());
        }

        private List<LocalDate> days() {
            return ways.stream().map(Surroundings::today).toList();
        }

        @Override
        public int hashCode() {
            return words.hashCode();
        }
    }

    /**
     * The row is the newest of its own, where rows stay elsewhere; of several that are equally new all are.
     *
     * @param column of dates or date-times
     * @param by the column whose values each have their newest; null for the newest of all
     * @param before among which rows
     */
    record Newest(String column, String by, List<Stage> before) implements Condition {
        public Newest {
            before = List.copyOf(before);
        }
    }

    /** The value is not missing. */
    record Filled(String column) implements Condition {}
}
