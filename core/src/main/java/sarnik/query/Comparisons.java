package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleFunction;
import java.util.function.ToDoubleFunction;
import sarnik.formula.BlockNumbers;
import sarnik.formula.MeasureFormula;
import sarnik.formula.MeasureFormula.Part;
import sarnik.scale.NumberWords;
import sarnik.scale.ValueWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.SummedColumn;
import sarnik.table.Sums;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/**
 * Measures made of others: the change of one between two sets of rows, and one for each unit of a figure that is known
 * by key, such as the people of a province.
 */
public final class Comparisons {

    private Comparisons() {}

    /** What a change is given in. */
    public enum As {
        /** The later less the earlier. */
        AMOUNT,
        /** In hundredths of the earlier's size. */
        PERCENT,
        /**
         * In standard errors of the difference: of numbers of rows as Poisson counts, of sums as sums over a Poisson
         * number of rows (whose variance is the sum of squares), of averages as Welch (1947) has them. Beyond 2 it is
         * unlikely to be chance alone, as far as rows are independent.
         */
        ERRORS
    }

    /**
     * A measure as one that is made of parts.
     *
     * @param formulas measure formulas by name, for one that names one
     * @throws QueryException when it does not fit the table
     */
    public static FormulaMeasure parts(Measure measure, Table table, Map<String, FormulaMeasure> formulas) {
        if (measure.over() != null)
            throw new QueryException(phrase("What goes over all groups cannot be compared; choose the measure itself"));
        if (measure.summary() == Summary.FORMULA) {
            FormulaMeasure formula = formulas.get(measure.column());
            if (formula == null)
                throw new QueryException(phrase("There is no measure “{0}” any more", measure.column()));
            if (!formula.windows().isEmpty())
                throw new QueryException(
                        phrase("“{0}” goes over all groups, so it cannot be compared", measure.column()));
            return formula;
        }
        Column column = measure.column() == null ? null : column(table, measure.column());
        if (column != null && measure.summary().needsNumber() && !column.type().isNumber())
            throw new QueryException(phrase(
                    "The {0} needs numbers, but “{1}” holds {2}",
                    measure.summary().said(), measure.column(), column.type().said()));
        Part part = switch (measure.summary()) {
            case COUNT -> summed("COUNT", column == null ? ONES : BlockNumbers.filled(column));
            case DISTINCT -> new Part("COUNT", true, 0, codes(table, measure.column()), List.of(), null, null, null);
            case SUM -> summed("SUM", numbers(measure.column(), column));
            case AVERAGE -> summed("AVG", numbers(measure.column(), column));
            case MINIMUM -> summed("MIN", numbers(measure.column(), column));
            case MAXIMUM -> summed("MAX", numbers(measure.column(), column));
            default ->
                new Part("PERCENTILE_CONT", false, measure.fraction(), decimals(column), List.of(), null, null, null);
        };
        return made(List.of(part), List.of(PushedPart.of(measure)), sums -> sums[0]);
    }

    private static final BlockNumbers ONES = () -> (rows, count, into) -> Arrays.fill(into, 0, count, 1);

    private static Column column(Table table, String name) {
        return table.find(name)
                .orElseThrow(() -> new QueryException(phrase("There is no column “{0}” any more", name)));
    }

    /** @throws QueryException when only sums of it are known */
    private static BlockNumbers numbers(String name, Column column) {
        if (column instanceof SummedColumn) throw QueryException.onlySums(name);
        return BlockNumbers.of(column);
    }

    private static Part summed(String function, BlockNumbers numbers) {
        return new Part(function, false, 0, null, List.of(), null, numbers, null);
    }

    /** @param pushed each of the parts for a database that holds the rows; empty where it cannot be worked out there */
    private static FormulaMeasure made(List<Part> parts, List<PushedPart> pushed, ToDoubleFunction<double[]> combine) {
        DoubleFunction<String> words = NumberWords::full;
        return new FormulaMeasure(parts, List.of(), combine, null, List.of(), pushed, words, ValueWords.NUMBER, true);
    }

