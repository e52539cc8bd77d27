package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.Template;
import sarnik.geo.GreatCircle;
import sarnik.place.Place;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.QueryEngine;
import sarnik.query.Stage;
import sarnik.scale.NumberWords;
import sarnik.scale.Standardised;
import sarnik.table.Rounded;

/** Tells about one place of a layer: its figures, a tiny chart, the places near it and the places most like it. */
public final class PlaceTeller {

    private static final int MOST_POINTS = 60;

    private PlaceTeller() {}

    /**
     * What is told of a place.
     *
     * @param name what it is called
     * @param lines what is measured, and how much
     * @param chart a tiny chart; null for none
     * @param text the author's sentence with its figures in place; null where there is none
     */
    public record Told(String name, List<Line> lines, Chart chart, String text) {}

    public record Line(String words, String value) {}

    /**
     * @param words what it is of
     * @param labels the values along it
     * @param values heights, 0 to 1; missing ones NaN
     * @param texts the figures in words
     */
    public record Chart(String words, List<String> labels, double[] values, List<String> texts) {}

    /** A place that was found: how far away, or how unlike. */
    public record Found(String id, String name, String words) {}

    static Told tell(QueryEngine engine, LayerRows rows, String place) {
        String column = rows.layer.placeColumn();
        List<Measure> measures = measures(rows.layer);
        double[] values = values(engine, rows, place, measures);
        List<Line> lines = new ArrayList<>();
        // What a text in braces calls them, whatever is spoken.
        List<Line> named = new ArrayList<>();
        for (int i = 0; i < measures.size(); i++) {
            Measure measure = measures.get(i);
            String value = rows.dataset().read(measure).full(values[i]);
            lines.add(new Line(rows.dataset().words(measure), value));
            named.add(new Line(ColumnWords.kept(measure), value));
        }
        Layer.Tip tip = rows.layer.tip();
        if (tip != null && tip.columns() != null) {
            for (String c : tip.columns()) {
                Frame some = rows.ofPlace(engine, column, place, List.of(c), List.of(Measure.ROWS));
                List<String> keys = IntStream.range(0, Math.min(4, some.size()))
                        .mapToObj(g -> some.key(0, g))
                        .toList();
                String value = keys.isEmpty()
                        ? "–"
                        : some.size() > 4
                                ? phrase("{0} and {1} more", String.join(", ", keys), some.size() - 4)
                                : String.join(", ", keys);
                lines.add(new Line(ColumnWords.of(c), value));
                named.add(new Line(ColumnWords.kept(c), value));
            }
        }
        String name = name(rows, column, place);
        return new Told(
                name,
                lines,
                tip == null || tip.over() == null
                        ? null
                        : chart(
                                rows,
                                rows.ofPlace(engine, column, place, List.of(tip.over()), List.of(measures.get(0))),
                                tip.over(),
                                measures.get(0)),
                tip == null || tip.text() == null || tip.text().isBlank() ? null : filled(tip.text(), name, named));
    }

    /** The measures of a place; what rests on the other places as well, among all of them. */
    private static double[] values(QueryEngine engine, LayerRows rows, String place, List<Measure> measures) {
        String column = rows.layer.placeColumn();
        Frame alone = rows.ofPlace(engine, column, place, List.of(), measures);
        double[] values = IntStream.range(0, measures.size())
                .mapToDouble(m -> alone.value(m, 0))
                .toArray();
        int[] among = IntStream.range(0, values.length)
                .filter(m -> rows.dataset().isAmongGroups(measures.get(m)))
                .toArray();
        if (among.length == 0) return values;
        Frame all = rows.now(
                engine,
                List.of(column),
                IntStream.of(among).mapToObj(measures::get).toList());
        int at = IntStream.range(0, all.size())
                .filter(g -> place.equals(all.key(0, g)))
                .findFirst()
                .orElse(-1);
        for (int m = 0; m < among.length; m++) values[among[m]] = at < 0 ? Double.NaN : all.value(m, at);
        return values;
    }

    /**
     * A template with its braces filled. What stands in braces and is not told stays as it is, so that a slip is seen.
     */
    public static String filled(String text, String name, List<Line> lines) {
        return Template.of(text).filled(field -> {
            if (field.is("place")) return name;
            // A unit behind a comma goes without saying.
            return lines.stream()
                    .filter(l -> field.is(l.words()) || field.is(l.words().replaceFirst(",.*", "")))
                    .map(Line::value)
                    .findFirst()
                    .orElse(null);
        });
    }

