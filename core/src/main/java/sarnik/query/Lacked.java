package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.formula.MeasureFormula;

/**
 * A value that is summed up and that rows may lack. Those that do take no part in its figures, which the row trail says.
 *
 * @param words what is said of them
 * @param tally what it is called among what is summed up of rows in memory
 * @param counted counts the rows that have it, where rows stay in a database
 */
public record Lacked(String words, String tally, PushedPart counted) {

    /** What is said by numbers of rows, or of different values, of which a missing one is none. */
    private static final Set<Summary> COUNTING = Set.of(Summary.COUNT, Summary.DISTINCT);

    /** The values that a query sums up; those of which the rows that take part are chosen by a formula left out. */
    public static List<Lacked> of(Query query) {
        List<Lacked> all = new ArrayList<>();
        for (Measure measure : query.measures()) {
            if (measure.summary() == Summary.FORMULA) all.addAll(of(measure.column(), query.formulas()));
            else if (!COUNTING.contains(measure.summary()))
                all.add(new Lacked(
                        column(measure.column()),
                        measure.column(),
                        PushedPart.of(new Measure(Summary.COUNT, measure.column()))));
        }
        return all;
    }

    private static List<Lacked> of(String name, Map<String, FormulaMeasure> formulas) {
        List<Lacked> all = new ArrayList<>();
        FormulaMeasure formula = formulas.get(name);
        for (int p = 0; formula != null && p < formula.pushed().size(); p++) {
            if (!(formula.pushed().get(p).of() instanceof PushedPart.Of.Written written)
                    || !formula.pushed().get(p).only().isEmpty()
                    || !written.summed().takesAllWithAValue()) continue;
            MeasureFormula.Summed summed = written.summed();
            all.add(new Lacked(
                    summed.column() != null
                            ? column(summed.column())
                            : phrase("Not in the figures: a part of “{0}” has no value", said(name)),
                    Plan.partName(name, p),
                    PushedPart.of(summed.counted(), written.on())));
        }
        return all;
    }

    private static String column(String name) {
        return phrase("Not in the figures: no value of “{0}”", RowTrail.named(name, name));
    }

    /** A formula that is one of the sums of another is called by the name of that. */
    private static String said(String name) {
        return name.startsWith("@") ? name.substring(name.indexOf(':') + 1) : name;
    }

    /**
     * The steps of a row trail that say how many rows lack what a query sums up; none of what all have.
     *
     * @param rows how many rows are summed up
     * @param having of each how many of them have it
     */
    public static List<RowTrail.Step> steps(List<Lacked> lacked, long rows, long[] having) {
        Map<String, Long> without = new LinkedHashMap<>();
        for (int i = 0; i < having.length; i++) without.merge(lacked.get(i).words, rows - having[i], Math::max);
        List<RowTrail.Step> steps = new ArrayList<>();
        without.forEach((words, count) -> {
            if (count > 0) steps.add(new RowTrail.Step(words, count, RowTrail.Unit.WITHOUT));
        });
        return steps;
    }
}