    private static DecimalColumn decimals(Column column) {
        if (column instanceof DecimalColumn decimal) return decimal;
        WholeColumn wholes = (WholeColumn) column;
        double[] values = new double[wholes.size()];
        for (int row = 0; row < values.length; row++)
            values[row] = wholes.isMissing(row) ? Double.NaN : wholes.get(row);
        return new DecimalColumn(values);
    }

    private static DecimalColumn codes(Table table, String column) {
        KeyCoder coder = KeyCoder.of(table, new GroupKey.Of(column));
        double[] values = new double[table.rows()];
        for (int row = 0; row < values.length; row++) {
            int code = coder.code(row);
            values[row] = code == coder.size() - 1 ? Double.NaN : code;
        }
        return new DecimalColumn(values);
    }

    /**
     * One side of a change.
     *
     * @param stages which rows it has
     * @param rows the same as yes and no; null where rows stay elsewhere
     */
    public record Side(List<Stage> stages, CodedColumn rows) {}

    /** The rows that stages leave, as a column of yes and no. */
    public static CodedColumn rows(Table table, List<Stage> stages) {
        byte[] codes = new byte[table.rows()];
        for (int row : RowSelection.of(table, stages)) codes[row] = 1;
        return CodedColumn.yesNo(codes);
    }

    /**
     * The change of a measure from some rows to others.
     *
     * @param measure what changes
     * @param formulas measure formulas by name, for one that names one
     * @throws QueryException when it does not fit the table, or its standard error is not known
     */
    public static FormulaMeasure change(
            Measure measure, Table table, Map<String, FormulaMeasure> formulas, Side before, Side after, As as) {
        FormulaMeasure of = parts(measure, table, formulas);
        Variance variance = as == As.ERRORS ? Variance.of(measure, table) : null;
        List<Part> side = new ArrayList<>(of.parts());
        List<PushedPart> pushed = new ArrayList<>(of.pushed());
        if (variance != null) {
            side.addAll(variance.parts);
            pushed.addAll(variance.pushed);
        }
        List<Part> both = new ArrayList<>();
        List<PushedPart> bothPushed = new ArrayList<>();
        for (Side rows : List.of(before, after)) {
            side.forEach(part -> both.add(only(part, rows.rows())));
            pushed.forEach(part -> bothPushed.add(part.only(rows.stages())));
        }
        int own = of.parts().size();
        int width = side.size();
        return made(both, bothPushed, sums -> {
            double first = of.combine().applyAsDouble(Arrays.copyOfRange(sums, 0, own));
            double second = of.combine().applyAsDouble(Arrays.copyOfRange(sums, width, width + own));
            double change = second - first;
            return switch (as) {
                case AMOUNT -> change;
                case PERCENT -> first == 0 ? Double.NaN : change * 100 / Math.abs(first);
                case ERRORS -> {
                    double spread = variance.of.applyAsDouble(Arrays.copyOfRange(sums, own, width))
                            + variance.of.applyAsDouble(Arrays.copyOfRange(sums, width + own, 2 * width));
                    yield spread > 0 ? change / Math.sqrt(spread) : Double.NaN;
                }
            };
        });
    }

    /** A part of which only some rows take part. @param rows null where they stay elsewhere */
    private static Part only(Part part, CodedColumn rows) {
        if (rows == null) return part;
        BlockNumbers numbers = part.blocks();
        if (numbers == null && part.isSummedUp()) numbers = numbers(part.function(), part.values());
        if (numbers != null)
            return new Part(
                    part.function(),
                    part.distinct(),
                    part.fraction(),
                    null,
                    part.texts(),
                    null,
                    numbers.where(BlockNumbers.of(rows)),
                    null);
        if (part.known() != null)
            throw new QueryException(
                    phrase("What is known for each key does not change from row to row; choose a measure of rows"));
        double[] values = decimals(part.values()).all();
        for (int row = 0; row < values.length; row++) if (rows.codes().get(row) != 1) values[row] = Double.NaN;
        return new Part(
                part.function(),
                part.distinct(),
                part.fraction(),
                new DecimalColumn(values),
                part.texts(),
                part.pair(),
                null,
                null);
    }

    /**
     * The variance of a measure as an estimate.
     *
     * @param parts what it is made of
     * @param pushed the same for a database that holds the rows
     * @param of the variance of a group from a number for each of them
     */
    private record Variance(List<Part> parts, List<PushedPart> pushed, ToDoubleFunction<double[]> of) {

