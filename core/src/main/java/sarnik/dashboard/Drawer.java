package sarnik.dashboard;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import sarnik.dashboard.Drawing.Bar;
import sarnik.dashboard.Drawing.Trail;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.query.Rank;
import sarnik.query.RowTrail;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.scale.ValueWords;

/** Works out the figures that the visuals of a dashboard draw, for one reader state. */
public final class Drawer {

    /** Without a rank at most this many bars are drawn; how many more there are is said. */
    public static final int MOST_BARS = 60;

    /** What a bar of the earliest date has of the span of all. */
    private static final double BEFORE_THE_FIRST = 0.05;

    private static final Pattern ADDED =
            Pattern.compile("@(?:area [^,]+?(?: from)?|cell \\d+|provinces from|\\w+)(?=,| and |$)");

    private final Dashboard dashboard;
    private final Sources sources;
    private final Datasets datasets;
    private final QueryEngine engine;
    private final ReaderState state;
    private final Narrowing narrowing;
    private final Map<String, Sight> sights;
    private final ConcurrentMap<String, PlaceSheet> sheets = new ConcurrentHashMap<>();

    /**
     * @param sights what is in sight on maps, by visual; a map that is not among them is seen as a whole
     */
    public Drawer(
            Dashboard dashboard, ReaderState state, Sources sources, QueryEngine engine, Map<String, Sight> sights) {
        this.dashboard = dashboard;
        this.sources = sources;
        this.datasets = sources.datasets();
        this.engine = engine;
        this.state = state;
        this.sights = sights;
        this.narrowing = new Narrowing(dashboard, state, datasets);
    }

    public Drawer(Dashboard dashboard, ReaderState state, Datasets datasets, QueryEngine engine) {
        this(dashboard, state, new Sources(datasets), engine, Map.of());
    }

    /** The places that the drawings made so far name, by tag. */
    public Map<String, PlaceSheet> sheets() {
        return Map.copyOf(sheets);
    }

    /**
     * Draws a visual.
     *
     * @return a {@link Drawing.Misfit} where the visual no longer fits its data; never fails for that reason
     */
    public Drawing draw(String id) {
        Visual visual = dashboard.visuals().get(id);
        if (visual == null) return new Drawing.Misfit("", "This visual has been taken away from the dashboard.");
        try {
            if (visual instanceof Visual.OfMap map) return map(id, map);
            if (visual instanceof Visual.OfBars bars) return bars(id, bars);
            return figure(id, (Visual.OfFigure) visual);
        } catch (MisfitException | QueryException misfit) {
            return new Drawing.Misfit(visual.title(), sentence(misfit.getMessage()));
        }
    }

    private static String sentence(String message) {
        return message.endsWith(".") ? message : message + ". Choose what fits in the visual's brief.";
    }

    private List<Stage> stages(
            String id, Visual visual, LoadedDataset dataset, Dashboard.Rule rule, boolean withLinks) {
        List<Stage> stages = new ArrayList<>(dataset.rules());
        stages.addAll(narrowing.filterStages(visual, dataset));
        if (withLinks) stages.addAll(narrowing.linkStages(id, dataset));
        stages.addAll(Narrowing.ruleStages(rule));
        return stages;
    }

    private Drawing figure(String id, Visual.OfFigure visual) {
        LoadedDataset dataset = datasets.get(visual.dataset());
        Frame frame = dataset.answer(
                engine,
                Query.of(stages(id, visual, dataset, visual.rule(), true), List.of(), List.of(visual.measure())));
        double value = frame.value(0, 0);
        ValueWords read = dataset.read(visual.measure());
        return new Drawing.OfFigure(
                titleOf(visual, ColumnWords.of(visual.measure())),
                ColumnWords.of(visual.measure()),
                read.brief(value),
                read.full(value),
                Trail.of(frame.trail()));
    }

    private Drawing bars(String id, Visual.OfBars visual) {
        LoadedDataset dataset = datasets.get(visual.dataset());
        Dashboard.Ranking ranking = visual.rank();
        Optional<Rank> rank = Optional.ofNullable(ranking).map(r -> new Rank(0, r.end(), r.count(), false));
        List<Stage> stages = stages(id, visual, dataset, visual.rule(), true);
        if (ranking != null && ranking.held()) {
            Frame whole =
                    dataset.answer(engine, barsQuery(visual, stages(id, visual, dataset, visual.rule(), false), rank));
            stages.add(new Stage(
                    "Only the %s %d of all, before picks".formatted(end(ranking.end()), ranking.count()),
                    List.of(new Condition.OneOf(
                            visual.category(),
                            IntStream.range(0, whole.size())
                                    .mapToObj(g -> whole.key(0, g))
                                    .toList()))));
            rank = Optional.empty();
        }
        Frame frame = dataset.answer(engine, barsQuery(visual, stages, rank));
        int shown = Math.min(frame.size(), MOST_BARS);
        double[] values = frame.values().get(0);
        ValueWords read = dataset.read(visual.measure());
        double least = IntStream.range(0, shown)
                .mapToDouble(g -> values[g])
                .filter(Double::isFinite)
                .min()
                .orElse(0);
        double most = IntStream.range(0, shown)
                .mapToDouble(g -> values[g])
                .filter(Double::isFinite)
                .max()
                .orElse(0);
        // Dates have no zero to start at: their bars start a little before the first.
        double low = read.isAmount() ? Math.min(0, least) : least - (most - least) * BEFORE_THE_FIRST;
        double high = read.isAmount() ? Math.max(0, most) : most;
        double span = high - low == 0 ? 1 : high - low;
        List<Bar> bars = new ArrayList<>();
        for (int g = 0; g < shown; g++) {
            double value = !Double.isNaN(values[g]) ? values[g] : read.isAmount() ? 0 : low;
            double from = read.isAmount() ? Math.min(0, value) : low;
            bars.add(new Bar(
                    frame.key(0, g),
                    dataset.label(visual.category(), frame.key(0, g)),
                    (from - low) / span,
                    (Math.max(read.isAmount() ? 0 : low, value) - low) / span,
                    read.brief(values[g]),
                    read.full(values[g])));
        }
        String words = ColumnWords.of(visual.measure());
        return new Drawing.OfBars(
                titleOf(visual, words + " by " + ColumnWords.of(visual.category())),
                words,
                bars,
                frame.size() - shown,
                Trail.of(named(frame.trail())));
    }

