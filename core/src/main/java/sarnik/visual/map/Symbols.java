package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import sarnik.data.LoadedDataset;
import sarnik.data.PlaceSheet;
import sarnik.data.RolledUp;
import sarnik.place.Place;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.scale.CircleSizes;
import sarnik.scale.NumberWords;
import sarnik.table.Rounded;
import sarnik.visual.Answers;
import sarnik.visual.Colouring;
import sarnik.visual.Key;
import sarnik.visual.Key.Circle;
import sarnik.visual.Scales;
import sarnik.visual.Sight;

/** A symbol for each place. */
final class Symbols implements LayerKind {

    private static final double ONE_SIZE = 6;
    private static final double NOTHING_SOLD = 1.8;
    private static final int FARTHEST = 1;
    private static final int NEAREST = 14;

    @Override
    public String hint() {
        return "a mark for each place";
    }

    @Override
    public String name(String what, LoadedDataset dataset) {
        return what;
    }

    @Override
    public void sentence(LayerBrief brief) {
        brief.say(": one ");
        brief.symbol();
        brief.say(" for each ");
        brief.areasOf("place");
        brief.ofDataset(" of ");
        brief.size(", sized by ", "+ size");
        brief.colour();
        brief.onTop();
        brief.turn();
        brief.gather();
        brief.label();
        brief.tip();
    }

    @Override
    public LayerPlan plan(LayerRows rows, Scales scales) {
        Layer layer = rows.layer;
        Measure size = layer.size() == null ? Measure.ROWS : layer.size().measure();
        PlaceMarks marks = new PlaceMarks(rows, scales, column(rows), size);
        return new LayerPlan(marks.shown(), (answers, notes) -> draw(rows, marks, size, answers, notes));
    }

    /** The places as they are, or gathered into cells where there are too many or they are to be. */
    private static String column(LayerRows rows) {
        String column = rows.layer.placeColumn();
        int places = rows.dataset().placesOf(column).size();
        boolean tooMany = places > Layer.MOST_APART;
        boolean gathers = tooMany || Boolean.TRUE.equals(rows.layer.gather());
        if (rows.layer.set() != null || !gathers || rows.sight.zoom() >= NEAREST + 1) return column;
        if (tooMany) rows.notes.add(phrase("{0} places are gathered into groups, which open as one zooms.", places));
        return RolledUp.cells((int) Math.max(FARTHEST, Math.min(NEAREST, Rounded.up(rows.sight.zoom()))));
    }

    private static LayerDrawn draw(
            LayerRows rows, PlaceMarks marks, Measure size, Answers answers, List<String> notes) {
        Layer layer = rows.layer;
        Frame frame = answers.of(marks.shown());
        double[] sizes = frame.values().get(0);
        int[] order = inOrder(rows, frame, marks.sheet(), sizes);
        CircleSizes circle = layer.size() == null ? null : circles(layer.size(), marks.whole(answers), sizes);
        double[] shown = PlaceMarks.picked(sizes, order);
        double[] radii = Arrays.stream(shown)
                .map(s -> circle == null ? ONE_SIZE : s == 0 ? NOTHING_SOLD : round(circle.radius(s)))
                .toArray();
        PlaceMarks.Coloured coloured = marks.coloured(answers, order, notes);
        Colouring colouring = coloured.colouring();
        int[] pile = layer.symbol() != null && layer.symbol().lastOnTop() ? pile(colouring.classes()) : null;
        PlaceMarks.Shapes shapes = marks.shapes(answers, order);
        PlaceMarks.Labels labels = marks.labels(answers, order);
        Key key = colouring.key().shaped(shapes.swatches());
        if (circle != null) {
            key = key.sized(rows.dataset().words(size), examples(circle));
            long missing = Arrays.stream(shown).filter(s -> !Double.isFinite(s)).count();
            if (missing > 0)
                notes.add(phrase(
                        "{0, plural, one {# place has no figure for the size and is not drawn.} other {# places have no figure for the size and are not drawn.}}",
                        missing));
        }
        return new LayerDrawn.OfSymbols(
                rows.head(notes),
                marks.sheet().tag(),
                marks.at(frame, order),
                radii,
                colouring.classes(),
                shapes.of(),
                shapes.one(),
                PlaceMarks.rounded(shown),
                coloured.tints() == null ? null : PlaceMarks.rounded(coloured.tints()),
                members(rows, marks.column(), frame, order),
                labels.texts(),
                labels.ranks(),
                marks.turns(answers, order),
                pile,
                coloured.trust(),
                key);
    }

    /**
     * The order in which marks are painted where the last of the colours lie on top; those without a colour lie lowest.
     */
    private static int[] pile(int[] classes) {
        return IntStream.range(0, classes.length)
                .boxed()
                .sorted(Comparator.comparingInt(i -> classes[i]))
                .mapToInt(i -> i)
                .toArray();
    }

    /** The sizes rest on the largest of the whole, so that a pick does not make what is left grow. */
    private static CircleSizes circles(Layer.Size size, Frame whole, double[] shown) {
        double largest = 0;
        for (double s : whole.values().get(0)) if (Double.isFinite(s)) largest = Math.max(largest, Math.abs(s));
        // What is averaged may be larger where it is narrowed than it is on the whole.
        for (double s : shown) if (Double.isFinite(s)) largest = Math.max(largest, Math.abs(s));
        return new CircleSizes(size.rule(), size.largest() == null ? largest : size.largest(), size.radius());
    }

    /** Groups that have a place, largest first; where there are too many, those in sight. */
    private static int[] inOrder(LayerRows rows, Frame frame, PlaceSheet sheet, double[] sizes) {
        Sight sight = rows.sight.wider(0.5);
        boolean all = frame.size() <= Layer.MOST_APART;
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

    private static int[] members(LayerRows rows, String column, Frame frame, int[] order) {
        if (!RolledUp.isCells(column)) return null;
        Map<String, Place> groups = rows.dataset().placesOf(column);
        return Arrays.stream(order)
                .map(g -> {
                    Place group = groups.get(frame.key(0, g));
                    return group.id().startsWith("c") ? (int) group.population() : 1;
                })
                .toArray();
    }

    private static double round(double radius) {
        return Rounded.up(radius * 100) / 100.0;
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
}