        /** Of rows that stay elsewhere, which know the variance of a sample themselves. */
        private static Variance there(Measure measure, Table table) {
            if (measure.summary() != Summary.AVERAGE) return here(measure, table);
            BlockNumbers values = numbers(measure.column(), column(table, measure.column()));
            return new Variance(
                    List.of(summed("SUM", values), summed("COUNT", values)),
                    List.of(
                            new PushedPart(new PushedPart.Of.Variance(measure.column()), List.of()),
                            PushedPart.of(new Measure(Summary.COUNT, measure.column()))),
                    sums -> sums[0] / sums[1]);
        }

        static Variance of(Measure measure, Table table) {
            return table.staying() == null ? here(measure, table) : there(measure, table);
        }

        private static Variance here(Measure measure, Table table) {
            return switch (measure.summary()) {
                case COUNT -> {
                    FormulaMeasure count = Comparisons.parts(measure, table, Map.of());
                    yield new Variance(count.parts(), count.pushed(), sums -> sums[0]);
                }
                case SUM -> {
                    BlockNumbers values = numbers(measure.column(), column(table, measure.column()));
                    yield new Variance(
                            List.of(summed("SUM", values.changed(v -> v * v))),
                            List.of(new PushedPart(new PushedPart.Of.Squares(measure.column()), List.of())),
                            sums -> sums[0]);
                }
                case AVERAGE -> {
                    Column column = column(table, measure.column());
                    BlockNumbers values = numbers(measure.column(), column);
                    // About the mean of all, so that no figures are lost between two large sums.
                    double[] known = Arrays.stream(decimals(column).all())
                            .filter(v -> !Double.isNaN(v))
                            .toArray();
                    double mean = known.length == 0 ? 0 : Sums.mean(known);
                    yield new Variance(
                            List.of(
                                    summed("COUNT", values),
                                    summed("SUM", values.changed(v -> v - mean)),
                                    summed("SUM", values.changed(v -> (v - mean) * (v - mean)))),
                            List.of(),
                            sums -> sums[0] < 2
                                    ? Double.NaN
                                    : (sums[2] - sums[1] * sums[1] / sums[0]) / (sums[0] - 1) / sums[0]);
                }
                default ->
                    throw new QueryException(
                            phrase(
                                    "Standard errors are known for numbers of rows, sums and averages. Show the change as it is, or in per cent"));
            };
        }
    }

    /**
     * A measure for each unit of a figure that is known by key; where there is no measure, the figure itself. A figure
     * counts once for each group, however many rows have its key; rows of whose key nothing is known take no part.
     *
     * @param measure what is divided; null for the figure itself
     * @param formulas measure formulas by name, for one that names one
     * @param column the column of keys
     * @param figures the figure of each key
     * @param times for how many units of the figure
     */
    public static FormulaMeasure reference(
            Measure measure,
            Table table,
            Map<String, FormulaMeasure> formulas,
            String column,
            Map<String, Double> figures,
            double times) {
        FormulaMeasure of = measure == null ? null : parts(measure, table, formulas);
        Stage keys = new Stage("", List.of(new Condition.OneOf(column, List.copyOf(figures.keySet()))));
        CodedColumn known = table.staying() == null ? rows(table, List.of(keys)) : null;
        List<Part> all = new ArrayList<>();
        List<PushedPart> pushed = new ArrayList<>();
        if (of != null) {
            of.parts().forEach(part -> all.add(only(part, known)));
            of.pushed().forEach(part -> pushed.add(part.only(List.of(keys))));
        }
        MeasureFormula.Known figure = new MeasureFormula.Known(column, Map.copyOf(figures));
        all.add(new Part("SUM", true, 0, null, List.of(), null, null, figure));
        pushed.add(new PushedPart(new PushedPart.Of.Known(figure), List.of()));
        int last = all.size() - 1;
        return made(all, pushed, sums -> {
            if (of == null) return sums[last];
            double value = of.combine().applyAsDouble(Arrays.copyOf(sums, last));
            return sums[last] == 0 ? Double.NaN : value * times / sums[last];
        });
    }
}
