package sarnik.query;

import java.util.List;
import java.util.Set;
import java.util.function.DoubleFunction;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Surroundings;
import sarnik.scale.ValueWords;
import sarnik.table.Table;

/**
 * A measure formula made ready for a table.
 *
 * @param parts the summaries it is made of
 * @param windows the window functions over all groups that it is made of
 * @param combine the measure of a group from a number for each part and then for each window function; NaN stands for
 *     missing on both sides
 * @param sql the same for PostgreSQL
 * @param words a value of it as people read it, whole
 * @param read how its values are read where they are shown
 * @param passing whether it is made for what a reader has set just now
 */
public record FormulaMeasure(
        List<MeasureFormula.Part> parts,
        List<MeasureFormula.Window> windows,
        ToDoubleFunction<double[]> combine,
        String sql,
        DoubleFunction<String> words,
        ValueWords read,
        boolean passing) {

    public FormulaMeasure {
        parts = List.copyOf(parts);
        windows = List.copyOf(windows);
    }

    /** Stands in {@link #sql} for all columns that groups are made by, which decide between equals. */
    static final String TIES = MeasureFormula.TIES;

    /** What stands in {@link #sql} for a column that groups are made by. */
    static String keyIn(String column) {
        return MeasureFormula.keyIn(column);
    }

    /**
     * One that cannot be worked out, which is said where it is asked for.
     *
     * @param why a sentence
     */
    public static FormulaMeasure unfit(String why) {
        return new FormulaMeasure(
                List.of(),
                List.of(),
                sums -> {
                    throw new QueryException(why);
                },
                null,
                String::valueOf,
                ValueWords.NUMBER,
                true);
    }

    /** Whether numbers of all rows are held for what a reader has set just now. */
    public boolean isPassing() {
        return passing && parts.stream().anyMatch(part -> part.values() != null);
    }

    /** The columns that groups have to be made by, so that its window functions mean something. */
    public Set<String> keys() {
        return windows.stream().flatMap(MeasureFormula.Window::keys).collect(Collectors.toSet());
    }

    /**
     * @throws IllegalArgumentException when the table lacks a column that the formula uses
     */
    public static FormulaMeasure of(MeasureFormula formula, Table table, Surroundings surroundings) {
        return of(formula, formula.parts(table, surroundings), surroundings, false);
    }

    /**
     * The same where its parameters change often.
     *
     * @param keeper keeps what no parameter changes
     * @throws IllegalArgumentException when the table lacks a column that the formula uses
     */
    public static FormulaMeasure of(
            MeasureFormula formula, Table table, Surroundings surroundings, MeasureFormula.Keeper keeper) {
        return of(formula, formula.parts(table, surroundings, keeper), surroundings, true);
    }

    private static FormulaMeasure of(
            MeasureFormula formula, List<MeasureFormula.Part> parts, Surroundings surroundings, boolean passing) {
        return new FormulaMeasure(
                parts,
                formula.windows(parts, surroundings),
                sums -> formula.of(sums, parts, surroundings),
                formula.sql(),
                formula::words,
                formula.read(),
                passing);
    }
}
