package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.Stage;
import sarnik.table.Column;
import sarnik.table.Table;
import sarnik.visual.Asked;
import sarnik.visual.Plan;
import sarnik.visual.Scene;
import sarnik.visual.Sight;

/** A layer with the rows it shows, ready to be asked. */
final class LayerRows {

    private static final char BETWEEN = '\u0000';
    private static final int MOST_ROWS = 200_000;

    final String id;
    final Layer layer;
    final Sight sight;
    /** Sentences about what is not as one would expect, known before anything is asked. */
    final List<String> notes = new ArrayList<>();

    private final Scene scene;
    private final Plan plan;
    private final List<Stage> shown;
    private final List<Stage> whole;
    private LoadedDataset dataset;

    /**
     * @param layer the layer as the reader has set it
     * @param plan takes what is asked
     */
    LayerRows(String id, Layer layer, Scene scene, Plan plan) {
        this.id = id;
        this.layer = layer;
        this.scene = scene;
        this.plan = plan;
        this.sight = scene.sight();
        this.dataset = scene.dataset(layer.dataset());
        this.shown = Layer.Period.kept(scene.shown(dataset, layer.rule()), layer.period());
        this.whole = Layer.Period.kept(scene.scaled(dataset, layer.rule()), layer.period());
    }

    LoadedDataset dataset() {
        return dataset;
    }

    /** A group for each combination of values of these columns; rows that lack one are left out. */
    Asked ask(List<String> by, List<Measure> measures) {
        return ask(shown, by, measures);
    }

    /**
     * The same of what a scale rests on: of the whole, so that a pick never changes what is left, or of what is shown
     * where the author said so.
     */
    Asked domain(List<String> by, List<Measure> measures, String domain) {
        boolean held = !"shown".equals(domain);
        Optional<GroupKey.Step> steps = held ? scene.steps(dataset) : Optional.empty();
        if (steps.isEmpty()) return ask(held ? whole : shown, by, measures);
        // While time is played, the scale is held over what each step shows.
        for (String column : by) dataset = dataset.with(column);
        List<GroupKey> keys = new ArrayList<>(GroupKey.of(by));
        keys.add(steps.get());
        return plan.ask(dataset, Query.by(whole, keys, measures).filled());
    }

    private Asked ask(List<Stage> stages, List<String> by, List<Measure> measures) {
        for (String column : by) dataset = dataset.with(column);
        return plan.ask(dataset, Query.of(stages, by, measures).filled());
    }

    /** A measure as a rate, both of whose sums can be asked from here on; empty where it is none. */
    Optional<LoadedDataset.Rate> rate(Measure measure) {
        Optional<LoadedDataset.Rate> rate = dataset.rate(measure);
        rate.ifPresent(r -> dataset = r.dataset());
        return rate;
    }

    /** Counts of the values of a column in each group, for {@link #commonest}. */
    Asked counts(List<String> by, String column) {
        List<String> columns = new ArrayList<>(by);
        columns.add(column);
        return ask(columns, List.of(Measure.ROWS));
    }

    /** The commonest value in each group; a group's keys are joined by {@link #key}. */
    static Map<String, String> commonest(Frame counts) {
        int by = counts.keys().size() - 1;
        Map<String, String> best = new HashMap<>();
        Map<String, Double> most = new HashMap<>();
        for (int g = 0; g < counts.size(); g++) {
            String key = key(counts, g, by);
            if (counts.value(0, g) <= most.getOrDefault(key, 0.0)) continue;
            most.put(key, counts.value(0, g));
            best.put(key, counts.key(by, g));
        }
        return best;
    }

    /** The value in each group that comes last in an order; one that is not in it comes before all. */
    static Map<String, String> last(Frame counts, List<String> order) {
        int by = counts.keys().size() - 1;
        Map<String, String> last = new HashMap<>();
        for (int g = 0; g < counts.size(); g++) {
            String value = counts.key(by, g);
            if (value != null)
                last.merge(
                        key(counts, g, by),
                        value,
                        (known, other) -> order.indexOf(other) > order.indexOf(known) ? other : known);
        }
        return last;
    }

