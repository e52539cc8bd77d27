package sarnik.query;

import java.util.List;

/** A condition on the rows of a table. A row whose value is missing meets none of them, as in SQL. */
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

    /** The value is not missing. */
    record Filled(String column) implements Condition {}
}
