package sarnik.visual.table;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.query.TimeStep;
import sarnik.visual.Asked;
import sarnik.visual.Box;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Sight;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.States;
import sarnik.visual.SureRates;
import sarnik.visual.TinyLine;
import sarnik.visual.VisualKind;

/** The kind of visual that says exactly: a table. What is not in sight stays on the server. */
public final class TableKind implements VisualKind<TableVisual> {

    /** Rows that are sent at once. */
    static final int PAGE = 100;

    /** Where there can be more rows than this they have no tiny lines, which would take long to work out. */
    static final int MOST_LINES = 10_000;

    private static final String BOOLEAN = "{\"type\": [\"boolean\", \"null\"]}";
    static final Slot CATEGORIES = Slot.at(
                    "/categories",
                    "categories",
                    "{\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/column\"}, \"minItems\": 1, "
                            + "\"maxItems\": 6}")
            .needed();
    static final Slot MEASURES = Slot.at(
                    "/measures",
                    "measures",
                    "{\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/measure\"}, \"minItems\": 1, "
                            + "\"maxItems\": 20}")
            .needed();
    static final Slot ORDER = Slot.at(
            "/order",
            "order",
            "{\"type\": [\"array\", \"null\"], \"maxItems\": 6, \"items\": {\"type\": \"object\", "
                    + "\"additionalProperties\": false, "
                    + "\"required\": [\"column\", \"down\"], \"properties\": {\"column\": {\"type\": "
                    + "\"integer\", \"minimum\": 0}, "
                    + "\"down\": {\"type\": \"boolean\"}}}}");
    static final Slot FIRST =
            Slot.at("/first", "number of rows", "{\"type\": [\"integer\", \"null\"], \"minimum\": 1}");
    static final Slot TOTALS = Slot.at("/totals", "total", BOOLEAN);
    static final Slot SUBTOTALS = Slot.at("/subtotals", "subtotals", BOOLEAN);
    static final Slot HEAT = Slot.at("/heat", "tints", BOOLEAN);
    static final Slot LOOKS = Slot.at(
            "/looks",
            "good and bad",
            "{\"type\": [\"array\", \"null\"], \"maxItems\": 20, \"items\": {\"type\": \"object\", "
                    + "\"additionalProperties\": false, \"required\": [\"measure\", \"states\"], \"properties\": "
                    + "{\"measure\": {\"$ref\": \"#/$defs/measure\"}, \"states\": " + States.SCHEMA + "}}}");
    static final Slot OVER = Slot.at("/over", "tiny lines", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");

    @Override
    public String name() {
        return "table";
    }

    @Override
    public Class<TableVisual> type() {
        return TableVisual.class;
    }

    @Override
    public Class<TableDrawing> drawing() {
        return TableDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 2h8M1 4.5h8M1 7h8M4 2v7";
    }

    @Override
    public List<Slot> slots() {
        return List.of(
                Slots.DATASET,
                CATEGORIES,
                MEASURES,
                ORDER,
                FIRST,
                TOTALS,
                SUBTOTALS,
                HEAT,
                LOOKS,
                OVER,
                Slots.FORMAT,
                Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(TableVisual.class);
    }

    @Override
    public String words(TableVisual table) {
        return phrase("the table of {0}", ColumnWords.of(table.categories().get(0)));
    }

    @Override
    public Set<Long> datasets(TableVisual table) {
        return Set.of(table.dataset());
    }

    @Override
    public Optional<Source> picks(TableVisual table) {
        return Optional.of(new Source(table.dataset(), table.categories().get(0)));
    }

    @Override
    public Plan plan(TableVisual table, Scene scene) {
        LoadedDataset dataset = scene.dataset(table.dataset());
        List<Stage> shown = scene.shown(dataset, table.rule());
        Plan plan = new Plan();
        Asked rows = plan.ask(dataset, Query.of(shown, table.categories(), table.measures()));
        Asked total = Boolean.TRUE.equals(table.totals())
                ? plan.ask(dataset, Query.of(shown, List.of(), plain(table.measures())))
                : null;
        Asked subtotals = hasSubtotals(table)
                ? plan.ask(dataset, Query.of(shown, table.categories().subList(0, 1), plain(table.measures())))
                : null;
        TimeStep step = table.over() == null ? null : TinyLine.step(dataset, table.over());
        Asked lines = step == null || combinations(table, dataset) > MOST_LINES
                ? null
                : plan.ask(
                        dataset,
                        Query.by(
                                        shown,
                                        linesBy(table, step),
                                        plain(table.measures().subList(0, 1)))
                                .filled());
        List<Rates> rates = new ArrayList<>();
        for (int m = 0; m < table.measures().size(); m++) {
            LoadedDataset.Rate rate =
                    SureRates.rate(dataset, table.measures().get(m)).orElse(null);
            if (rate != null)
                rates.add(new Rates(
                        m,
                        rate,
                        plan.ask(
                                rate.dataset(),
                                Query.of(shown, table.categories(), List.of(rate.events(), rate.over())))));
        }
        Sight sight = scene.sight();
        return plan.drawn(answers ->
                new TableDrawer(table, dataset, answers, sight, rates).draw(rows, total, subtotals, lines, step));
    }

    /**
     * A column of rates.
     *
     * @param measure which of the table's
     * @param sums what was counted and what it could happen to, by row
     */
    record Rates(int measure, LoadedDataset.Rate rate, Asked sums) {}

    private static List<GroupKey> linesBy(TableVisual table, TimeStep step) {
        List<GroupKey> keys = new ArrayList<>(GroupKey.of(table.categories()));
        keys.add(new GroupKey.Step(table.over(), step, null));
        return keys;
    }

    /** How many rows there can be. */
    private static long combinations(TableVisual table, LoadedDataset dataset) {
        return table.categories().stream()
                .mapToLong(c -> Telling.distinct(dataset, c))
                .reduce(1, (a, b) -> Math.min(Integer.MAX_VALUE, a * b));
    }

    private static boolean hasSubtotals(TableVisual table) {
        return Boolean.TRUE.equals(table.subtotals()) && table.categories().size() > 1;
    }

    private static List<Measure> plain(List<Measure> measures) {
        return measures.stream().map(Measure::plain).toList();
    }

    // --- its sentence ----------------------------------------------------------------------------------

    @Override
    public void brief(TableVisual table, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        new TableBrief(table, datasets.get(table.dataset())).write(line, looks, choices);
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.EXACTLY) return List.of();
        List<Measure> measures =
                new ArrayList<>(Telling.measures(dataset).stream().limit(3).toList());
        measures.add(Measure.ROWS);
        // A table begins with the most of its first figure, so amounts stand before rates.
        measures.sort(Comparator.comparing(measure -> !Telling.addsUp(measure)));
        return Telling.categories(dataset).stream()
                .limit(2)
                .map(c -> new Proposal(
                        "All figures, a row for each " + ColumnWords.of(c),
                        new TableVisual(
                                null,
                                null,
                                "",
                                dataset.id(),
                                List.of(c),
                                measures,
                                null,
                                null,
                                true,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null),
                        14,
                        10))
                .toList();
    }

    @Override
    public Ingredients ingredients(TableVisual table) {
        return new Ingredients(
                table.dataset(), table.categories(), table.measures(), table.over(), table.rule(), null, null);
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        List<String> categories = from.categories().isEmpty()
                ? Telling.categories(dataset).stream().limit(1).toList()
                : from.categories();
        if (categories.isEmpty()) return Optional.empty();
        return Optional.of(new Become(
                new TableVisual(
                        page,
                        at,
                        title,
                        dataset.id(),
                        categories,
                        from.measuresOrRows(),
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        from.time(),
                        null,
                        from.rule()),
                List.of()));
    }
}
