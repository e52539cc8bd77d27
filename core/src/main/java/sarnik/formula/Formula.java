package sarnik.formula;

import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import sarnik.table.Column;
import sarnik.table.ColumnValues;
import sarnik.table.Table;

/**
 * An SQL value expression (ISO/IEC 9075-2) over the columns of a table, checked and ready to be computed row by row. It
 * reaches nothing but its columns, parameters and places, and takes time in proportion to its length and the rows.
 *
 * <pre>{@code
 * Formula perPerson = Formula.parse("CAST(litres AS DOUBLE PRECISION) / NULLIF(people, 0)", Scope.of(table));
 * Column column = perPerson.compute(table, Surroundings.on(today)).column();
 * }</pre>
 */
public final class Formula {

    private final Typed typed;
    private final List<String> columns;
    private final Expression written;
    private final Map<Expression, Kind> kinds;
    private final Scope scope;

    private Formula(Typed typed, Compiler compiler, Expression written) {
        this.typed = typed;
        this.columns = compiler.columns();
        this.kinds = compiler.kinds();
        this.scope = compiler.scope();
        this.written = written;
    }

    /**
     * @throws FormulaException when the text is no formula, or its types do not fit; it says which word, why, and what
     *     would
     */
    public static Formula parse(String text, Scope scope) {
        Compiler compiler = new Compiler(scope, false);
        Expression written = Parser.parse(text);
        Typed typed = compiler.compile(written);
        if (typed.kind().column() == null) {
            throw new FormulaException(
                    typed.at(),
                    "The formula gives %s, which no column holds. %s"
                            .formatted(
                                    typed.kind().words(),
                                    switch (typed.kind()) {
                                        case INTERVAL -> "EXTRACT(EPOCH FROM …) gives its seconds.";
                                        case PLACE -> "lon(…) and lat(…) give its degrees.";
                                        default -> "CAST says which type is meant.";
                                    }));
        }
        return new Formula(typed, compiler, written);
    }

    /** The type of its values. */
    public Kind kind() {
        return typed.kind();
    }

    /** The columns that it uses. */
    public List<String> columns() {
        return columns;
    }

    /** The same as an SQL expression that PostgreSQL answers alike; columns are quoted names. Places have no SQL. */
    public String sql() {
        return typed.sql();
    }

    /**
     * The same for a database that holds the rows. What cannot be worked out there is missing, as it is here.
     *
     * @throws FormulaException when the database has no word for a part of it; it says for which
     */
    public String sql(SqlScope where) {
        return new SqlExpressions(where, kinds, scope).whole(written);
    }

    /**
     * The condition under which it cannot be worked out, for a database that holds the rows; null for never.
     *
     * @throws FormulaException when the database has no word for a part of it; it says for which
     */
    public String unworked(SqlScope where) {
        return new SqlExpressions(where, kinds, scope).unworked(written);
    }

    /**
     * A column that was computed.
     *
     * @param unworked rows whose value cannot be worked out and is missing for it
     */
    public record Computed(Column column, Unworked unworked) {}

    /**
     * Computes it for every row.
     *
     * @throws IllegalArgumentException when the table lacks a column that it uses
     */
    public Computed compute(Table table, Surroundings surroundings) {
        return compute(typed, columns, table, surroundings, row -> true);
    }

    /** @param asked the rows that it is computed for; it is missing in others */
    static Computed compute(
            Typed typed, List<String> columns, Table table, Surroundings surroundings, IntPredicate asked) {
        Typed.Cursor cursor = new Typed.Cursor();
        cursor.columns = columns.stream().map(table::column).toArray(Column[]::new);
        cursor.surroundings = surroundings;
        ColumnValues values = new ColumnValues(typed.kind().column(), table.rows());
        Unworked unworked = new Unworked();
        for (int row = 0; row < table.rows(); row++) {
            cursor.row = row;
            Object value = null;
            try {
                if (asked.test(row)) value = typed.eval().at(cursor);
            } catch (RowError error) {
                unworked.add(row, error.getMessage());
            }
            values.add(value);
        }
        return new Computed(values.build(), unworked);
    }
}
