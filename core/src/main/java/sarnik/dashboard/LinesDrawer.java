package sarnik.dashboard;

import java.time.Duration;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import sarnik.dashboard.Drawing.Circle;
import sarnik.dashboard.LayerDrawn.Key;
import sarnik.geo.GreatCircle;
import sarnik.place.PlacedTable;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.scale.NumberWords;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/** Draws layers of lines: flows from place to place, and paths through places in order. */
final class LinesDrawer {

    /** More flows than this make a ball of wool. */
    static final int MOST_FLOWS = 300;

    /** Where the flows that can be drawn hold less than this share, drawing them would say nothing. */
    static final double LEAST_TOLD = 0.25;

    /** The most points of paths that are drawn. */
    static final int MOST_POINTS = 60_000;

    private static final double ONE_WIDTH = 2;
    private static final double THINNEST = 0.8;

    private final LayerRows rows;
    private final Layer layer;
    private final Scales scales;

    LinesDrawer(LayerRows rows, Scales scales) {
        this.rows = rows;
        this.layer = rows.layer;
        this.scales = scales;
    }

    // --- flows ------------------------------------------------------------------------------------

    LayerDrawn flows() {
        if (rows.dataset().table().find(PlacedTable.ORIGIN).isEmpty()) {
            throw new MisfitException("The rows of “" + rows.dataset().name()
                    + "” come from nowhere. Say on the dataset's page from where to where they go, or "
                    + "choose another kind of layer");
        }
        Measure size = layer.size() == null ? Measure.ROWS : layer.size().measure();
        Measure tint = layer.colour() == null || layer.colour().measure() == null
                ? Measure.ROWS
                : layer.colour().measure();
        String column = layer.placeColumn();
        Frame frame = rows.ask(List.of(RolledUp.from(column), column), List.of(size, tint));
        if (layer.set() == null && between(frame).length > MOST_FLOWS) {
            int before = between(frame).length;
            column = RolledUp.provinces();
            frame = rows.ask(List.of(RolledUp.from(column), column), List.of(size, tint));
            rows.notes.add("%,d flows from place to place are summed up by province. A narrowing shows them one by one."
                    .formatted(before));
        }
        Frame answer = frame;
        double[] values = answer.values().get(0);
        int[] all = between(answer);
        int within = answer.size() - all.length;
        if (within > 0)
            rows.notes.add("%,d %s where %s and %s not drawn."
                    .formatted(
                            within,
                            within == 1 ? "flow stays" : "flows stay",
                            within == 1 ? "it begins" : "they begin",
                            within == 1 ? "is" : "are"));
        int[] order = Arrays.stream(all)
                .boxed()
                .sorted(Comparator.comparingDouble((Integer g) -> Double.isNaN(values[g]) ? 0 : -Math.abs(values[g]))
                        .thenComparing(g -> LayerRows.key(answer, g, 2)))
                .limit(MOST_FLOWS)
                .mapToInt(g -> g)
                .toArray();
        if (order.length < all.length) {
            double told = sum(values, order) / sum(values, all);
            if (told < LEAST_TOLD) {
                rows.notes.add(
                        ("%,d flows are too many: the %d largest hold %d %% of all. Narrow first, for example to "
                                        + "one origin or one period.")
                                .formatted(all.length, MOST_FLOWS, Math.round(told * 100)));
                order = new int[0];
            } else {
                rows.notes.add("The %d largest of %,d flows are drawn; they hold %d %% of all."
                        .formatted(MOST_FLOWS, all.length, Math.round(told * 100)));
            }
        }
        return drawn(answer, order, all, column, size);
    }

