package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.time.Duration;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.geo.GreatCircle;
import sarnik.place.PlacedTable;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Colour;
import sarnik.visual.Colouring;
import sarnik.visual.Scales;

/** Paths through places in order. */
final class Paths implements LayerKind {

    /** The most points of paths that are drawn. */
    static final int MOST_POINTS = 60_000;

    @Override
    public String hint() {
        return "points joined in order";
    }

    @Override
    public String name(String what, LoadedDataset dataset) {
        return phrase("Paths of {0}", dataset.name());
    }

    @Override
    public void sentence(LayerBrief brief) {
        brief.path();
    }

    /** A stop of a path, with the order value it has there. */
    private record Stop(int place, String moment) {}

    /** What colours the paths: a measure of each, or the commonest value of a category. */
    private record Tints(Colour colour, Asked measured, Asked whole, Asked counts) {}

    @Override
    public LayerPlan plan(LayerRows rows, Scales scales) {
        Layer.Path path = rows.layer.path();
        if (path == null)
            throw new MisfitException(
                    phrase("It is not said yet in which order the points are joined. Say so in the layer’s brief"));
        Column by = rows.dataset()
                .table()
                .find(path.by())
                .orElseThrow(() -> new MisfitException(phrase(
                        "The column “{0}” of the paths’ order has gone. Choose another in the layer’s brief",
                        path.by())));
        Asked shown = rows.ask(List.of(path.who(), path.by(), PlacedTable.PLACE), List.of(Measure.ROWS));
        Tints tints = tints(rows, scales);
        PlaceSheet sheet = rows.sheet(PlacedTable.PLACE);
        return new LayerPlan(
                shown, (answers, notes) -> draw(rows, by, answers.of(shown), sheet, tints, answers, notes));
    }

    private static Tints tints(LayerRows rows, Scales scales) {
        Layer.Path path = rows.layer.path();
        if (rows.layer.colour() == null || rows.layer.colour().standsForNothing())
            return new Tints(Colour.of(path.who(), "flags"), null, null, null);
        Colour colour = scales.worn(rows.layer.colour(), rows.notes);
        if (colour.category() == null) {
            return new Tints(
                    colour,
                    rows.ask(List.of(path.who()), List.of(colour.measure())),
                    rows.domain(List.of(path.who()), List.of(colour.measure()), colour.domain()),
                    null);
        }
        boolean own = colour.category().equals(path.who());
        return new Tints(colour, null, null, own ? null : rows.counts(List.of(path.who()), colour.category()));
    }

    private static LayerDrawn draw(
            LayerRows rows,
            Column by,
            Frame frame,
            PlaceSheet sheet,
            Tints tints,
            Answers answers,
            List<String> notes) {
        Map<String, List<Stop>> paths = new TreeMap<>();
        int stops = Math.min(frame.size(), MOST_POINTS);
        if (stops < frame.size())
            notes.add(phrase(
                    "Only the first {0} of {1} points are drawn. Narrow to see the others.", stops, frame.size()));
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
                if (i == 0 || isBroken(rows.layer.path(), points.get(i - 1), points.get(i), by.type(), sheet)) {
                    parts.add(at.size());
                    pathOf.add(number);
                }
                at.add(points.get(i).place());
                moments.add(words(points.get(i).moment(), by.type()));
            }
            number++;
        }
        List<String> names = List.copyOf(paths.keySet());
        Colouring colouring = colours(rows, names, tints, answers);
        return new LayerDrawn.OfPaths(
                rows.head(notes),
                names,
                colouring.classes(),
                ints(parts),
                ints(pathOf),
                sheet.tag(),
                ints(at),
                moments,
                colouring.key());
    }

    private static Colouring colours(LayerRows rows, List<String> names, Tints tints, Answers answers) {
        Colour colour = tints.colour();
        if (colour.category() != null) {
            Map<String, String> values =
                    tints.counts() == null ? Map.of() : LayerRows.commonest(answers.of(tints.counts()));
            return Colouring.byCategory(
                    colour,
                    names.stream()
                            .map(n -> tints.counts() == null ? n : values.get(n))
                            .toList(),
                    rows.dataset().table().column(colour.category()),
                    ColumnWords.of(colour.category()));
        }
        Map<String, Double> values = byKey(answers.of(tints.measured()));
        return Colouring.byMeasure(
                colour,
                names.stream()
                        .mapToDouble(n -> values.getOrDefault(n, Double.NaN))
                        .toArray(),
                answers.of(tints.whole()).values().get(0),
                rows.dataset().words(colour.measure()),
                rows.dataset().read(colour.measure()));
    }

    private static Map<String, Double> byKey(Frame frame) {
        Map<String, Double> values = new LinkedHashMap<>();
        for (int g = 0; g < frame.size(); g++) values.put(frame.key(0, g), frame.value(0, g));
        return values;
    }

    private static boolean isBroken(Layer.Path path, Stop before, Stop now, ColumnType type, PlaceSheet sheet) {
        if (path.breakMinutes() != null
                && type == ColumnType.TIME
                && Duration.between(LocalDateTime.parse(before.moment()), LocalDateTime.parse(now.moment()))
                                .getSeconds()
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
