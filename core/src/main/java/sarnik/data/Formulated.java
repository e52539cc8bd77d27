package sarnik.data;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.query.FormulaMeasure;

/** Datasets with the measures that a dashboard works out of them, for what a reader has set. */
public final class Formulated implements Datasets {

    private final SheetFormula.Scene scene;
    private final List<SheetFormula> formulas;

    private Formulated(SheetFormula.Scene scene, List<SheetFormula> formulas) {
        this.scene = scene;
        this.formulas = formulas;
    }

    /**
     * @param scene the datasets themselves, and what the reader has set
     */
    public static Datasets of(SheetFormula.Scene scene, Collection<SheetFormula> formulas) {
        return formulas.isEmpty() ? scene.datasets() : new Formulated(scene, List.copyOf(formulas));
    }

    @Override
    public Found find(long id) {
        Found found = scene.datasets().find(id);
        if (!(found instanceof Found.Ready ready)) return found;
        List<SheetFormula> own =
                formulas.stream().filter(f -> f.dataset() == id).toList();
        if (own.isEmpty()) return found;
        Map<String, FormulaMeasure> measures = new LinkedHashMap<>();
        LoadedDataset with = ready.dataset();
        for (SheetFormula formula : own) {
            measures.put(formula.name(), ready(formula, ready.dataset()));
            // What figures are known by is a column of its rows.
            if (formula.reference() != null)
                with = known(with, formula.reference().column());
        }
        return new Found.Ready(with.beside(measures));
    }

    private static LoadedDataset known(LoadedDataset dataset, String column) {
        try {
            return dataset.with(column);
        } catch (MisfitException gone) {
            return dataset;
        }
    }

    /** One that does not fit says so where it is shown. */
    private FormulaMeasure ready(SheetFormula formula, LoadedDataset dataset) {
        try {
            return formula.ready(dataset, scene);
        } catch (MisfitException unfit) {
            return FormulaMeasure.unfit(unfit.getMessage());
        }
    }

    @Override
    public Boundaries boundaries() {
        return scene.datasets().boundaries();
    }
}
