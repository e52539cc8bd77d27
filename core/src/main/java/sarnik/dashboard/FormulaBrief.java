package sarnik.dashboard;

import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.SheetFormula;

/** Writes what a measure of the dashboard's own sums up, and of which rows. */
final class FormulaBrief {

    private FormulaBrief() {}

    static Brief write(Dashboard dashboard, Datasets datasets, String id, SheetFormula formula) {
        BriefLine line = new BriefLine("/formulas/" + id);
        line.slot(
                Slot.within("/name", "name"),
                "“" + formula.name() + "”",
                Kind.TYPED,
                false,
                false,
                List.of(new Option(formula.name(), "", formula.name())));
        line.say(" is, for the rows of ");
        List<Option> sources = new ArrayList<>();
        for (long dataset : dashboard.datasets())
            datasets.ready(dataset).ifPresent(of -> sources.add(new Option(of.name(), "", dataset)));
        line.choose(
                Slot.within("/dataset", "dataset"),
                datasets.ready(formula.dataset()).map(LoadedDataset::name).orElse("a dataset that has gone"),
                sources);
        line.say(", ");
        line.slot(
                Slot.within("/text", "formula"),
                formula.text(),
                Kind.FORMULA,
                false,
                false,
                words(dashboard, datasets, formula));
        line.say(". Choose it as the measure of a visual like any other.");
        return new Brief(line.parts(), List.of());
    }

    /** What can stand in it: columns, and what readers set. */
    private static List<Option> words(Dashboard dashboard, Datasets datasets, SheetFormula formula) {
        List<Option> words = new ArrayList<>();
        dashboard
                .parameters()
                .forEach((id, parameter) -> words.add(new Option(
                        ":" + (parameter.name().matches("[A-Za-z][A-Za-z0-9_]*") ? parameter.name() : id),
                        parameter.name(),
                        null)));
        datasets.ready(formula.dataset())
                .ifPresent(of -> of.columnNames().stream()
                        .filter(name -> !name.startsWith("@"))
                        .forEach(name -> words.add(new Option(
                                name.matches("[A-Za-z_][A-Za-z0-9_]*") ? name : "\"" + name + "\"", name, null))));
        return words;
    }
}
