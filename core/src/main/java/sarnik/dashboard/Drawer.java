package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import sarnik.dashboard.Drawing.Bar;
import sarnik.dashboard.Drawing.Circle;
import sarnik.dashboard.Drawing.Key;
import sarnik.dashboard.Drawing.Swatch;
import sarnik.dashboard.Drawing.SymbolsDrawn;
import sarnik.dashboard.Drawing.Trail;
import sarnik.place.Gazetteer;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.query.Rank;
import sarnik.query.RowTrail;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.scale.CircleSizes;
import sarnik.scale.Classes;
import sarnik.scale.NumberWords;
import sarnik.scale.Palette;

/** Works out the figures that the visuals of a dashboard draw, for one reader state. */
public final class Drawer {

    /** Without a rank at most this many bars are drawn; how many more there are is said. */
    public static final int MOST_BARS = 60;

    private static final double ONE_SIZE = 6;

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final QueryEngine engine;
    private final Narrowing narrowing;

    public Drawer(Dashboard dashboard, ReaderState state, Datasets datasets, QueryEngine engine) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.engine = engine;
        this.narrowing = new Narrowing(dashboard, state, datasets);
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

    private List<Stage> stages(String id, Visual visual, LoadedDataset dataset, Dashboard.Rule rule, boolean withLinks) {
        List<Stage> stages = new ArrayList<>(dataset.rules());
        stages.addAll(narrowing.filterStages(visual, dataset));
        if (withLinks) stages.addAll(narrowing.linkStages(id, dataset));
        stages.addAll(Narrowing.ruleStages(rule));
        return stages;
    }

    private Drawing figure(String id, Visual.OfFigure visual) {
        LoadedDataset dataset = datasets.get(visual.dataset());
        Frame frame = dataset.answer(engine,
                Query.of(stages(id, visual, dataset, visual.rule(), true), List.of(), List.of(visual.measure())));
        double value = frame.value(0, 0);
        return new Drawing.OfFigure(titleOf(visual, ColumnWords.of(visual.measure())), ColumnWords.of(visual.measure()),
                NumberWords.brief(value), NumberWords.full(value), Trail.of(frame.trail()));
    }

    private Drawing bars(String id, Visual.OfBars visual) {
        LoadedDataset dataset = datasets.get(visual.dataset());
        Dashboard.Ranking ranking = visual.rank();
        Optional<Rank> rank = Optional.ofNullable(ranking).map(r -> new Rank(0, r.end(), r.count(), false));
        List<Stage> stages = stages(id, visual, dataset, visual.rule(), true);
        if (ranking != null && ranking.held()) {
            Frame whole = dataset.answer(engine,
                    barsQuery(visual, stages(id, visual, dataset, visual.rule(), false), rank));
            stages.add(new Stage("Only the %s %d of all, before picks".formatted(end(ranking.end()), ranking.count()),
                    List.of(new Condition.OneOf(visual.category(),
                            IntStream.range(0, whole.size()).mapToObj(g -> whole.key(0, g)).toList()))));
            rank = Optional.empty();
        }
        Frame frame = dataset.answer(engine, barsQuery(visual, stages, rank));
        int shown = Math.min(frame.size(), MOST_BARS);
        double[] values = frame.values().get(0);
        double low = Math.min(0, IntStream.range(0, shown).mapToDouble(g -> values[g]).filter(Double::isFinite).min().orElse(0));
        double high = Math.max(0, IntStream.range(0, shown).mapToDouble(g -> values[g]).filter(Double::isFinite).max().orElse(0));
        double span = high - low == 0 ? 1 : high - low;
        List<Bar> bars = new ArrayList<>();
        for (int g = 0; g < shown; g++) {
            double value = Double.isNaN(values[g]) ? 0 : values[g];
            bars.add(new Bar(frame.key(0, g), dataset.label(visual.category(), frame.key(0, g)),
                    (Math.min(0, value) - low) / span, (Math.max(0, value) - low) / span,
                    NumberWords.brief(values[g]), NumberWords.full(values[g])));
        }
        String words = ColumnWords.of(visual.measure());
        return new Drawing.OfBars(titleOf(visual, words + " by " + ColumnWords.of(visual.category())), words, bars,
                frame.size() - shown, Trail.of(named(frame.trail(), visual.category())));
    }

    private static Query barsQuery(Visual.OfBars visual, List<Stage> stages, Optional<Rank> rank) {
        boolean ascending = visual.rank() != null && visual.rank().end() == Rank.End.BOTTOM;
        // A missing value is no rival in a rank; without a rank it has a bar of its own.
        Query.Missing missing = visual.rank() == null ? Query.Missing.KEPT : Query.Missing.LEFT_OUT;
        return new Query(stages, List.of(visual.category()), missing, List.of(visual.measure()), rank,
                new Sort(0, !ascending), Integer.MAX_VALUE);
    }

    static String end(Rank.End end) {
        return end == Rank.End.TOP ? "top" : "bottom";
    }

    /** Column names that placing adds are put in words. */
    private static RowTrail named(RowTrail trail, String column) {
        return new RowTrail(trail.steps().stream()
                .map(s -> new RowTrail.Step(s.words().replace(column, ColumnWords.of(column)), s.left(), s.unit()))
                .toList());
    }

