package sarnik.query;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.DoubleFunction;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Surroundings;
import sarnik.formula.Unworked;
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
 * @param partSql each of the parts for PostgreSQL; empty where they are not known
 * @param pushed each of the parts for a database that holds the rows; empty where it cannot be worked out there
 * @param words a value of it as people read it, whole
 * @param read how its values are read where they are shown
 * @param passing whether it is made for what a reader has set just now
 */
public record FormulaMeasure(
        List<MeasureFormula.Part> parts,
        List<MeasureFormula.Window> windows,
        ToDoubleFunction<double[]> combine,
        String sql,
        List<String> partSql,
        List<PushedPart> pushed,
        DoubleFunction<String> words,
        ValueWords read,
        boolean passing) {

    public FormulaMeasure {
        parts = List.copyOf(parts);
        windows = List.copyOf(windows);
        partSql = List.copyOf(partSql);
        pushed = List.copyOf(pushed);
    }

    /** Pairs of sums by which it is seen whether a formula divides the one by the other. */
    private static final double[][] TRIED = {{1, 1}, {2, 1}, {1, 2}, {3, 7}, {5040, 13}, {17, 90_000}, {0, 5}};

    private static final double ALMOST = 1e-9;
    private static final int TRIALS = 40;

    /**
     * A formula that is one sum, or number of rows, divided by another, times a number: a rate.
     *
     * @param above what is divided
     * @param over what it is divided by
     * @param times what the quotient is multiplied with, above 0: 10,000 of a rate for 10,000 people
     * @param counted whether both are numbers of rows or of values
     */
    public record Ratio(FormulaMeasure above, FormulaMeasure over, double times, boolean counted) {}

    /** The two sums that it divides; empty where it is made in any other way. */
    public Optional<Ratio> ratio() {
        if (parts.size() != 2 || !windows.isEmpty() || !read.isAmount()) return Optional.empty();
        for (MeasureFormula.Part part : parts)
            if (part.distinct()
                    || !part.function().equals("SUM") && !part.function().equals("COUNT")) return Optional.empty();
        for (int above = 0; above < 2; above++) {
            double times = of(above, 1, 1);
            if (times > 0 && Double.isFinite(times) && divides(above, times))
                return Optional.of(new Ratio(
                        only(above),
                        only(1 - above),
                        times,
                        parts.stream().allMatch(part -> part.function().equals("COUNT"))));
        }
        return Optional.empty();
    }

    /**
     * Whether what it comes to in groups adds up to what it comes to in all of them together: sums, numbers of rows, and
     * what is made of them by adding and by multiplying with numbers.
     */
    public boolean addsUp() {
        if (parts.isEmpty() || !windows.isEmpty() || !read.isAmount()) return false;
        for (MeasureFormula.Part part : parts)
            if (part.known() != null
                    || part.distinct()
                    || !part.function().equals("SUM") && !part.function().equals("COUNT")) return false;
        // Tried on sums of both signs, which any other way of putting them together would tell apart.
        double[] one = new double[parts.size()];
        double[] other = new double[parts.size()];
        double[] both = new double[parts.size()];
        for (int t = 0; t < TRIALS; t++) {
            for (int p = 0; p < one.length; p++) {
                one[p] = (t * 31 + p * 17) % 23 - 11;
                other[p] = (t * 13 + p * 29) % 19 - 9;
                both[p] = one[p] + other[p];
            }
            double apart = combine.applyAsDouble(one) + combine.applyAsDouble(other);
            double together = combine.applyAsDouble(both);
            if (!(Math.abs(apart - together) <= ALMOST * Math.max(1, Math.abs(together)))) return false;
        }
        return true;
    }

    private double of(int above, double dividend, double divisor) {
        return combine.applyAsDouble(above == 0 ? new double[] {dividend, divisor} : new double[] {divisor, dividend});
    }

    private boolean divides(int above, double times) {
        for (double[] pair : TRIED) {
            double expected = times * pair[0] / pair[1];
            if (!(Math.abs(of(above, pair[0], pair[1]) - expected) <= ALMOST * expected)) return false;
        }
        return true;
    }

    /** One of its sums by itself. */
    private FormulaMeasure only(int part) {
        return new FormulaMeasure(
                List.of(parts.get(part)),
                List.of(),
                sums -> sums[0],
                partSql.isEmpty() ? null : partSql.get(part),
                List.of(),
                pushed.isEmpty() ? List.of() : List.of(pushed.get(part)),
                words,
                ValueWords.NUMBER,
                passing);
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
                List.of(),
                List.of(),
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
        return of(formula, table, surroundings, new Unworked());
    }

    /**
     * @param unworked takes the rows that take no part because what is summed up cannot be worked out in them
     * @throws IllegalArgumentException when the table lacks a column that the formula uses
     */
    public static FormulaMeasure of(MeasureFormula formula, Table table, Surroundings surroundings, Unworked unworked) {
        return of(formula, formula.parts(table, surroundings, unworked), surroundings, false);
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
                formula.partSql(),
                formula.summed().stream()
                        .map(part -> PushedPart.of(part, surroundings))
                        .toList(),
                formula::words,
                formula.read(),
                passing);
    }
}
