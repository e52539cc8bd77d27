package sarnik.dashboard;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import sarnik.brief.Choices;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Rule;
import sarnik.data.SheetFormula;
import sarnik.data.Telling;
import sarnik.place.Placing;
import sarnik.query.Comparisons;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.table.Column;
import sarnik.table.Extremes;
import sarnik.visual.Visual;

/** Measures of a dashboard's own that may be added to it. */
final class MeasureProposals {

    /** References that are offered, at most. */
    private static final int MOST_REFERENCES = 4;

    private final Dashboard dashboard;
    private final Supplier<String> ids;

    MeasureProposals(Dashboard dashboard, Supplier<String> ids) {
        this.dashboard = dashboard;
        this.ids = ids;
    }

    /**
     * @param name what the measure is called
     * @param diverges whether its values go both ways from zero
     */
    record Made(Proposals.Added added, String name, boolean diverges) {}

    private Made made(String words, String name, boolean diverges, Map<String, Object> says) {
        Set<String> taken =
                dashboard.formulas().values().stream().map(SheetFormula::name).collect(Collectors.toSet());
        String free = name;
        for (int number = 2; taken.contains(free); number++) free = name + " " + number;
        Map<String, Object> value = Choices.map("name", free);
        value.putAll(says);
        String id = "m" + ids.get();
        return new Made(
                new Proposals.Added(
                        id, words, List.of(Choices.map("op", "add", "path", "/formulas/" + id, "value", value))),
                free,
                diverges);
    }

    /** A formula to be written. */
    Proposals.Added formula(LoadedDataset dataset) {
        Measure first = Telling.amount(dataset);
        String text = first.summary() == Summary.SUM ? "SUM(\"" + first.column() + "\")" : "COUNT(*)";
        return made(
                        "A measure of your own, which may follow what readers set",
                        "Formula",
                        false,
                        Choices.map("dataset", dataset.id(), "text", text))
                .added();
    }

    /** The change from the year before the last to the last, or from the first half of the time to the second. */
    Optional<Made> change(LoadedDataset dataset) {
        Optional<String> time = dataset.columnNames().stream()
                .filter(name ->
                        !name.startsWith("@") && Choices.isTime(dataset.table().column(name)))
                .findFirst();
        if (time.isEmpty()) return Optional.empty();
        Column column = dataset.table().column(time.get());
        Optional<Extremes> ends = column.extremes();
        if (ends.isEmpty()) return Optional.empty();
        LocalDate first = day(column, ends.get().lowest());
        LocalDate last = day(column, ends.get().highest());
        if (!first.isBefore(last)) return Optional.empty();
        boolean years = !first.isAfter(last.minusYears(2).plusDays(1));
        // Of an odd number of days the first is left out: both halves are equally long.
        long half = (last.toEpochDay() - first.toEpochDay() + 1) / 2;
        LocalDate middle = years ? last.minusYears(1) : last.minusDays(half);
        LocalDate begin = years ? last.minusYears(2).plusDays(1) : middle.minusDays(half - 1);
        Measure amount = Telling.amount(dataset);
        return Optional.of(made(
                "Where has it changed? " + ColumnWords.of(amount)
                        + (years ? ", the last year against the one before" : ", the second half against the first"),
                "change of " + ColumnWords.of(amount),
                true,
                Choices.map(
                        "dataset",
                        dataset.id(),
                        "change",
                        Choices.map(
                                "of",
                                Choices.value(amount),
                                "before",
                                between(time.get(), begin, middle),
                                "after",
                                between(time.get(), middle.plusDays(1), last),
                                "as",
                                Comparisons.As.PERCENT.name()))));
    }

    private static LocalDate day(Column column, int row) {
        return LocalDate.parse(column.text(row).substring(0, 10));
    }

    private static Map<String, Object> between(String column, LocalDate from, LocalDate to) {
        return Choices.map(
                "column", column, "is", Rule.Is.BETWEEN.name(), "from", from.toString(), "to", to.toString());
    }

    /** Amounts for each unit of what other datasets of the dashboard know of the same areas. */
    List<Made> references(LoadedDataset dataset, Datasets datasets) {
        List<Made> made = new ArrayList<>();
        if (!dataset.isPlaced()) return made;
        Measure amount = Telling.amount(dataset);
        for (long id : dashboard.datasets()) {
            Optional<LoadedDataset> other = id == dataset.id() ? Optional.empty() : datasets.ready(id);
            if (other.isEmpty() || !(other.get().placing() instanceof Placing.ByArea area)) continue;
            for (Measure figure : Telling.measures(other.get())) {
                if (made.size() == MOST_REFERENCES) return made;
                made.add(made(
                        ColumnWords.of(amount) + " for each of " + ColumnWords.of(figure) + " in "
                                + other.get().name(),
                        ColumnWords.of(amount) + " per " + ColumnWords.of(figure),
                        false,
                        Choices.map(
                                "dataset",
                                dataset.id(),
                                "reference",
                                Choices.map(
                                        "of",
                                        Choices.value(amount),
                                        "dataset",
                                        id,
                                        "figure",
                                        Choices.value(figure),
                                        "set",
                                        area.set()))));
            }
        }
        return made;
    }

    /** A visual that shows a measure in the place of its own. */
    static Visual showing(Visual visual, Made made) {
        Map<String, Object> plain = DocumentJson.plain(visual);
        Map<String, Object> measure = Choices.value(new Measure(Summary.FORMULA, made.name()));
        if (plain.get("layers") instanceof Map<?, ?> layers)
            layers.values().forEach(layer -> coloured(layer, measure, made.diverges()));
        else plain.put("measure", measure);
        return DocumentJson.visual(plain);
    }

    @SuppressWarnings("unchecked")
    private static void coloured(Object layer, Map<String, Object> measure, boolean diverges) {
        Map<String, Object> colour = Choices.map("measure", measure, "method", "NATURAL", "classes", 6);
        colour.put("palette", diverges ? "rust to loch" : "loch");
        if (diverges) colour.put("centre", Choices.map("about", "VALUE", "value", 0));
        ((Map<String, Object>) layer).put("colour", colour);
    }
}
