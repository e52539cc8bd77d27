package sarnik.formula;

import java.util.function.UnaryOperator;

/**
 * Where an expression is worked out by a database.
 *
 * @param dialect how the database writes
 * @param value a column's value as SQL; decimal numbers as they are computed with
 * @param exact the same as it is summed up, with all digits that the database has
 * @param on what parameters and today's date are
 */
public record SqlScope(SqlDialect dialect, UnaryOperator<String> value, UnaryOperator<String> exact, Surroundings on) {

    /** The same with other parameters. */
    public SqlScope on(Surroundings other) {
        return new SqlScope(dialect, value, exact, other);
    }
}