    private static String name(LayerRows rows, String column, String place) {
        return Optional.ofNullable(rows.dataset().placesOf(column).get(place))
                .map(Place::said)
                .orElse(place);
    }

    /** Everything the layer shows or tells of a place, each once. */
    private static List<Measure> measures(Layer layer) {
        List<Measure> measures = new ArrayList<>();
        if (layer.size() != null && !layer.isOfShapes())
            measures.add(layer.size().measure());
        if (layer.colour() != null && layer.colour().measure() != null)
            measures.add(layer.colour().measure());
        if (layer.label() != null && layer.label().measure() != null)
            measures.add(layer.label().measure());
        if (layer.tip() != null && layer.tip().measures() != null)
            measures.addAll(layer.tip().measures());
        if (measures.isEmpty()) measures.add(Measure.ROWS);
        return measures.stream().distinct().toList();
    }

    private static Chart chart(LayerRows rows, Frame frame, String over, Measure measure) {
        int from = Math.max(0, frame.size() - MOST_POINTS);
        double[] values = IntStream.range(from, frame.size())
                .mapToDouble(g -> frame.value(0, g))
                .toArray();
        double most = 0;
        for (double v : values) if (Double.isFinite(v)) most = Math.max(most, v);
        double top = most;
        return new Chart(
                phrase("{0} by {1}", rows.dataset().words(measure), ColumnWords.of(over)),
                IntStream.range(from, frame.size())
                        .mapToObj(g -> frame.key(0, g))
                        .toList(),
                IntStream.range(0, values.length)
                        .mapToDouble(i -> top > 0 ? Math.max(0, values[i]) / top : Double.NaN)
                        .toArray(),
                IntStream.range(0, values.length)
                        .mapToObj(i -> rows.dataset().read(measure).full(values[i]))
                        .toList());
    }

    /** Places of the layer within a distance of a place, nearest first, itself among them. */
    static List<Found> near(QueryEngine engine, LayerRows rows, String place, double metres) {
        String column = rows.layer.placeColumn();
        Frame frame = rows.now(engine, List.of(column), List.of(Measure.ROWS));
        Map<String, Place> places = rows.dataset().placesOf(column);
        Place from = places.get(place);
        if (from == null) return List.of();
        record Away(Place place, double metres) {}
        return IntStream.range(0, frame.size())
                .mapToObj(g -> places.get(frame.key(0, g)))
                .filter(p -> p != null)
                .map(p -> new Away(p, GreatCircle.metres(from.lon(), from.lat(), p.lon(), p.lat())))
                .filter(a -> a.metres <= metres)
                .sorted(Comparator.comparingDouble(Away::metres).thenComparing(a -> a.place.id()))
                .map(a -> new Found(
                        a.place.id(), a.place.said(), NumberWords.full(Rounded.up(a.metres / 100) / 10.0) + " km"))
                .toList();
    }

    /** The places most like a place by everything the layer shows or tells, itself first. */
    static List<Found> alike(QueryEngine engine, LayerRows rows, String place, int count) {
        String column = rows.layer.placeColumn();
        List<Measure> measures = measures(rows.layer);
        Frame frame = rows.now(engine, List.of(column), measures);
        Map<String, Place> places = rows.dataset().placesOf(column);
        int self = IntStream.range(0, frame.size())
                .filter(g -> frame.key(0, g).equals(place))
                .findFirst()
                .orElse(-1);
        if (self < 0) return List.of();
        double[] unlike = Standardised.distances(frame.values(), self);
        Set<String> known = new HashSet<>(places.keySet());
        return IntStream.range(0, frame.size())
                .boxed()
                .filter(g -> known.contains(frame.key(0, g)) && Double.isFinite(unlike[g]))
                .sorted(Comparator.comparingDouble((Integer g) -> unlike[g]).thenComparing(g -> frame.key(0, g)))
                .limit(count + 1L)
                .map(g -> new Found(
                        frame.key(0, g),
                        places.get(frame.key(0, g)).said(),
                        phrase("{0} deviations away", NumberWords.full(unlike[g]))))
                .toList();
    }

    /** The stage that keeps to one place. */
    static Stage only(String column, String place) {
        return new Stage(phrase("One place"), List.of(new Condition.OneOf(column, List.of(place))));
    }
}
