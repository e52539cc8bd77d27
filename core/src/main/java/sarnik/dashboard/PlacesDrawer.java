package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import sarnik.dashboard.Drawing.Circle;
import sarnik.dashboard.LayerDrawn.Key;
import sarnik.dashboard.LayerDrawn.ShapeSwatch;
import sarnik.geo.Area;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.scale.CircleSizes;
import sarnik.scale.NumberWords;

/** Draws layers that have one mark for each place: symbols and areas. */
final class PlacesDrawer {

    /**
     * Beyond this many places symbols are gathered whether or not that was asked for: more cannot be told apart or
     * drawn at once.
     */
    static final int MOST_APART = 50_000;

    /** Beyond this many labels none would find room. */
    private static final int MOST_LABELS = 4_000;

    private static final double ONE_SIZE = 6;
    private static final double NOTHING_SOLD = 1.8;
    private static final int FARTHEST = 1;
    private static final int NEAREST = 14;

    private final LayerRows rows;
    private final Layer layer;
    private final Scales scales;

    PlacesDrawer(LayerRows rows, Scales scales) {
        this.rows = rows;
        this.layer = rows.layer;
        this.scales = scales;
    }

    // --- symbols -----------------------------------------------------------------------------------

    LayerDrawn symbols() {
        String column = layer.placeColumn();
        int places = rows.dataset().placesOf(column).size();
        boolean tooMany = places > MOST_APART;
        if (layer.set() == null
                && (tooMany || Boolean.TRUE.equals(layer.gather()))
                && rows.sight.zoom() < NEAREST + 1) {
            column = RolledUp.cells((int) Math.max(FARTHEST, Math.min(NEAREST, Math.round(rows.sight.zoom()))));
            if (tooMany)
                rows.notes.add("%,d places are gathered into groups, which open as one zooms.".formatted(places));
        }
        Measure size = layer.size() == null ? Measure.ROWS : layer.size().measure();
        Frame frame = rows.ask(List.of(column), measures(size));
        double[] sizes = frame.values().get(0);
        PlaceSheet sheet = rows.sheet(column);
        int[] order = inOrder(frame, sheet, sizes);
        double largest = 0;
        for (double s : sizes) if (Double.isFinite(s)) largest = Math.max(largest, Math.abs(s));
        CircleSizes circle = layer.size() == null
                ? null
                : new CircleSizes(
                        layer.size().rule(),
                        layer.size().largest() == null ? largest : layer.size().largest(),
                        layer.size().radius());
        double[] shownSizes = picked(sizes, order);
        double[] radii = Arrays.stream(shownSizes)
                .map(s -> circle == null ? ONE_SIZE : s == 0 ? NOTHING_SOLD : round(circle.radius(s)))
                .toArray();
        Colouring colouring = colouring(frame, order, List.of(column));
        Shapes shapes = shapes(frame, order, column);
        Labels labels = labels(frame, order, column, sheet);
        Key key = colouring.key().shaped(shapes.swatches());
        if (circle != null) {
            key = key.sized(rows.dataset().words(size), examples(circle));
            long missing =
                    Arrays.stream(shownSizes).filter(s -> !Double.isFinite(s)).count();
            if (missing > 0)
                rows.notes.add("%,d %s no figure for the size and %s not drawn."
                        .formatted(missing, missing == 1 ? "place has" : "places have", missing == 1 ? "is" : "are"));
        }
        return new LayerDrawn.OfSymbols(
                rows.head(),
                sheet.tag(),
                at(frame, order, sheet),
                radii,
                colouring.classes(),
                shapes.of(),
                shapes.one(),
                shown(shownSizes),
                layer.colour() == null || layer.colour().measure() == null ? null : shown(tints(frame, order)),
                members(column, frame, order),
                labels.texts(),
                labels.ranks(),
                key);
    }

    /** The size, the colour and what labels need. */
    private List<Measure> measures(Measure first) {
        List<Measure> measures = new ArrayList<>(List.of(
                first,
                layer.colour() == null || layer.colour().measure() == null
                        ? Measure.ROWS
                        : layer.colour().measure()));
        if (layer.label() != null && layer.label().measure() != null)
            measures.add(layer.label().measure());
        if (layer.label() != null && layer.label().priority() != null)
            measures.add(layer.label().priority());
        return measures;
    }

