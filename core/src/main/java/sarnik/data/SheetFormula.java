package sarnik.data;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import sarnik.formula.FormulaException;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.query.FormulaMeasure;

/**
 * A measure of a dashboard's own, which may rest on what readers set: {@code SUM(takings * (1 + :rise / 100))}.
 *
 * @param dataset id of the dataset whose rows it sums up
 * @param name what it is called among that dataset's measures
 * @param text the formula
 */
public record SheetFormula(long dataset, String name, String text) {

    /** Whether it names a parameter, by its id or its name. */
    public boolean names(String parameter) {
        return Settings.names(text, parameter);
    }

    /** What is wrong with it, in a sentence; empty where nothing is. */
    public Optional<String> trouble(LoadedDataset of, Map<String, Object> parameters) {
        try {
            parse(of, Settings.of(parameters));
            return Optional.empty();
        } catch (MisfitException unfit) {
            return Optional.of(unfit.getMessage());
        }
    }

    private MeasureFormula parse(LoadedDataset of, Settings set) {
        if (of.table().find(name).isPresent())
            throw new MisfitException(
                    "“" + name + "” is the name of a column of " + of.name() + ". Call it otherwise.");
        try {
            return MeasureFormula.parse(text, Scope.of(of.table()).withParameters(set.kinds()));
        } catch (FormulaException unfit) {
            throw new MisfitException("“" + name + "” cannot be worked out: " + unfit.getMessage());
        }
    }

    /**
     * Made ready for its dataset. What was made ready for the same settings is taken from what is kept.
     *
     * @param parameters values by the name that stands behind a colon: numbers, texts, yes and no, days
     * @throws MisfitException when it does not fit the dataset
     */
    FormulaMeasure ready(LoadedDataset of, LocalDate today, Map<String, Object> parameters) {
        Settings set = Settings.of(parameters);
        MeasureFormula formula = parse(of, set);
        Map<String, Object> named = set.named(text);
        Surroundings on = Surroundings.on(today);
        return of.worked()
                .measure(
                        text + named + today,
                        () -> FormulaMeasure.of(
                                formula,
                                of.table(),
                                new Surroundings(named, on.places(), on.areas(), today),
                                (words, work) ->
                                        (sarnik.table.DecimalColumn) of.worked().column("part " + words, work)));
    }
}
