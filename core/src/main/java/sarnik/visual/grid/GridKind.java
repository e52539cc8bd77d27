package sarnik.visual.grid;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.LongStream;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Telling;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.TimeStep;
import sarnik.scale.Classes;
import sarnik.scale.Palette;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.visual.Asked;
import sarnik.visual.Box;
import sarnik.visual.Clock;
import sarnik.visual.Colour;
import sarnik.visual.Colouring;
import sarnik.visual.Ingredients;
import sarnik.visual.Known;
import sarnik.visual.Picked;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scales;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.StepWords;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;
import sarnik.visual.Written;

/** The kind of visual that crosses two things: hours and weekdays, months and products. A press on a row picks it. */
public final class GridKind implements VisualKind<Grid> {

    /** More rows or columns than this are too small to be read; the rest is said. */
    static final int MOST_ROWS = 60;

    static final int MOST_COLUMNS = 120;

    private static final String EDGE =
            "{\"type\": \"object\", \"additionalProperties\": false, \"required\": [\"column\"], "
                    + "\"properties\": {\"column\": {\"$ref\": \"#/$defs/column\"}, \"step\": {\"enum\": "
                    + "[\"MINUTE\", \"HOUR\", \"DAY\", "
                    + "\"WEEK\", \"MONTH\", \"QUARTER\", \"YEAR\", \"HOUR_OF_DAY\", \"WEEKDAY\", "
                    + "\"MONTH_OF_YEAR\", null]}, "
                    + "\"zone\": {\"type\": [\"string\", \"null\"], \"maxLength\": 60}}}";
    private static final Slot ACROSS = Slot.at("/across", "columns", EDGE).needed();
    private static final Slot DOWN = Slot.at("/down", "rows", EDGE).needed();
    private static final Slot CLASSES = Slot.within("/colour/classes", "number of classes");
    private static final Slot METHOD = Slot.within("/colour/method", "kind of classes");
    private static final Slot PALETTE = Slot.within("/colour/palette", "palette");
    private static final Slot DOMAIN = Slot.within("/colour/domain", "what the scale is cut from");

    @Override
    public List<String> asked() {
        return List.of("grid", "calendar");
    }

    @Override
    public String name() {
        return "grid";
    }

    @Override
    public Class<Grid> type() {
        return Grid.class;
    }