    /** Groups that have a place, largest first; where there are too many, those in sight. */
    private int[] inOrder(Frame frame, PlaceSheet sheet, double[] sizes) {
        Sight sight = rows.sight.wider(0.5);
        boolean all = frame.size() <= MOST_APART;
        return IntStream.range(0, frame.size())
                .filter(g -> {
                    Integer place = sheet.index().get(frame.key(0, g));
                    return place != null && (all || sight.holds(sheet.lon()[place], sheet.lat()[place]));
                })
                .boxed()
                .sorted(Comparator.comparingDouble((Integer g) -> Double.isNaN(sizes[g]) ? 0 : -Math.abs(sizes[g]))
                        .thenComparing(g -> frame.key(0, g)))
                .mapToInt(g -> g)
                .toArray();
    }

    private static int[] at(Frame frame, int[] order, PlaceSheet sheet) {
        return Arrays.stream(order).map(g -> sheet.index().get(frame.key(0, g))).toArray();
    }

    private int[] members(String column, Frame frame, int[] order) {
        if (!RolledUp.isCells(column)) return null;
        Map<String, Place> groups = rows.dataset().placesOf(column);
        return Arrays.stream(order)
                .map(g -> {
                    Place group = groups.get(frame.key(0, g));
                    return group.id().startsWith("c") ? (int) group.population() : 1;
                })
                .toArray();
    }

    private static double[] picked(double[] values, int[] order) {
        return Arrays.stream(order).mapToDouble(g -> values[g]).toArray();
    }

    private static double[] shown(double[] values) {
        return Arrays.stream(values).map(NumberWords::shown).toArray();
    }

    private static double round(double radius) {
        return Math.round(radius * 100) / 100.0;
    }

    private static List<Circle> examples(CircleSizes circle) {
        List<Circle> examples = new ArrayList<>();
        if (!(circle.largest() > 0)) return examples;
        double top = NumberWords.roundDown(circle.largest());
        for (double part : new double[] {1, 0.25, 0.05}) {
            double amount = NumberWords.roundDown(top * part);
            examples.add(new Circle(circle.radius(amount), NumberWords.brief(amount)));
        }
        return examples;
    }

    // --- areas -------------------------------------------------------------------------------------

    LayerDrawn areas() {
        String set = setOf(layer, rows.dataset())
                .orElseThrow(() ->
                        new MisfitException("The rows of “" + rows.dataset().name()
                                + "” lie at points. Choose the areas they are counted by in the layer's brief"));
        return shapes(layer.set() == null ? layer.placeColumn() : RolledUp.column(set), set, null);
    }

    private LayerDrawn shapes(String column, String set, String own) {
        Frame frame = rows.ask(List.of(column), measures(Measure.ROWS));
        PlaceSheet sheet = rows.sheet(column);
        int[] order = IntStream.range(0, frame.size())
                .filter(g -> sheet.index().containsKey(frame.key(0, g)))
                .toArray();
        Colouring colouring = colouring(frame, order, List.of(column));
        boolean byMeasure = layer.colour() != null && layer.colour().measure() != null;
        Key key = colouring.key();
        if (byMeasure
                && layer.colour().per() == null
                && isSum(layer.colour().measure())
                && (own == null || rows.dataset().ownShapes().orElseThrow().mayHaveAreas())) {
            key = key.hinted(List.of("Large areas make large sums. Divide “"
                    + ColumnWords.of(layer.colour().measure())
                    + "” by people in a formula, or by the size of the area in the brief."));
        }
        Labels labels = labels(frame, order, column, sheet);
        return new LayerDrawn.OfAreas(
                rows.head(),
                set,
                own,
                sheet.tag(),
                at(frame, order, sheet),
                colouring.classes(),
                shown(byMeasure ? tints(frame, order) : picked(frame.values().get(0), order)),
                labels.texts(),
                labels.ranks(),
                key);
    }

    LayerDrawn ownShapes() {
        OwnShapes own = rows.dataset()
                .ownShapes()
                .orElseThrow(() ->
                        new MisfitException("The rows of “" + rows.dataset().name()
                                + "” brought no shapes along. Choose another kind of layer in its brief"));
        return shapes(PlacedTable.PLACE, null, own.tag());
    }

    private static boolean isSum(Measure measure) {
        return measure.summary() == Summary.SUM
                || measure.summary() == Summary.COUNT
                || measure.summary() == Summary.DISTINCT;
    }

    /** The boundary set whose areas a layer shows: the one it names, or the one its rows are placed by. */
    static Optional<String> setOf(Layer layer, LoadedDataset dataset) {
        if (layer.set() != null) return Optional.of(layer.set());
        return dataset.placing() instanceof Placing.ByArea area ? Optional.of(area.set()) : Optional.empty();
    }

    // --- colours, shapes, labels -----------------------------------------------------------------------

