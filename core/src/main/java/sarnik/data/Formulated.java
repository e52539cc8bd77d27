package sarnik.data;

import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.query.FormulaMeasure;

/** Datasets with the measures that a dashboard works out of them, for what a reader has set. */
public final class Formulated implements Datasets {

    private final Datasets datasets;
    private final List<SheetFormula> formulas;
    private final LocalDate today;
    private final Map<String, Object> parameters;

    private Formulated(
            Datasets datasets, List<SheetFormula> formulas, LocalDate today, Map<String, Object> parameters) {
        this.datasets = datasets;
        this.formulas = formulas;
        this.today = today;
        this.parameters = parameters;
    }

    /**
     * @param parameters values by the name that stands behind a colon: numbers, texts, yes and no, days
     */
    public static Datasets of(
            Datasets datasets, Collection<SheetFormula> formulas, LocalDate today, Map<String, Object> parameters) {
        return formulas.isEmpty() ? datasets : new Formulated(datasets, List.copyOf(formulas), today, parameters);
    }

    @Override
    public Found find(long id) {
        Found found = datasets.find(id);
        if (!(found instanceof Found.Ready ready) || formulas.stream().noneMatch(f -> f.dataset() == id)) return found;
        Map<String, FormulaMeasure> measures = new LinkedHashMap<>();
        for (SheetFormula formula : formulas)
            if (formula.dataset() == id) measures.put(formula.name(), ready(formula, ready.dataset()));
        return new Found.Ready(ready.dataset().beside(measures));
    }

    /** One that does not fit says so where it is shown. */
    private FormulaMeasure ready(SheetFormula formula, LoadedDataset dataset) {
        try {
            return formula.ready(dataset, today, parameters);
        } catch (MisfitException unfit) {
            return FormulaMeasure.unfit(unfit.getMessage());
        }
    }

    @Override
    public Boundaries boundaries() {
        return datasets.boundaries();
    }
}
