package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentMap;
import java.util.function.IntFunction;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.RowSelection;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.table.CodedColumn;
import sarnik.table.Table;

/** A layer with the rows it shows, ready to be asked. */
public final class LayerRows {

    private static final char BETWEEN = '\u0000';
    private static final int MOST_ROWS = 200_000;

    final String id;
    final Layer layer;
    final Sight sight;
    /** Sentences for the reader about what is not as one would expect. */
    final List<String> notes = new ArrayList<>();

    private LoadedDataset dataset;
    private final List<Stage> stages;
    private final QueryEngine engine;
    private final ConcurrentMap<String, PlaceSheet> sheets;
    private Frame last;

    LayerRows(
            String id,
            Layer layer,
            LoadedDataset dataset,
            List<Stage> stages,
            QueryEngine engine,
            Sight sight,
            ConcurrentMap<String, PlaceSheet> sheets) {
        this.id = id;
        this.layer = layer;
        this.dataset = dataset;
        this.stages = stages;
        this.engine = engine;
        this.sight = sight;
        this.sheets = sheets;
    }

    LoadedDataset dataset() {
        return dataset;
    }

    /** A group for each combination of values of these columns; rows that lack one are left out. */
    Frame ask(List<String> by, List<Measure> measures) {
        for (String column : by) dataset = dataset.with(column);
        last = dataset.answer(
                engine,
                new Query(
                        stages,
                        by,
                        Query.Missing.LEFT_OUT,
                        measures,
                        Optional.empty(),
                        Sort.BY_KEY,
                        Integer.MAX_VALUE));
        return last;
    }

    /** The answer given last. */
    Frame last() {
        return last;
    }

    /**
     * The rows themselves that lie within an extent.
     *
     * @param whole whether with all columns that people know, else with those that the layer shows or tells
     * @throws MisfitException when there are more than can be handed out at once
     */
    Rows within(Sight extent, boolean whole) {
        Table table = dataset.table();
        CodedColumn places = (CodedColumn) table.column(PlacedTable.PLACE);
        Place[] byCode = places.dictionary().stream().map(dataset.places()::get).toArray(Place[]::new);
        int[] rows = Arrays.stream(RowSelection.of(table, stages))
                .filter(row -> {
                    int code = places.codes().get(row);
                    return code >= 0 && byCode[code] != null && extent.holds(byCode[code].lon(), byCode[code].lat());
                })
                .toArray();
        if (rows.length > MOST_ROWS)
            throw new MisfitException(
                    ("%,d rows are in sight, and at most %,d are handed out at once. Narrow first, or take all "
                                    + "rows from the dataset's page.")
                            .formatted(rows.length, MOST_ROWS));
        Set<String> given = layer.columns();
        List<String> names = table.names().stream()
                .filter(n -> !n.startsWith("@") && (whole || given.contains(n)))
                .toList();
        return new Rows(table.only(names).pick(rows), i -> {
            Place place = byCode[places.codes().get(rows[i])];
            return new double[] {place.lon(), place.lat()};
        });
    }

    /**
     * Rows to hand out.
     *
     * @param table the rows
     * @param position longitude and latitude of each, degrees
     */
    public record Rows(Table table, IntFunction<double[]> position) {}

    /** The same rows, kept to those of one place. */
    LayerRows only(String column, String place) {
        List<Stage> more = new ArrayList<>(stages);
        more.add(PlaceTeller.only(column, place));
        return new LayerRows(id, layer, dataset.with(column), more, engine, sight, sheets);
    }

    /** Makes an answer given before the last one again. */
    void keep(Frame frame) {
        last = frame;
    }

    /** The commonest value of a column in each group; a group's keys are joined by {@link #key}. */
    Map<String, String> commonest(List<String> by, String column) {
        List<String> columns = new ArrayList<>(by);
        columns.add(column);
        Frame kept = last;
        Frame counts = ask(columns, List.of(Measure.ROWS));
        last = kept;
        Map<String, String> best = new HashMap<>();
        Map<String, Double> most = new HashMap<>();
        for (int g = 0; g < counts.size(); g++) {
            String key = key(counts, g, by.size());
            if (counts.value(0, g) <= most.getOrDefault(key, 0.0)) continue;
            most.put(key, counts.value(0, g));
            best.put(key, counts.key(by.size(), g));
        }
        return best;
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
        PlaceSheet sheet = dataset.sheet(column);
        sheets.putIfAbsent(sheet.tag(), sheet);
        return sheet;
    }

    LayerDrawn.Head head() {
        return new LayerDrawn.Head(
                id,
                name(),
                layer.startsHidden(),
                layer.opacity(),
                layer.border() == null ? 0.8 : layer.border(),
                List.copyOf(notes));
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
        String what = shown == null ? dataset.name() : ColumnWords.of(shown) + " of " + dataset.name();
        return switch (layer.kind()) {
            case SYMBOLS, SHAPES -> what;
            case AREAS -> what + " by area";
            case DENSITY -> "Density of " + dataset.name();
            case FLOWS -> "Flows of " + dataset.name();
            case PATHS -> "Paths of " + dataset.name();
        };
    }
}