    private Drawing map(String id, Visual.OfMap visual) {
        List<SymbolsDrawn> layers = new ArrayList<>();
        Trail trail = null;
        for (Map.Entry<String, Visual.Symbols> layer : visual.layers().entrySet().stream()
                .sorted(Map.Entry.comparingByValue(Comparator.comparingInt(Visual.Symbols::order)))
                .toList()) {
            LoadedDataset dataset = datasets.get(layer.getValue().dataset());
            if (!dataset.isPlaced()) {
                throw new MisfitException("The rows of “" + dataset.name()
                        + "” have no place. Say on the dataset's page how they are placed.");
            }
            Visual.Symbols symbols = layer.getValue();
            Frame frame = dataset.answer(engine, new Query(stages(id, visual, dataset, symbols.rule(), true),
                    List.of(PlacedTable.PLACE), Query.Missing.LEFT_OUT, measures(symbols), Optional.empty(), new Sort(0, true),
                    Integer.MAX_VALUE));
            layers.add(symbols(layer.getKey(), symbols, dataset, frame));
            trail = Trail.of(named(frame.trail(), PlacedTable.PLACE));
        }
        String fallback = layers.isEmpty() ? "An empty map" : mapTitle(visual);
        return new Drawing.OfMap(titleOf(visual, fallback), layers,
                trail == null ? new Trail(List.of(), "The map has no layer yet.") : trail);
    }

    private static String mapTitle(Visual.OfMap visual) {
        Visual.Symbols top = visual.layers().values().stream().max(Comparator.comparingInt(Visual.Symbols::order)).orElseThrow();
        return (top.size() == null ? "Places" : ColumnWords.of(top.size().measure())) + " by place";
    }

    private static List<Measure> measures(Visual.Symbols symbols) {
        return List.of(symbols.size() == null ? Measure.ROWS : symbols.size().measure(),
                symbols.colour() == null ? Measure.ROWS : symbols.colour().measure());
    }

    private SymbolsDrawn symbols(String id, Visual.Symbols layer, LoadedDataset dataset, Frame frame) {
        double[] sizes = frame.values().get(0);
        double[] tints = frame.values().get(1);
        double largest = 0;
        for (double size : sizes) if (Double.isFinite(size)) largest = Math.max(largest, Math.abs(size));
        CircleSizes circle = layer.size() == null
                ? null
                : new CircleSizes(layer.size().rule(), largest, layer.size().radius());
        Classes classes = layer.colour() == null ? null : Classes.of(layer.colour().method(), tints, layer.colour().classes());

        List<Integer> order = IntStream.range(0, frame.size())
                .filter(g -> dataset.places().containsKey(frame.key(0, g)))
                .boxed()
                .sorted(Comparator.comparingDouble(g -> Double.isNaN(sizes[g]) ? 0 : -Math.abs(sizes[g])))
                .toList();
        int n = order.size();
        List<String> ids = new ArrayList<>(n);
        List<String> names = new ArrayList<>(n);
        List<String> areas = new ArrayList<>(n);
        List<String> sizeTexts = new ArrayList<>(n);
        List<String> tintTexts = new ArrayList<>(n);
        double[] lon = new double[n];
        double[] lat = new double[n];
        double[] radii = new double[n];
        int[] classOf = new int[n];
        for (int i = 0; i < n; i++) {
            int g = order.get(i);
            Place place = dataset.places().get(frame.key(0, g));
            ids.add(place.id());
            names.add(place.name());
            areas.add(Gazetteer.shipped().provinceOf(place).map(Place::name).orElse(place.country()));
            lon[i] = place.lon();
            lat[i] = place.lat();
            radii[i] = circle == null ? ONE_SIZE : circle.radius(sizes[g]);
            classOf[i] = classes == null ? 0 : classes.classOf(tints[g]);
            sizeTexts.add(NumberWords.full(sizes[g]));
            tintTexts.add(classes == null ? "" : NumberWords.full(tints[g]));
        }
        return new SymbolsDrawn(id, ids, names, areas, lon, lat, radii, classOf, sizeTexts, tintTexts,
                key(layer, circle, classes, classOf), layer.opacity());
    }

    private static Key key(Visual.Symbols layer, CircleSizes circle, Classes classes, int[] classOf) {
        List<Circle> circles = new ArrayList<>();
        if (circle != null && circle.largest() > 0) {
            double top = NumberWords.roundDown(circle.largest());
            for (double part : new double[] {1, 0.25, 0.05}) {
                double amount = NumberWords.roundDown(top * part);
                circles.add(new Circle(circle.radius(amount), NumberWords.brief(amount)));
            }
        }
        List<Swatch> swatches = new ArrayList<>();
        int missing = 0;
        if (classes != null && !Double.isNaN(classes.low())) {
            List<String> colours = palette(layer.colour().palette()).colours(classes.count());
            int[] counts = new int[classes.count()];
            for (int c : classOf) if (c >= 0) counts[c]++;
            else missing++;
            for (int c = 0; c < counts.length; c++) {
                double from = c == 0 ? classes.low() : classes.breaks()[c - 1];
                double to = c == counts.length - 1 ? classes.high() : classes.breaks()[c];
                swatches.add(new Swatch(colours.get(c), from == to ? NumberWords.brief(from) : NumberWords.brief(from) + " – " + NumberWords.brief(to), counts[c]));
            }
        } else if (classes != null) {
            missing = classOf.length;
        }
        if (classes == null) swatches.add(new Swatch(palette("loch").colours(3).get(1), "", classOf.length));
        return new Key(circle == null ? null : ColumnWords.of(layer.size().measure()), circles,
                classes == null ? null : ColumnWords.of(layer.colour().measure()), swatches, missing);
    }

    private static Palette palette(String name) {
        return Palette.ALL.getOrDefault(name, Palette.ALL.get("loch"));
    }

    private static String titleOf(Visual visual, String fallback) {
        String title = visual.title();
        if (title != null && !title.isBlank()) return title;
        return fallback.substring(0, 1).toUpperCase(Locale.ROOT) + fallback.substring(1);
    }
}
