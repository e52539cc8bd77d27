package sarnik.data;

import java.util.Optional;
import java.util.function.LongSupplier;
import sarnik.formula.FormulaException;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Surroundings;
import sarnik.formula.Unworked;
import sarnik.query.QueryException;
import sarnik.sql.StayingRows;
import sarnik.table.Table;

/** Says in how many rows a formula has no value because it cannot be worked out there. */
final class RowsWithout {

    private RowsWithout() {}

    /** Of rows in memory; empty where it can be worked out in all of them. */
    static Optional<String> words(Unworked unworked) {
        if (unworked.isEmpty()) return Optional.empty();
        return Optional.of(
                "%s: %s, first in row %,d.".formatted(count(unworked.count()), unworked.why(), unworked.first() + 1));
    }

    /**
     * Of rows that stay in a database; empty where it can be worked out in all of them.
     *
     * @param asked asks for their number; may throw a {@link QueryException}, or a {@link FormulaException}
     *     where the database lacks a word for it
     */
    static Optional<String> words(LongSupplier asked) {
        try {
            long rows = asked.getAsLong();
            if (rows == 0) return Optional.empty();
            return Optional.of(
                    count(rows) + ": a part of it cannot be worked out there, such as after a division by zero.");
        } catch (QueryException | FormulaException unanswered) {
            return Optional.of("In how many rows it has no value could not be counted: " + unanswered.getMessage());
        }
    }

    /** Of a measure: in memory or where its rows stay. */
    static Optional<String> words(MeasureFormula formula, Table table, Surroundings on, Unworked here) {
        return table.staying() instanceof StayingRows rows
                ? words(() -> rows.unworked(formula, on, table))
                : words(here);
    }

    private static String count(long rows) {
        return "%,d %s no value".formatted(rows, rows == 1 ? "row has" : "rows have");
    }
}