    private LayerDrawn drawn(Frame frame, int[] order, int[] all, String column, Measure size) {
        PlaceSheet sheet = rows.sheet(column);
        double[] values = frame.values().get(0);
        double largest = Math.max(
                layer.size() == null || layer.size().largest() == null
                        ? 0
                        : layer.size().largest(),
                Arrays.stream(order)
                        .mapToDouble(g -> Math.abs(values[g]))
                        .filter(Double::isFinite)
                        .max()
                        .orElse(0));
        double widest = layer.size() == null ? ONE_WIDTH : layer.size().radius() / 2;
        double[] widths = Arrays.stream(order)
                .mapToDouble(g -> width(values[g], largest, widest))
                .toArray();
        Colouring colouring = colouring(frame, order, column);
        Key key = colouring.key();
        if (layer.size() != null && largest > 0) {
            List<Circle> examples = new ArrayList<>();
            for (double part : new double[] {1, 0.4, 0.1}) {
                double amount = NumberWords.roundDown(NumberWords.roundDown(largest) * part);
                examples.add(new Circle(width(amount, largest, widest), NumberWords.brief(amount)));
            }
            key = key.sized(rows.dataset().words(size), examples);
        }
        Map<Integer, double[]> ends = new TreeMap<>();
        for (int g : all) {
            if (!Double.isFinite(values[g])) continue;
            ends.computeIfAbsent(sheet.index().get(frame.key(0, g)), p -> new double[2])[0] += values[g];
            ends.computeIfAbsent(sheet.index().get(frame.key(1, g)), p -> new double[2])[1] += values[g];
        }
        if (order.length == 0) ends.clear();
        boolean tinted = layer.colour() != null && layer.colour().measure() != null;
        return new LayerDrawn.OfFlows(
                rows.head(),
                sheet.tag(),
                Arrays.stream(order)
                        .map(g -> sheet.index().get(frame.key(0, g)))
                        .toArray(),
                Arrays.stream(order)
                        .map(g -> sheet.index().get(frame.key(1, g)))
                        .toArray(),
                widths,
                colouring.classes(),
                Arrays.stream(order)
                        .mapToDouble(g -> NumberWords.shown(values[g]))
                        .toArray(),
                tinted
                        ? Arrays.stream(order)
                                .mapToDouble(g -> NumberWords.shown(frame.value(1, g)))
                                .toArray()
                        : null,
                ends.keySet().stream().mapToInt(i -> i).toArray(),
                ends.values().stream().mapToDouble(e -> NumberWords.shown(e[0])).toArray(),
                ends.values().stream().mapToDouble(e -> NumberWords.shown(e[1])).toArray(),
                key);
    }

    private static double width(double value, double largest, double widest) {
        if (!Double.isFinite(value) || value == 0 || largest == 0) return 0;
        return Math.max(THINNEST, Math.round(widest * Math.min(1, Math.abs(value) / largest) * 100) / 100.0);
    }

    /** Groups that lead from one place to another. */
    private static int[] between(Frame frame) {
        return IntStream.range(0, frame.size())
                .filter(g -> !frame.key(0, g).equals(frame.key(1, g)))
                .toArray();
    }

    private static double sum(double[] values, int[] groups) {
        return Arrays.stream(groups)
                .mapToDouble(g -> Math.abs(values[g]))
                .filter(Double::isFinite)
                .sum();
    }

    private Colouring colouring(Frame frame, int[] order, String column) {
        if (layer.colour() == null || layer.colour().isOne()) return Colouring.one(layer.colour(), order.length);
        Layer.Colour colour = scales.worn(layer.colour(), rows.notes);
        if (colour.category() == null)
            return Colouring.byMeasure(
                    colour,
                    Arrays.stream(order).mapToDouble(g -> frame.value(1, g)).toArray(),
                    rows.dataset().words(colour.measure()),
                    rows.dataset().read(colour.measure()));
        Map<String, String> values = rows.commonest(List.of(RolledUp.from(column), column), colour.category());
        return Colouring.byCategory(
                colour,
                Arrays.stream(order)
                        .mapToObj(g -> values.get(LayerRows.key(frame, g, 2)))
                        .toList(),
                rows.dataset().table().column(colour.category()),
                ColumnWords.of(colour.category()));
    }

    // --- paths ------------------------------------------------------------------------------------

    /** A stop of a path, with the order value it has there. */
    private record Stop(int place, String moment) {}