    /** The keys of a group as one text. */
    static String key(Frame frame, int group, int columns) {
        if (columns == 1) return frame.key(0, group);
        StringBuilder key = new StringBuilder();
        for (int c = 0; c < columns; c++) key.append(frame.key(c, group)).append(BETWEEN);
        return key.toString();
    }

    /** The places of a column; they are told to the browser with the drawing. */
    PlaceSheet sheet(String column) {
        dataset = dataset.with(column);
        PlaceSheet sheet = dataset.sheet(column);
        scene.names(sheet);
        return sheet;
    }

    LayerDrawn.Head head(List<String> said) {
        return new LayerDrawn.Head(
                id, name(), layer.startsHidden(), layer.opacity(), layer.borderOrUsual(), List.copyOf(said));
    }

    private String name() {
        if (layer.name() != null && !layer.name().isBlank()) return layer.name();
        return nameOf(layer, dataset);
    }

    /** A name made of what a layer shows. */
    static String nameOf(Layer layer, LoadedDataset dataset) {
        Measure shown = !layer.isOfShapes() && layer.size() != null
                ? layer.size().measure()
                : layer.colour() == null ? null : layer.colour().measure();
        String what = shown == null
                ? dataset.name()
                : phrase("measure, dataset|{0} of {1}", ColumnWords.of(shown), dataset.name());
        return layer.kind().room().name(what, dataset);
    }

    // --- asked at once, for one place or for handing out ---------------------------------------------

    /** An answer at once. */
    Frame now(QueryEngine engine, List<String> by, List<Measure> measures) {
        return now(engine, shown, by, measures);
    }

    /** An answer at once about the rows of one place only. */
    Frame ofPlace(QueryEngine engine, String column, String place, List<String> by, List<Measure> measures) {
        dataset = dataset.with(column);
        List<Stage> more = new ArrayList<>(shown);
        more.add(PlaceTeller.only(column, place));
        return now(engine, more, by, measures);
    }

    private Frame now(QueryEngine engine, List<Stage> stages, List<String> by, List<Measure> measures) {
        for (String column : by) dataset = dataset.with(column);
        return dataset.answer(engine, Query.of(stages, by, measures).filled());
    }

    /**
     * The rows themselves that lie within an extent.
     *
     * @param all whether with all columns that people know, else with those that the layer shows or tells
     * @throws MisfitException when there are more than can be handed out at once
     */
    Rows within(QueryEngine engine, Sight extent, boolean all) {
        Table table = dataset.table();
        List<String> inSight = dataset.places().values().stream()
                .filter(place -> extent.holds(place.lon(), place.lat()))
                .map(Place::id)
                .toList();
        List<Stage> stages = new ArrayList<>(shown);
        stages.add(new Stage("", List.of(new Condition.OneOf(PlacedTable.PLACE, inSight))));
        Set<String> given = layer.columns();
        List<String> names = table.names().stream()
                .filter(n -> !n.startsWith("@") && (all || given.contains(n)))
                .toList();
        List<String> taken = new ArrayList<>(names);
        taken.add(PlacedTable.PLACE);
        QueryEngine.Taken rows = engine.taken(table, stages, taken, MOST_ROWS);
        if (rows.rows() == null)
            throw new MisfitException(phrase(
                    "{0} rows are in sight, and at most {1} are handed out at once. Narrow first, or take all rows from the dataset’s page.",
                    rows.all(), MOST_ROWS));
        Column places = rows.rows().column(PlacedTable.PLACE);
        return new Rows(rows.rows().only(names), i -> {
            Place place = dataset.places().get(places.text(i));
            return new double[] {place.lon(), place.lat()};
        });
    }

    /**
     * Rows to hand out.
     *
     * @param table the rows
     * @param position longitude and latitude of each, degrees
     */
    record Rows(Table table, IntFunction<double[]> position) {}
}
