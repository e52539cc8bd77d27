package sarnik.query;

import java.util.List;
import java.util.function.DoubleFunction;
import java.util.function.ToDoubleFunction;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Surroundings;
import sarnik.scale.ValueWords;
import sarnik.table.Table;

/**
 * A measure formula made ready for a table.
 *
 * @param parts the summaries it is made of
 * @param combine the measure of a group from a number for each part; NaN stands for missing on both sides
 * @param sql the same for PostgreSQL
 * @param words a value of it as people read it, whole
 * @param read how its values are read where they are shown
 */
public record FormulaMeasure(
        List<MeasureFormula.Part> parts,
        ToDoubleFunction<double[]> combine,
        String sql,
        DoubleFunction<String> words,
        ValueWords read) {

    public FormulaMeasure {
        parts = List.copyOf(parts);
    }

    /**
     * @throws IllegalArgumentException when the table lacks a column that the formula uses
     */
    public static FormulaMeasure of(MeasureFormula formula, Table table, Surroundings surroundings) {
        List<MeasureFormula.Part> parts = formula.parts(table, surroundings);
        return new FormulaMeasure(
                parts, sums -> formula.of(sums, parts, surroundings), formula.sql(), formula::words, formula.read());
    }
}