    @Override
    public Class<GridDrawing> drawing() {
        return GridDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 1h8v8h-8zM1 5h8M5 1v8";
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, ACROSS, DOWN, Slots.MEASURE, Slots.COLOUR, Slots.FORMAT, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Grid.class, Grid.Edge.class);
    }

    @Override
    public String words(Grid grid) {
        return phrase("the grid of {0} and {1}", words(grid.down()), words(grid.across()));
    }

    private static String words(Grid.Edge edge) {
        return edge.step() == null ? ColumnWords.of(edge.column()) : edge.step().said();
    }

    @Override
    public Set<Long> datasets(Grid grid) {
        return Set.of(grid.dataset());
    }

    // --- picks: rows of the grid ----------------------------------------------------------------------

    @Override
    public Optional<Source> picks(Grid grid) {
        return Optional.of(new Source(grid.dataset(), grid.down().column()));
    }

    @Override
    public Picked picked(Grid grid, Value.Pick pick, Scene scene) {
        if (grid.down().step() == null || !(pick instanceof Value.Values of))
            return VisualKind.super.picked(grid, pick, scene);
        return new Picked.InGroups(grid.down().step(), grid.zone(grid.down()), of.values());
    }

    @Override
    public Known known(Grid grid, List<String> values, Datasets datasets) {
        return grid.down().step() == null ? VisualKind.super.known(grid, values, datasets) : new Known(values, "");
    }

    @Override
    public String label(Grid grid, String value, Datasets datasets) {
        return grid.down().step() == null
                ? VisualKind.super.label(grid, value, datasets)
                : StepWords.of(grid.down().step(), value);
    }

    // --- drawing ----------------------------------------------------------------------------------------

    @Override
    public boolean hasKey(Grid visual) {
        return true;
    }

    @Override
    public Plan plan(Grid grid, Scene scene) {
        LoadedDataset dataset = scene.dataset(grid.dataset());
        for (Grid.Edge edge : List.of(grid.across(), grid.down())) check(dataset, edge);
        List<GroupKey> keys = List.of(grid.key(grid.down()), grid.key(grid.across()));
        List<Measure> measures = List.of(grid.measure());
        Plan plan = new Plan();
        List<String> said = new ArrayList<>();
        Colour colour = new Scales(scene::key, scene::number).worn(colour(grid), said);
        Asked shown = plan.ask(
                dataset,
                Query.by(scene.shown(dataset, grid.rule()), keys, measures).filled());
        Asked whole = "shown".equals(colour.domain())
                ? shown
                : plan.ask(
                        dataset,
                        Query.by(scene.scaled(dataset, grid.rule()), keys, measures)
                                .filled());
        return plan.drawn(answers -> draw(grid, dataset, answers.of(shown), answers.of(whole), colour, said));
    }

    private static Colour colour(Grid grid) {
        return grid.colour() == null ? Colour.by(grid.measure(), Classes.Method.NATURAL, 5, "loch") : grid.colour();
    }

    private static void check(LoadedDataset dataset, Grid.Edge edge) {
        Column column = dataset.table()
                .find(edge.column())
                .orElseThrow(() -> new MisfitException(phrase("There is no column “{0}” any more", edge.column())));
        if (edge.step() != null && !Choices.isTime(column))
            throw new MisfitException(phrase(
                    "“{0}” holds {1}, which have no {2}",
                    edge.column(), column.type().said(), edge.step().said()));
        if (edge.step() != null && edge.step().needsTime() && column.type() != ColumnType.TIME)
            throw new MisfitException(phrase(
                    "“{0}” holds days, which have no {1}",
                    edge.column(), edge.step().said()));
    }

    private static GridDrawing draw(
            Grid grid, LoadedDataset dataset, Frame frame, Frame whole, Colour colour, List<String> said) {
        List<String> notes = new ArrayList<>(said);
        List<String> down = heads(grid.down(), frame, 0, MOST_ROWS, notes);
        List<String> across = heads(grid.across(), frame, 1, MOST_COLUMNS, notes);
        Map<String, Integer> row = numbers(down);
        Map<String, Integer> column = numbers(across);
        double[] values = new double[down.size() * across.size()];
        Arrays.fill(values, Double.NaN);
        for (int g = 0; g < frame.size(); g++) {
            Integer r = row.get(frame.key(0, g));
            Integer c = column.get(frame.key(1, g));
            if (r != null && c != null) values[r * across.size() + c] = frame.value(0, g);
        }
        Written written = Written.of(dataset, grid.measure(), grid.format());
        Colouring colouring = Colouring.byMeasure(
                colour, values, whole.values().get(0), dataset.words(grid.measure()), dataset.read(grid.measure()));
        return new GridDrawing(
                Scene.titleOf(
                        grid,
                        phrase(
                                "{0} by {1} and {2}",
                                ColumnWords.of(grid.measure()), words(grid.down()), words(grid.across()))),
                ColumnWords.of(grid.measure()),
                across.stream().map(k -> head(grid.across(), dataset, k)).toList(),
                down.stream().map(k -> head(grid.down(), dataset, k)).toList(),
                colouring.classes(),
                Arrays.stream(values).mapToObj(written::full).toList(),
                colouring.key(),
                notes,
                Trail.of(frame.trail()));
    }

    private static Map<String, Integer> numbers(List<String> keys) {
        Map<String, Integer> numbers = new HashMap<>();
        for (int i = 0; i < keys.size(); i++) numbers.put(keys.get(i), i);
        return numbers;
    }

    private static GridDrawing.Head head(Grid.Edge edge, LoadedDataset dataset, String key) {
        return new GridDrawing.Head(
                key, edge.step() == null ? dataset.label(edge.column(), key) : StepWords.of(edge.step(), key));
    }

    /** The keys of one side: steps of time without holes, all else the most first. */
    private static List<String> heads(Grid.Edge edge, Frame frame, int key, int most, List<String> notes) {
        List<String> heads;
        if (edge.step() != null) {
            TimeStep step = edge.step();
            long[] numbers = Arrays.stream(frame.keys().get(key))
                    .mapToLong(step::number)
                    .sorted()
                    .distinct()
                    .toArray();
            if (numbers.length == 0) return List.of();
            long first = first(step, numbers[0]);
            long last = last(step, numbers[numbers.length - 1]);
            // The newest steps are kept where there are too many.
            heads = LongStream.rangeClosed(Math.max(first, last - most + 1), last)
                    .mapToObj(step::text)
                    .toList();
            long out = last - first + 1 - heads.size();
            if (out > 0)
                notes.add(phrase(
                        "{0, plural, one {# earlier step ({1}) is not shown.} other {# earlier steps ({1}) are not shown.}}",
                        out, step.said()));
            return heads;
        }
        Map<String, Double> sizes = new LinkedHashMap<>();
        for (int g = 0; g < frame.size(); g++)
            if (Double.isFinite(frame.value(0, g)))
                sizes.merge(frame.key(key, g), Math.abs(frame.value(0, g)), (a, b) -> a + b);
        heads = sizes.entrySet().stream()
                .sorted(Map.Entry.<String, Double>comparingByValue(Comparator.reverseOrder())
                        .thenComparing(Map.Entry.comparingByKey()))
                .limit(most)
                .map(Map.Entry::getKey)
                .toList();
        if (heads.size() < sizes.size())
            notes.add(phrase(
                    "{0} more of {1} are not shown.", sizes.size() - heads.size(), ColumnWords.of(edge.column())));
        return heads;
    }

    /** What comes again is shown whole. */
    private static long first(TimeStep step, long least) {
        return step.comesAgain() ? 0 : least;
    }

    private static long last(TimeStep step, long most) {
        return switch (step) {
            case HOUR_OF_DAY -> 23;
            case WEEKDAY -> 6;
            case MONTH_OF_YEAR -> 11;
            default -> most;
        };
    }

    // --- its sentence ----------------------------------------------------------------------------------

    @Override
    public void brief(Grid grid, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(grid.dataset());
        line.say("A grid of ");
        line.choose(Slots.MEASURE, ColumnWords.of(grid.measure()), choices.measures(dataset));
        Slots.percentile(line, "/measure", grid.measure());
        line.say(" in " + dataset.name() + ": a row for each ");
        line.choose(DOWN, edgeWords(grid.down()), edges(dataset));
        line.say(", a column for each ");
        line.choose(ACROSS, edgeWords(grid.across()), edges(dataset));
        if (grid.down().isOfTime())
            Clock.write(
                    line,
                    "/down/zone",
                    grid.zone(grid.down()),
                    dataset,
                    grid.down().column());
        if (grid.across().isOfTime()
                && !grid.across().column().equals(grid.down().column()))
            Clock.write(
                    line,
                    "/across/zone",
                    grid.across().zone(),
                    dataset,
                    grid.across().column());
        line.say(", coloured in ");
        Colour colour = colour(grid);
        if (grid.colour() == null) {
            line.may(
                    Slots.COLOUR,
                    "five natural classes",
                    true,
                    List.of(new Option("a scale that can be changed", "classes, palette, ends", colour)));
        } else {
            List<Option> counts = new ArrayList<>();
            for (int n = 2; n <= 9; n++) counts.add(new Option(Choices.count(n), "", n));
            line.choose(CLASSES, Choices.count(colour.choice().classes()), counts);
            line.say(" ");
            line.choose(
                    METHOD,
                    colour.choice().method().words(),
                    Arrays.stream(Classes.Method.values())
                            .map(m -> new Option(m.words(), "", m.name()))
                            .toList());
            line.say(" classes, ");
            boolean held = !"shown".equals(colour.domain());
            line.choose(
                    DOMAIN,
                    held ? "held on the whole" : "of what is shown",
                    List.of(
                            new Option("held on the whole", "a pick leaves the colours as they are", "held"),
                            new Option("of what is shown", "a pick cuts the scale anew", "shown")));
            looks.say(" · palette ");
            looks.choose(
                    PALETTE,
                    colour.choice().palette(),
                    Palette.names(Palette.Kind.SEQUENTIAL).stream()
                            .map(n -> new Option(
                                    n, String.join(" ", Palette.ALL.get(n).colours(6)), n))
                            .toList());
        }
        Choices.rule(line, grid.rule(), dataset);
        line.say(".");
        Slots.format(looks, grid.format());
    }

    private static String edgeWords(Grid.Edge edge) {
        return edge.step() == null
                ? ColumnWords.of(edge.column())
                : edge.step().words() + " of " + ColumnWords.of(edge.column());
    }

    private static List<Option> edges(LoadedDataset dataset) {
        List<Option> options = new ArrayList<>();
        for (String name : dataset.columnNames()) {
            Column column = dataset.table().column(name);
            if (column instanceof CodedColumn)
                options.add(new Option(ColumnWords.of(name), Choices.preview(column), new Grid.Edge(name, null, null)));
            if (!Choices.isTime(column)) continue;
            for (TimeStep step : TimeStep.values()) {
                if (step == TimeStep.MINUTE || step.needsTime() && column.type() != ColumnType.TIME) continue;
                options.add(
                        new Option(step.words() + " of " + ColumnWords.of(name), "", new Grid.Edge(name, step, null)));
            }
        }
        return options;
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.TOGETHER && question != Question.CHANGED) return List.of();
        Optional<String> time = Telling.time(dataset);
        if (time.isEmpty()) return List.of();
        Measure measure = Telling.measures(dataset).stream().findFirst().orElse(Measure.ROWS);
        boolean hours = dataset.table().column(time.get()).type() == ColumnType.TIME;
        List<Proposal> proposals = new ArrayList<>();
        if (question == Question.CHANGED) {
            proposals.add(new Proposal(
                    hours ? "When in the week? Hours and weekdays" : "When in the year? Months and weekdays",
                    of(
                            dataset,
                            new Grid.Edge(time.get(), hours ? TimeStep.HOUR_OF_DAY : TimeStep.MONTH_OF_YEAR, null),
                            new Grid.Edge(time.get(), TimeStep.WEEKDAY, null),
                            measure),
                    14,
                    8));
        } else {
            Telling.categories(dataset).stream()
                    .filter(c -> Telling.distinct(dataset, c) <= 30 && !c.startsWith("@"))
                    .limit(2)
                    .forEach(c -> proposals.add(new Proposal(
                            "How do months and " + ColumnWords.of(c) + " go together?",
                            of(
                                    dataset,
                                    new Grid.Edge(time.get(), TimeStep.MONTH, null),
                                    new Grid.Edge(c, null, null),
                                    measure),
                            14,
                            8)));
        }
        return proposals;
    }

    private static Grid of(LoadedDataset dataset, Grid.Edge across, Grid.Edge down, Measure measure) {
        return new Grid(null, null, "", dataset.id(), across, down, measure, null, null, null);
    }

    @Override
    public Ingredients ingredients(Grid grid) {
        List<String> categories = new ArrayList<>();
        String time = null;
        for (Grid.Edge edge : List.of(grid.down(), grid.across())) {
            if (edge.step() == null) categories.add(edge.column());
            else time = edge.column();
        }
        return new Ingredients(
                grid.dataset(), categories, List.of(grid.measure()), time, grid.rule(), null, grid.colour());
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        Optional<String> time = Optional.ofNullable(from.time()).or(() -> Telling.time(dataset));
        List<Grid.Edge> edges = new ArrayList<>();
        from.categories().stream().limit(2).forEach(c -> edges.add(new Grid.Edge(c, null, null)));
        if (edges.size() < 2 && time.isPresent()) edges.add(new Grid.Edge(time.get(), TimeStep.MONTH, null));
        if (edges.size() < 2 && time.isPresent()) edges.add(0, new Grid.Edge(time.get(), TimeStep.WEEKDAY, null));
        if (edges.size() < 2) return Optional.empty();
        Measure measure = from.measuresOrRows().get(0).plain();
        return Optional.of(new Become(
                new Grid(page, at, title, dataset.id(), edges.get(1), edges.get(0), measure, null, null, from.rule()),
                from.left(edges.get(0).column(), measure, true)));
    }
}
