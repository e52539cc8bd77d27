package sarnik.visual.list;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.LinkedHashSet;
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
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.States;
import sarnik.visual.VisualKind;

/**
 * The kind of visual that lists rows, or the values of a column, in words; each opens in place to all that is known.
 */
public final class ListKind implements VisualKind<Listing> {

    private static final String COLUMN = "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}";
    private static final String COLUMNS =
            "{\"type\": [\"array\", \"null\"], \"items\": {\"$ref\": \"#/$defs/column\"}, \"maxItems\": 200}";
    private static final String VALUES =
            "{\"type\": [\"array\", \"null\"], \"items\": {\"type\": \"string\", \"maxLength\": 500}, "
                    + "\"maxItems\": 50}";
    static final Slot EACH = Slot.at("/each", "what has a line", COLUMN);
    static final Slot TEXT = Slot.at("/text", "words of a line", "{\"type\": \"string\", \"maxLength\": 2000}")
            .needed();
    static final Slot BELOW =
            Slot.at("/below", "words below a line", "{\"type\": [\"string\", \"null\"], \"maxLength\": 2000}");
    static final Slot FIGURES = Slot.at(
            "/figures",
            "figures",
            "{\"type\": [\"array\", \"null\"], \"items\": {\"$ref\": \"#/$defs/measure\"}, \"maxItems\": 20}");
    static final Slot PICK = Slot.at("/pick", "what a pick takes", COLUMN);
    static final Slot ORDER = Slot.at(
            "/order",
            "order",
            "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": [\"by\", "
                    + "\"down\"], \"properties\": "
                    + "{\"by\": {\"type\": \"string\", \"maxLength\": 400}, \"down\": {\"type\": \"boolean\"}}}");
    static final Slot MARK = Slot.at(
            "/mark",
            "good and bad",
            "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"required\": [\"of\"], "
                    + "\"properties\": "
                    + "{\"of\": {\"type\": \"string\", \"maxLength\": 400}, \"limits\": " + States.SCHEMA
                    + ", \"good\": "
                    + VALUES + ", \"bad\": " + VALUES + "}}");
    static final Slot OPENED = Slot.at("/opened", "what an opened row shows", COLUMNS);

    @Override
    public String name() {
        return "list";
    }

    @Override
    public Class<Listing> type() {
        return Listing.class;
    }

    @Override
    public Class<ListDrawing> drawing() {
        return ListDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 2h1M3.5 2H9M1 5h1M3.5 5H9M1 8h1M3.5 8h4";
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, EACH, TEXT, BELOW, FIGURES, PICK, ORDER, MARK, OPENED, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Listing.class, Listing.Mark.class);
    }

    @Override
    public String words(Listing list) {
        return list.each() == null
                ? phrase("the list of rows")
                : phrase("the list of {0}", ColumnWords.of(list.each()));
    }

    @Override
    public Set<Long> datasets(Listing list) {
        return Set.of(list.dataset());
    }

    @Override
    public Optional<Source> picks(Listing list) {
        String column = list.each() == null ? list.pick() : list.each();
        return column == null ? Optional.empty() : Optional.of(new Source(list.dataset(), column));
    }

    @Override
    public Plan plan(Listing list, Scene scene) {
        return list.each() == null ? new RowLines(list, scene).plan() : new ValueLines(list, scene).plan();
    }

    /** What figures a list of values has. */
    static List<Measure> figures(Listing list) {
        return list.figures() == null || list.figures().isEmpty() ? List.of(Measure.ROWS) : list.figures();
    }

    @Override
    public void brief(Listing list, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        new ListBrief(list, datasets.get(list.dataset()), choices).write(line);
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.EXACTLY) return List.of();
        List<Proposal> proposals = new ArrayList<>();
        String pick = dataset.isPlaced() ? PlacedTable.PLACE : null;
        proposals.add(new Proposal(
                "The rows of " + dataset.name() + " one by one, each to be opened", rows(dataset, pick), 9, 9));
        Telling.categories(dataset).stream()
                .limit(1)
                .forEach(c -> proposals.add(new Proposal(
                        "A line for each " + ColumnWords.of(c),
                        values(
                                null,
                                null,
                                "",
                                dataset,
                                c,
                                Telling.measures(dataset).stream().limit(2).toList()),
                        7,
                        9)));
        return proposals;
    }

    private static Listing rows(LoadedDataset dataset, String pick) {
        List<String> names =
                dataset.columnNames().stream().filter(n -> !n.startsWith("@")).toList();
        Set<String> telling = new LinkedHashSet<>();
        Telling.categories(dataset).stream()
                .filter(c -> !c.startsWith("@"))
                .limit(2)
                .forEach(telling::add);
        Telling.amounts(dataset).stream().limit(1).forEach(telling::add);
        if (telling.isEmpty()) names.stream().limit(2).forEach(telling::add);
        String time = Telling.time(dataset).orElse(null);
        return new Listing(
                null,
                null,
                "",
                dataset.id(),
                null,
                String.join(" · ", telling.stream().map(c -> "{" + c + "}").toList()),
                time == null ? null : "{" + time + "}",
                null,
                pick,
                time == null ? null : new Listing.By(time, true),
                null,
                null,
                null);
    }

    private static Listing values(
            String page, Box at, String title, LoadedDataset dataset, String each, List<Measure> sums) {
        List<Measure> figures = sums.isEmpty() ? List.of(Measure.ROWS) : sums;
        return new Listing(
                page,
                at,
                title,
                dataset.id(),
                each,
                "{" + ColumnWords.of(each) + "}",
                String.join(
                        " · ",
                        figures.stream()
                                .map(m -> "{" + ColumnWords.of(m) + "} " + ColumnWords.brief(m))
                                .toList()),
                figures,
                null,
                null,
                null,
                null,
                null);
    }

    @Override
    public Ingredients ingredients(Listing list) {
        return new Ingredients(
                list.dataset(),
                list.each() == null ? List.of() : List.of(list.each()),
                list.each() == null ? List.of() : figures(list),
                null,
                list.rule(),
                null,
                null);
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        if (from.dataset() == null || from.categories().isEmpty()) return Optional.empty();
        Optional<LoadedDataset> dataset = datasets.ready(from.dataset());
        if (dataset.isEmpty()) return Optional.empty();
        String each = from.categories().get(0);
        List<Measure> measures =
                from.measuresOrRows().stream().map(Measure::plain).toList();
        Listing made = values(page, at, title, dataset.get(), each, measures);
        List<String> left = new ArrayList<>();
        for (String one : from.categories()) if (!one.equals(each)) left.add(ColumnWords.of(one));
        if (from.time() != null) left.add("the time");
        return Optional.of(new Become(
                new Listing(
                        page,
                        at,
                        title,
                        made.dataset(),
                        each,
                        made.text(),
                        made.below(),
                        made.figures(),
                        null,
                        null,
                        null,
                        null,
                        from.rule()),
                left));
    }
}
