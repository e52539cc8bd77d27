package sarnik.dashboard;

import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.SheetFormula;
import sarnik.formula.FormulaWords;
import sarnik.formula.Scope;
import sarnik.query.Comparisons;
import sarnik.query.Measure;
import sarnik.scale.NumberWords;

/** Writes what a measure of the dashboard's own is made of, and of which rows. */
final class FormulaBrief {

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final Choices choices;
    private final BriefLine line;
    private final SheetFormula formula;

    private FormulaBrief(
            Dashboard dashboard, Datasets datasets, Choices choices, BriefLine line, SheetFormula formula) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.choices = choices;
        this.line = line;
        this.formula = formula;
    }

    static Brief write(Dashboard dashboard, Datasets datasets, Choices choices, String id, SheetFormula formula) {
        BriefLine line = new BriefLine("/formulas/" + id);
        new FormulaBrief(dashboard, datasets, choices, line, formula).write();
        return new Brief(line.parts(), List.of());
    }

    private void write() {
        line.slot(
                Slot.within("/name", "name"),
                "“" + formula.name() + "”",
                Kind.TYPED,
                false,
                false,
                List.of(new Option(formula.name(), "", formula.name())));
        line.say(" is, for the rows of ");
        line.choose(Slot.within("/dataset", "dataset"), name(formula.dataset()), sources(false));
        line.say(", ");
        LoadedDataset of = datasets.ready(formula.dataset()).orElse(null);
        if (formula.change() != null && of != null) change(of, formula.change());
        else if (formula.reference() != null && of != null) reference(of, formula.reference());
        else
            line.slot(
                    Slot.within("/text", "formula"),
                    formula.text() == null ? "nothing yet" : formula.text(),
                    Kind.FORMULA,
                    false,
                    false,
                    words(of));
        line.say(". Choose it as the measure of a visual like any other.");
    }

    private String name(long dataset) {
        return datasets.ready(dataset).map(LoadedDataset::name).orElse("a dataset that has gone");
    }

    /**
     * @param others whether but that of the formula
     */
    private List<Option> sources(boolean others) {
        List<Option> sources = new ArrayList<>();
        for (long dataset : dashboard.datasets())
            datasets.ready(dataset)
                    .filter(of -> !others || of.id() != formula.dataset() && of.isPlaced())
                    .ifPresent(of -> sources.add(new Option(of.name(), "", dataset)));
        if (others)
            choices.datasets().forEach((id, name) -> {
                if (id != formula.dataset()
                        && sources.stream().noneMatch(s -> s.value().equals(id)))
                    sources.add(new Option(name, "not on this dashboard yet", id));
            });
        return sources;
    }

    // --- a change ----------------------------------------------------------------------------------

    private void change(LoadedDataset of, SheetFormula.Change change) {
        line.say("the change of ");
        measure("/change/of", "measure that changes", change.of(), of);
        line.say(" from rows");
        Choices.side(line, Slot.within("/change/before", "earlier rows"), change.before(), of);
        line.say(" to rows");
        Choices.side(line, Slot.within("/change/after", "later rows"), change.after(), of);
        line.say(", ");
        List<Option> ways = new ArrayList<>();
        for (Comparisons.As as : Comparisons.As.values()) ways.add(new Option(words(as), hint(as), as.name()));
        line.choose(Slot.within("/change/as", "what it is given in"), words(change.in()), ways);
    }

    private static String words(Comparisons.As as) {
        return switch (as) {
            case AMOUNT -> "as it is";
            case PERCENT -> "in per cent of the earlier";
            case ERRORS -> "in standard errors";
        };
    }

    private static String hint(Comparisons.As as) {
        return switch (as) {
            case AMOUNT -> "the later less the earlier";
            case PERCENT -> "missing where the earlier is zero";
            case ERRORS -> "beyond 2 it is hardly chance alone; for numbers of rows, sums and averages";
        };
    }

    private void measure(String pointer, String name, Measure now, LoadedDataset of) {
        // Nothing is made of itself.
        line.choose(
                Slot.within(pointer, name),
                now == null ? "a measure" : ColumnWords.of(now),
                choices.measures(
                        of,
                        m -> m.column() == null
                                || dashboard.formulas().values().stream()
                                        .noneMatch(f -> f.name().equals(m.column()))));
    }

    // --- a reference -------------------------------------------------------------------------------

    private void reference(LoadedDataset of, SheetFormula.Reference reference) {
        if (reference.of() == null) {
            line.say("the ");
        } else {
            measure("/reference/of", "measure that is divided", reference.of(), of);
            line.say(" for each ");
            line.may(
                    Slot.within("/reference/times", "how many units"),
                    reference.times() == null ? "one" : NumberWords.full(reference.times()),
                    Kind.NUMBER,
                    reference.times() == null,
                    List.of());
            line.say(" of the ");
        }
        datasets.ready(reference.dataset())
                .ifPresentOrElse(
                        other -> measure("/reference/figure", "figure", reference.figure(), other),
                        () -> line.say("figure"));
        line.say(" of ");
        line.choose(
                Slot.within("/reference/dataset", "dataset of the figure"), name(reference.dataset()), sources(true));
        line.say(", joined by ");
        List<Option> joins = new ArrayList<>();
        joins.add(new Option("the same place", "both have the same places", null));
        for (String set : choices.sets()) joins.add(new Option("the area of " + set, "both lie in its areas", set));
        line.choose(
                Slot.within("/reference/set", "what joins them"),
                reference.set() == null ? "the same place" : "the area of " + reference.set(),
                joins);
        line.say(". All rows of ");
        line.say(name(reference.dataset()));
        line.say(" count, whatever the reader narrows");
    }

    // --- a formula ---------------------------------------------------------------------------------

    /** What can stand in it: what readers set, columns and functions, each with its kind as its value. */
    private List<Option> words(LoadedDataset of) {
        List<Option> words = new ArrayList<>();
        dashboard
                .parameters()
                .forEach((id, parameter) -> words.add(new Option(
                        ":" + (FormulaWords.asName(parameter.name()).equals(parameter.name()) ? parameter.name() : id),
                        parameter.name(),
                        "parameter")));
        if (of != null)
            Scope.of(of.table())
                    .columns()
                    .forEach((name, kind) -> words.add(new Option(FormulaWords.asName(name), kind.words(), "column")));
        FormulaWords.FUNCTIONS.forEach((name, use) -> words.add(new Option(name, use, "function")));
        return words;
    }
}