    private Colouring colouring(Frame frame, int[] order, List<String> by) {
        if (layer.colour() == null || layer.colour().isOne()) return Colouring.one(layer.colour(), order.length);
        Layer.Colour colour = scales.worn(layer.colour(), rows.notes);
        if (colour.category() == null)
            return Colouring.byMeasure(
                    colour, tints(frame, order), tintWords(), rows.dataset().read(colour.measure()));
        Map<String, String> values = rows.commonest(by, colour.category());
        return Colouring.byCategory(
                colour,
                Arrays.stream(order).mapToObj(g -> values.get(frame.key(0, g))).toList(),
                rows.dataset().table().column(colour.category()),
                ColumnWords.of(colour.category()));
    }

    private String tintWords() {
        return rows.dataset().words(layer.colour().measure())
                + ("km2".equals(layer.colour().per()) ? " per km²" : "");
    }

    private double[] tints(Frame frame, int[] order) {
        double[] values = picked(frame.values().get(1), order);
        if (!"km2".equals(layer.colour().per())) return values;
        Map<String, Double> sizes = sizes();
        if (sizes.isEmpty()) rows.notes.add("Only areas have a size to divide by, so the measure is shown as it is.");
        return IntStream.range(0, order.length)
                .mapToDouble(i ->
                        values[i] / (sizes.isEmpty() ? 1 : sizes.getOrDefault(frame.key(0, order[i]), Double.NaN)))
                .toArray();
    }

    /** Square kilometres by the id of what is drawn. */
    private Map<String, Double> sizes() {
        if (layer.kind() == Layer.Kind.SHAPES)
            return rows.dataset().ownShapes().map(OwnShapes::squareKilometres).orElse(Map.of());
        Map<String, Double> sizes = new HashMap<>();
        String set = setOf(layer, rows.dataset()).orElse("");
        for (Area area : rows.dataset().areasOf(set)) sizes.put("a" + set + "/" + area.code(), area.squareKilometres());
        return sizes;
    }

    /**
     * @param of shape of each mark; null where all have one
     * @param one the shape of all
     */
    private record Shapes(int[] of, int one, List<ShapeSwatch> swatches) {}

    private Shapes shapes(Frame frame, int[] order, String column) {
        Layer.Symbol symbol = layer.symbol();
        if (symbol == null) return new Shapes(null, 0, List.of());
        if (symbol.category() == null)
            return new Shapes(null, symbol.shape() == null ? 0 : symbol.shape().ordinal(), List.of());
        int most = Layer.Shape.values().length - 1;
        List<String> values = Colouring.order(rows.dataset().table().column(symbol.category()), null, most);
        Map<String, String> of = rows.commonest(List.of(column), symbol.category());
        int[] counts = new int[most + 1];
        int[] shapes = Arrays.stream(order)
                .map(g -> {
                    int shape = values.indexOf(of.get(frame.key(0, g)));
                    return shape < 0 ? most : shape;
                })
                .toArray();
        for (int shape : shapes) counts[shape]++;
        List<ShapeSwatch> swatches = new ArrayList<>();
        for (int s = 0; s < values.size(); s++) swatches.add(new ShapeSwatch(s, values.get(s), counts[s]));
        if (counts[most] > 0) swatches.add(new ShapeSwatch(most, "others", counts[most]));
        return new Shapes(shapes, 0, swatches);
    }

    private record Labels(List<String> texts, int[] ranks) {}

    private Labels labels(Frame frame, int[] order, String column, PlaceSheet sheet) {
        Layer.Label label = layer.label();
        if (label == null) return new Labels(null, null);
        boolean byColumn = label.column() != null;
        Map<String, String> values = byColumn ? rows.commonest(List.of(column), label.column()) : Map.of();
        List<String> texts = new ArrayList<>();
        for (int g : order) {
            String first = byColumn
                    ? values.getOrDefault(frame.key(0, g), "")
                    : sheet.names().get(sheet.index().get(frame.key(0, g)));
            texts.add(
                    label.measure() == null
                            ? first
                            : (first + " "
                                            + rows.dataset()
                                                    .read(label.measure())
                                                    .brief(frame.value(2, g)))
                                    .strip());
        }
        double[] priority = label.priority() != null
                ? frame.values().get(label.measure() == null ? 2 : 3)
                : layer.isOfShapes() ? frame.values().get(1) : null;
        int[] ranks = priority == null
                ? null
                : IntStream.range(0, order.length)
                        .boxed()
                        .sorted(Comparator.comparingDouble((Integer i) ->
                                Double.isNaN(priority[order[i]]) ? Double.POSITIVE_INFINITY : -priority[order[i]]))
                        .limit(MOST_LABELS)
                        .mapToInt(i -> i)
                        .toArray();
        return new Labels(texts, ranks);
    }
}