    LayerDrawn paths() {
        Layer.Path path = layer.path();
        if (path == null)
            throw new MisfitException(
                    "It is not said yet in which order the points are joined. Say so in the layer's brief");
        Column by = rows.dataset()
                .table()
                .find(path.by())
                .orElseThrow(() -> new MisfitException("The column “" + path.by()
                        + "” of the paths' order has gone. Choose another in the layer's brief"));
        Frame frame = rows.ask(List.of(path.who(), path.by(), PlacedTable.PLACE), List.of(Measure.ROWS));
        PlaceSheet sheet = rows.sheet(PlacedTable.PLACE);
        Map<String, List<Stop>> paths = new TreeMap<>();
        int stops = Math.min(frame.size(), MOST_POINTS);
        if (stops < frame.size())
            rows.notes.add("Only the first %,d of %,d points are drawn. Narrow to see the others."
                    .formatted(stops, frame.size()));
        for (int g = 0; g < stops; g++) {
            Integer place = sheet.index().get(frame.key(2, g));
            if (place != null)
                paths.computeIfAbsent(frame.key(0, g), p -> new ArrayList<>()).add(new Stop(place, frame.key(1, g)));
        }
        Comparator<Stop> inOrder = by.type().isNumber()
                ? Comparator.comparingDouble(s -> Double.parseDouble(s.moment()))
                : Comparator.comparing(Stop::moment);
        List<Integer> parts = new ArrayList<>();
        List<Integer> pathOf = new ArrayList<>();
        List<Integer> at = new ArrayList<>();
        List<String> moments = new ArrayList<>();
        int number = 0;
        for (List<Stop> points : paths.values()) {
            points.sort(inOrder);
            for (int i = 0; i < points.size(); i++) {
                if (i == 0 || isBroken(points.get(i - 1), points.get(i), by.type(), sheet)) {
                    parts.add(at.size());
                    pathOf.add(number);
                }
                at.add(points.get(i).place());
                moments.add(words(points.get(i).moment(), by.type()));
            }
            number++;
        }
        List<String> names = List.copyOf(paths.keySet());
        Colouring colouring = pathColours(names, path);
        return new LayerDrawn.OfPaths(
                rows.head(),
                names,
                colouring.classes(),
                ints(parts),
                ints(pathOf),
                sheet.tag(),
                ints(at),
                moments,
                colouring.key());
    }

    private Colouring pathColours(List<String> names, Layer.Path path) {
        Layer.Colour colour = layer.colour() == null || layer.colour().isOne()
                ? new Layer.Colour(
                        null,
                        null,
                        path.who(),
                        null,
                        null,
                        null,
                        null,
                        "flags",
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null)
                : scales.worn(layer.colour(), rows.notes);
        Frame kept = rows.last();
        if (colour.category() != null) {
            Map<String, String> values = colour.category().equals(path.who())
                    ? new HashMap<>()
                    : rows.commonest(List.of(path.who()), colour.category());
            if (values.isEmpty()) names.forEach(n -> values.put(n, n));
            return Colouring.byCategory(
                    colour,
                    names.stream().map(values::get).toList(),
                    rows.dataset().table().column(colour.category()),
                    ColumnWords.of(colour.category()));
        }
        Map<String, Double> values = new LinkedHashMap<>();
        Frame frame = rows.ask(List.of(path.who()), List.of(colour.measure()));
        for (int g = 0; g < frame.size(); g++) values.put(frame.key(0, g), frame.value(0, g));
        rows.keep(kept);
        return Colouring.byMeasure(
                colour,
                names.stream()
                        .mapToDouble(n -> values.getOrDefault(n, Double.NaN))
                        .toArray(),
                rows.dataset().words(colour.measure()),
                rows.dataset().read(colour.measure()));
    }

    private boolean isBroken(Stop before, Stop now, ColumnType type, PlaceSheet sheet) {
        Layer.Path path = layer.path();
        if (path.breakMinutes() != null
                && type == ColumnType.TIME
                && Duration.between(LocalDateTime.parse(before.moment()), LocalDateTime.parse(now.moment()))
                                .toSeconds()
                        > path.breakMinutes() * 60) return true;
        return path.breakMetres() != null
                && GreatCircle.metres(
                                sheet.lon()[before.place()],
                                sheet.lat()[before.place()],
                                sheet.lon()[now.place()],
                                sheet.lat()[now.place()])
                        > path.breakMetres();
    }

    private static String words(String moment, ColumnType type) {
        return type == ColumnType.TIME ? moment.replace('T', ' ') : moment;
    }

    private static int[] ints(List<Integer> numbers) {
        return numbers.stream().mapToInt(i -> i).toArray();
    }
}
