package sarnik.data;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.formula.FormulaException;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.formula.Unworked;
import sarnik.place.PlacedTable;
import sarnik.query.Comparisons;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.query.Stage;
import sarnik.table.CodedColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;

/**
 * A measure of a dashboard's own: a formula that may rest on what readers set, {@code SUM(takings * (1 + :rise /
 * 100))}; the change of a measure between two sets of rows; or a measure for each unit of another dataset's figure.
 *
 * @param dataset id of the dataset whose rows it sums up
 * @param name what it is called among that dataset's measures
 * @param text the formula; null for the other forms
 * @param change what changes; null for the other forms
 * @param reference what it is held against; null for the other forms
 */
public record SheetFormula(long dataset, String name, String text, Change change, Reference reference) {

    /**
     * @param of the measure that changes
     * @param before the rows of the earlier side
     * @param after the rows of the later side
     * @param as what the change is given in; null for its amount
     */
    public record Change(Measure of, Rule before, Rule after, Comparisons.As as) {

        /** What it is given in. */
        public Comparisons.As in() {
            return as == null ? Comparisons.As.AMOUNT : as;
        }
    }

    /**
     * A figure of another dataset, over all of its rows that always take part.
     *
     * @param of the measure that is divided; null for the figure itself
     * @param dataset id of the other dataset
     * @param figure its measure
     * @param set the boundary set in whose areas both lie; null where both have the same places
     * @param times for how many units of the figure; null for one
     */
    public record Reference(Measure of, long dataset, Measure figure, String set, Double times) {

        /** For how many units. */
        public double units() {
            return times == null ? 1 : times;
        }

        String column() {
            return set == null ? PlacedTable.PLACE : RolledUp.column(set);
        }
    }

    /** A formula. */
    public SheetFormula(long dataset, String name, String text) {
        this(dataset, name, text, null, null);
    }

    /** Whether it names a parameter, by its id or its name. */
    public boolean names(String parameter) {
        return text != null && Settings.names(text, parameter)
                || change != null
                        && (change.before != null && change.before.names(parameter)
                                || change.after != null && change.after.names(parameter));
    }

    /**
     * What is wrong with it.
     *
     * @param words a sentence
     * @param from the first character that is meant, -1 where none is
     * @param to the character after it
     */
    public record Trouble(String words, int from, int to) {}

    /**
     * What is wrong with it; empty where nothing is.
     *
     * @param scene what it is worked out in
     */
    public Optional<Trouble> trouble(LoadedDataset of, Scene scene) {
        try {
            ready(of, scene);
            return Optional.empty();
        } catch (MisfitException unfit) {
            return Optional.of(
                    unfit.getCause() instanceof FormulaException formula
                            ? new Trouble(formula.getMessage(), formula.from(), formula.to())
                            : new Trouble(unfit.getMessage(), -1, -1));
        }
    }

    /** What is said of the rows in which what it sums up cannot be worked out; empty where there is none. */
    public Optional<String> without(LoadedDataset of, Scene scene) {
        if (text == null) return Optional.empty();
        Written written = written(of.table(), scene);
        Unworked unworked = new Unworked();
        if (of.table().staying() == null) written.formula.parts(of.table(), written.on, unworked);
        return RowsWithout.words(written.formula, of.table(), written.on, unworked);
    }

    /**
     * What measures are worked out in.
     *
     * @param datasets where figures of others are found
     * @param engine answers what is asked of them
     * @param today what CURRENT_DATE is, and what relative periods are counted from
     * @param parameters values by the name that stands behind a colon: numbers, texts, yes and no, days
     */
    public record Scene(Datasets datasets, QueryEngine engine, LocalDate today, Map<String, Object> parameters) {}

    /**
     * Made ready for its dataset. What was made ready for the same settings is taken from what is kept.
     *
     * @throws MisfitException when it does not fit the dataset
     */
    FormulaMeasure ready(LoadedDataset of, Scene scene) {
        if (of.table().find(name).isPresent())
            throw new MisfitException(
                    phrase("“{0}” is the name of a column of {1}. Call it otherwise.", name, of.name()));
        try {
            if (change != null) return changing(of, scene);
            if (reference != null) return referring(of, scene);
            return written(of, scene);
        } catch (FormulaException | QueryException | MisfitException unfit) {
            throw new MisfitException(
                    phrase("“{0}” cannot be worked out: {1}", name, unfit.getMessage()),
                    unfit instanceof MisfitException ? unfit.getCause() : unfit);
        }
    }

    private record Written(MeasureFormula formula, Surroundings on) {}

    private Written written(Table table, Scene scene) {
        Settings set = Settings.of(scene.parameters());
        Surroundings on = Surroundings.on(scene.today());
        return new Written(
                MeasureFormula.parse(text, Scope.of(table).withParameters(set.kinds())),
                new Surroundings(set.named(text), on.places(), on.areas(), scene.today()));
    }

    private FormulaMeasure written(LoadedDataset of, Scene scene) {
        if (text == null) throw new MisfitException(phrase("It says nothing yet."));
        Written written = written(of.table(), scene);
        return of.worked()
                .measure(
                        text + written.on.parameters() + scene.today(),
                        () -> FormulaMeasure.of(written.formula, of.table(), written.on, (words, work) ->
                                (DecimalColumn) of.worked().column("part " + words, work)));
    }

    private FormulaMeasure changing(LoadedDataset of, Scene scene) {
        if (change.of == null || change.before == null || change.after == null)
            throw new MisfitException(phrase("Say what changes, from which rows to which."));
        List<Stage> before = change.before.stages(of, scene.today(), scene.parameters());
        List<Stage> after = change.after.stages(of, scene.today(), scene.parameters());
        return of.worked()
                .measure(
                        change.in() + " of " + change.of + " from " + before + " to " + after,
                        () -> Comparisons.change(
                                change.of, of.table(), of.measures(), side(of, before), side(of, after), change.in()));
    }

    private static Comparisons.Side side(LoadedDataset of, List<Stage> stages) {
        return new Comparisons.Side(
                stages,
                of.table().staying() != null
                        ? null
                        : (CodedColumn)
                                of.worked().column("rows of " + stages, () -> Comparisons.rows(of.table(), stages)));
    }

    private FormulaMeasure referring(LoadedDataset of, Scene scene) {
        if (reference.figure == null) throw new MisfitException(phrase("Say which figure it is held against."));
        String column = reference.column();
        LoadedDataset other = scene.datasets().get(reference.dataset).with(column);
        if (!of.isPlaced() || !other.isPlaced())
            throw new MisfitException(
                    phrase("“{0}” has no places, so nothing joins them.", (of.isPlaced() ? other : of).name()));
        return of.worked()
                .measure(
                        reference + " " + System.identityHashCode(other.table()),
                        () -> Comparisons.reference(
                                reference.of,
                                of.with(column).table(),
                                of.measures(),
                                column,
                                figures(other, column, scene.engine()),
                                reference.units()));
    }

    private Map<String, Double> figures(LoadedDataset other, String column, QueryEngine engine) {
        Frame frame = other.answer(
                engine,
                Query.of(new ArrayList<>(other.rules()), List.of(column), List.of(reference.figure))
                        .filled());
        Map<String, Double> figures = new HashMap<>();
        for (int g = 0; g < frame.size(); g++)
            if (!Double.isNaN(frame.value(0, g))) figures.put(frame.key(0, g), frame.value(0, g));
        if (figures.isEmpty())
            throw new MisfitException(phrase("“{0}” has no such figure in any place of this kind.", other.name()));
        return figures;
    }
}
