package sarnik.visual.difference;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.state.Value;
import sarnik.visual.Box;
import sarnik.visual.Ingredients;
import sarnik.visual.Known;
import sarnik.visual.Picked;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.VisualKind;

/** The kind of visual that ranks what parts something that is picked from the rest. */
public final class DifferenceKind implements VisualKind<Difference> {

    /** Between the column and the value of what is picked. */
    private static final String BETWEEN = ": ";

    private static final int MOST_COLUMNS = 8;
    private static final int MOST_VALUES = 60;

    private static final Slot MEASURE = Slot.at("/measure", "what differs", "{\"$ref\": \"#/$defs/measure\"}")
            .needed();
    private static final Slot COLUMNS = Slot.at(
                    "/columns",
                    "columns that are looked at",
                    "{\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/column\"}, \"minItems\": 1, \"maxItems\": 20}")
            .needed();
    private static final Slot COUNT = Slot.at(
            "/count", "number of lines", "{\"type\": [\"integer\", \"null\"], \"minimum\": 1, \"maximum\": 100}");

    @Override
    public List<String> asked() {
        return List.of("difference", "what makes the difference");
    }

    @Override
    public String name() {
        return "difference";
    }

    @Override
    public Class<Difference> type() {
        return Difference.class;
    }

    @Override
    public Class<DifferenceDrawing> drawing() {
        return DifferenceDrawing.class;
    }

    @Override
    public String sign() {
        return "M5 1v8M5 2.5h3.5M5 5H2.5M5 7.5h2";
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, MEASURE, COLUMNS, COUNT, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Difference.class);
    }

    @Override
    public String words(Difference difference) {
        return phrase("what makes the difference");
    }

    @Override
    public Set<Long> datasets(Difference difference) {
        return Set.of(difference.dataset());
    }

    // --- picks -----------------------------------------------------------------------------------------

    /** What a pick of a value takes. */
    static String key(String column, String value) {
        return value == null ? null : column + BETWEEN + value;
    }

    @Override
    public Optional<Source> picks(Difference difference) {
        return difference.columns().isEmpty()
                ? Optional.empty()
                : Optional.of(
                        new Source(difference.dataset(), difference.columns().get(0)));
    }

    /** The column of what is picked; of several columns that of the first. */
    private static Optional<String> column(Difference difference, List<String> keys) {
        return keys.stream()
                .findFirst()
                .flatMap(key -> difference.columns().stream()
                        .filter(column -> key.startsWith(column + BETWEEN))
                        .max((a, b) -> Integer.compare(a.length(), b.length())));
    }

    private static List<String> values(String column, List<String> keys) {
        return keys.stream()
                .filter(key -> key.startsWith(column + BETWEEN))
                .map(key -> key.substring(column.length() + BETWEEN.length()))
                .toList();
    }

    @Override
    public Picked picked(Difference difference, Value.Pick pick, Scene scene) {
        List<String> keys = pick instanceof Value.Values of ? of.values() : List.of();
        return column(difference, keys)
                .<Picked>map(column -> new Picked.In(column, values(column, keys)))
                .orElse(Picked.values(List.of()));
    }

    @Override
    public Known known(Difference difference, List<String> keys, Datasets datasets) {
        Optional<String> column = column(difference, keys);
        if (column.isEmpty()) return new Known(List.of(), "");
        Known known = Known.of(
                Optional.of(new Source(difference.dataset(), column.get())), values(column.get(), keys), datasets);
        return new Known(
                known.values().stream().map(value -> key(column.get(), value)).toList(), known.where());
    }

    @Override
    public String label(Difference difference, String key, Datasets datasets) {
        Optional<String> column = column(difference, List.of(key));
        if (column.isEmpty()) return key;
        String value = values(column.get(), List.of(key)).get(0);
        return phrase(
                "column, value|{0}: {1}",
                ColumnWords.of(column.get()),
                datasets.ready(difference.dataset())
                        .map(d -> d.label(column.get(), value))
                        .orElse(value));
    }

    // --- drawing ---------------------------------------------------------------------------------------

    @Override
    public Plan plan(Difference difference, Scene scene) {
        return new DifferenceDrawer(difference, scene).plan();
    }

    // --- its sentence ----------------------------------------------------------------------------------

    private static boolean suits(LoadedDataset dataset, Measure measure) {
        boolean isAverage = measure.over() == null && measure.summary() == Summary.AVERAGE;
        return isAverage || dataset.addsUp(measure) || dataset.rate(measure).isPresent();
    }

    @Override
    public void brief(Difference difference, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(difference.dataset());
        line.say("The difference of ");
        line.choose(
                MEASURE,
                ColumnWords.of(difference.measure()),
                choices.measures(dataset, measure -> suits(dataset, measure)));
        line.say(" between what is picked and the rest of " + dataset.name() + ", by ");
        line.slot(
                COLUMNS,
                String.join(
                        ", ", difference.columns().stream().map(ColumnWords::of).toList()),
                Brief.Kind.SET,
                false,
                false,
                Choices.categories(dataset));
        line.say("; ");
        line.slot(
                COUNT,
                difference.count() == null ? "the twelve that do most" : "the " + difference.count() + " that do most",
                Brief.Kind.NUMBER,
                false,
                difference.count() != null,
                List.of());
        Choices.rule(line, difference.rule(), dataset);
        line.say(".");
    }

    /** Columns of few enough values that each is a group. */
    private static List<String> columns(LoadedDataset dataset) {
        List<String> columns = new ArrayList<>();
        for (String column : Telling.categories(dataset))
            if (columns.size() < MOST_COLUMNS
                    && !column.startsWith("@")
                    && Telling.distinct(dataset, column) <= MOST_VALUES) columns.add(column);
        return columns;
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.TOGETHER) return List.of();
        List<String> columns = columns(dataset);
        if (columns.size() < 2) return List.of();
        Measure measure = Telling.measures(dataset).stream()
                .filter(m -> suits(dataset, m))
                .findFirst()
                .orElse(Measure.ROWS);
        return List.of(new Proposal(
                "What makes the difference in " + ColumnWords.of(measure) + ", where something is picked",
                new Difference(null, null, "", dataset.id(), measure, columns, null, null),
                10,
                10));
    }

    @Override
    public Ingredients ingredients(Difference difference) {
        return new Ingredients(
                difference.dataset(),
                difference.columns(),
                List.of(difference.measure()),
                null,
                difference.rule(),
                null,
                null);
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        List<String> columns = columns(dataset);
        Optional<Measure> measure = from.measuresOrRows().stream()
                .map(Measure::plain)
                .filter(m -> suits(dataset, m))
                .findFirst();
        if (columns.isEmpty() || measure.isEmpty()) return Optional.empty();
        return Optional.of(new Become(
                new Difference(page, at, title, dataset.id(), measure.get(), columns, null, from.rule()),
                from.left(null, measure.get(), false)));
    }
}