    private static Query barsQuery(Visual.OfBars visual, List<Stage> stages, Optional<Rank> rank) {
        boolean ascending = visual.rank() != null && visual.rank().end() == Rank.End.BOTTOM;
        // A missing value is no rival in a rank; without a rank it has a bar of its own.
        Query.Missing missing = visual.rank() == null ? Query.Missing.KEPT : Query.Missing.LEFT_OUT;
        return new Query(
                stages,
                List.of(visual.category()),
                missing,
                List.of(visual.measure()),
                rank,
                new Sort(0, !ascending),
                Integer.MAX_VALUE);
    }

    static String end(Rank.End end) {
        return end == Rank.End.TOP ? "top" : "bottom";
    }

    /** Column names that placing adds are put in words. */
    static RowTrail named(RowTrail trail) {
        return new RowTrail(trail.steps().stream()
                .map(s -> new RowTrail.Step(
                        ADDED.matcher(s.words()).replaceAll(m -> Matcher.quoteReplacement(ColumnWords.of(m.group()))),
                        s.left(),
                        s.unit()))
                .toList());
    }

    private Drawing map(String id, Visual.OfMap visual) {
        return mapDrawer(id, visual).draw(id, visual, fallback -> titleOf(visual, fallback));
    }

    /**
     * What is told of a place on a layer of a map.
     *
     * @throws MisfitException when the map or the layer has gone or no longer fits its data
     */
    public PlaceTeller.Told tell(String id, String layer, String place) {
        return PlaceTeller.tell(rows(id, layer), place);
    }

    /**
     * Places of a layer within a distance of one of them, nearest first, itself among them.
     *
     * @param metres along the ground
     * @throws MisfitException as {@link #tell}
     */
    public List<PlaceTeller.Found> near(String id, String layer, String place, double metres) {
        return PlaceTeller.near(rows(id, layer), place, metres);
    }

    /**
     * The places of a layer that are most like one of them in all that the layer shows and tells, itself first.
     *
     * @param count how many besides itself
     * @throws MisfitException as {@link #tell}
     */
    public List<PlaceTeller.Found> alike(String id, String layer, String place, int count) {
        return PlaceTeller.alike(rows(id, layer), place, count);
    }

    /**
     * The rows of a layer that lie within an extent.
     *
     * @param whole whether with all columns that people know, else with those that the layer shows or tells, unless
     *     the map
     *     hands out all
     * @throws MisfitException as {@link #tell}, and when there are more than can be handed out at once
     */
    public LayerRows.Rows rowsWithin(String id, String layer, Sight extent, boolean whole) {
        LayerRows rows = rows(id, layer);
        return rows.within(extent, whole || ((Visual.OfMap) dashboard.visuals().get(id)).handsOutAll());
    }

    private LayerRows rows(String id, String layer) {
        if (!(dashboard.visuals().get(id) instanceof Visual.OfMap map))
            throw new MisfitException("This map has been taken away from the dashboard.");
        return mapDrawer(id, map).rows(id, map, layer);
    }

    /**
     * The shapes that the rows of a layer of a map brought along.
     *
     * @throws MisfitException when the map or the layer has gone, or its rows brought none
     */
    public OwnShapes ownShapes(String id, String layer) {
        LayerRows rows = rows(id, layer);
        if (rows.layer.kind() != Layer.Kind.SHAPES)
            throw new MisfitException("This layer does not show the shapes of its rows.");
        return rows.dataset()
                .ownShapes()
                .orElseThrow(() ->
                        new MisfitException("The rows of “" + rows.dataset().name() + "” brought no shapes along."));
    }

    private MapDrawer mapDrawer(String id, Visual.OfMap visual) {
        MapDrawer.StagesOf stages = (layer, dataset) -> {
            List<Stage> all = stages(id, visual, dataset, layer.rule(), true);
            all.addAll(MapDrawer.periodStages(layer.period()));
            return all;
        };
        Scales scales = new Scales(sources.keys(), parameter -> state.number(dashboard, parameter));
        return new MapDrawer(datasets, scales, state, engine, sights.get(id), sheets, stages);
    }

    private static String titleOf(Visual visual, String fallback) {
        String title = visual.title();
        if (title != null && !title.isBlank()) return title;
        return fallback.substring(0, 1).toUpperCase(Locale.ROOT) + fallback.substring(1);
    }
}
