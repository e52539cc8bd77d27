package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.data.RolledUp;
import sarnik.place.PlacedTable;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.scale.NumberWords;
import sarnik.table.Rounded;
import sarnik.table.Sums;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Colour;
import sarnik.visual.Colouring;
import sarnik.visual.Key;
import sarnik.visual.Key.Circle;
import sarnik.visual.Scales;

/** Flows from place to place. */
final class Flows implements LayerKind {

    /** More flows than this make a ball of wool. */
    static final int MOST_FLOWS = 300;

    /** Where the flows that can be drawn hold less than this share, drawing them would say nothing. */
    static final double LEAST_TOLD = 0.25;

    private static final double ONE_WIDTH = 2;
    private static final double THINNEST = 0.8;

    @Override
    public String hint() {
        return "from where to where";
    }

    @Override
    public boolean fits(LoadedDataset dataset) {
        return dataset.table().find(PlacedTable.ORIGIN).isPresent();
    }

    @Override
    public String name(String what, LoadedDataset dataset) {
        return phrase("Flows of {0}", dataset.name());
    }

    @Override
    public void sentence(LayerBrief brief) {
        brief.ofDataset(" of ");
        brief.say(" from ");
        brief.areasOf("place");
        brief.say(" to the next");
        brief.size(", as wide as ", "+ width");
        brief.colour();
    }

    @Override
    public LayerPlan plan(LayerRows rows, Scales scales) {
        if (!fits(rows.dataset())) {
            throw new MisfitException(phrase(
                    "The rows of “{0}” come from nowhere. Say on the dataset’s page from where to where they go, or choose another kind of layer",
                    rows.dataset().name()));
        }
        Ways apart = new Ways(rows, scales, rows.layer.placeColumn());
        long most = (long) rows.dataset().placesOf(rows.layer.placeColumn()).size();
        Ways byProvince = rows.layer.set() == null && most * most > MOST_FLOWS
                ? new Ways(rows, scales, RolledUp.provinces())
                : null;
        return new LayerPlan(apart.shown, (answers, notes) -> {
            int many = between(answers.of(apart.shown)).length;
            if (byProvince == null || many <= MOST_FLOWS) return apart.draw(answers, notes);
            notes.add(phrase(
                    "{0} flows from place to place are summed up by province. A narrowing shows them one by one.",
                    many));
            return byProvince.draw(answers, notes);
        });
    }

    /** The flows between the places of a column. */
    private static final class Ways {

        private final LayerRows rows;
        private final Layer layer;
        private final String column;
        private final Measure size;
        private final Colour colour;
        private final List<String> coloursSaid = new ArrayList<>();
        private final Asked shown;
        private final Asked whole;
        private final Asked colourCounts;
        private final PlaceSheet sheet;

        Ways(LayerRows rows, Scales scales, String column) {
            this.rows = rows;
            this.layer = rows.layer;
            this.column = column;
            size = layer.size() == null ? Measure.ROWS : layer.size().measure();
            Measure tint = layer.colour() == null || layer.colour().measure() == null
                    ? Measure.ROWS
                    : layer.colour().measure();
            List<String> ends = List.of(RolledUp.from(column), column);
            shown = rows.ask(ends, List.of(size, tint));
            whole = rows.domain(
                    ends,
                    List.of(size, tint),
                    layer.colour() == null ? null : layer.colour().domain());
            colour = layer.colour() == null || layer.colour().standsForNothing()
                    ? null
                    : scales.worn(layer.colour(), coloursSaid);
            colourCounts = colour == null || colour.category() == null ? null : rows.counts(ends, colour.category());
            sheet = rows.sheet(column);
        }

        LayerDrawn draw(Answers answers, List<String> notes) {
            Frame frame = answers.of(shown);
            double[] values = frame.values().get(0);
            int[] all = between(frame);
            int within = frame.size() - all.length;
            if (within > 0)
                notes.add(phrase(
                        "{0, plural, one {# flow stays where it begins and is not drawn.} other {# flows stay where they begin and are not drawn.}}",
                        within));
            int[] order = Arrays.stream(all)
                    .boxed()
                    .sorted(Comparator.comparingDouble(
                                    (Integer g) -> Double.isNaN(values[g]) ? 0 : -Math.abs(values[g]))
                            .thenComparing(g -> LayerRows.key(frame, g, 2)))
                    .limit(MOST_FLOWS)
                    .mapToInt(g -> g)
                    .toArray();
            if (order.length < all.length && !rows.dataset().addsUp(size)) {
                notes.add(phrase("The {0} largest of {1} flows are drawn.", MOST_FLOWS, all.length));
            } else if (order.length < all.length) {
                double told = sum(values, order) / sum(values, all);
                if (told < LEAST_TOLD) {
                    notes.add(phrase(
                            "{0} flows are too many: the {1} largest hold {2} % of all. Narrow first, for example to one origin or one period.",
                            all.length, MOST_FLOWS, Rounded.up(told * 100)));
                    order = new int[0];
                } else {
                    notes.add(phrase(
                            "The {0} largest of {1} flows are drawn; they hold {2} % of all.",
                            MOST_FLOWS, all.length, Rounded.up(told * 100)));
                }
            }
            return drawn(frame, order, all, answers, notes);
        }

        private LayerDrawn drawn(Frame frame, int[] order, int[] all, Answers answers, List<String> notes) {
            double[] values = frame.values().get(0);
            double largest = Math.max(
                    layer.size() == null || layer.size().largest() == null
                            ? 0
                            : layer.size().largest(),
                    Math.max(largest(answers.of(whole)), largest(frame)));
            double widest = layer.size() == null ? ONE_WIDTH : layer.size().radius() / 2;
            double[] widths = Arrays.stream(order)
                    .mapToDouble(g -> width(values[g], largest, widest))
                    .toArray();
            Colouring colouring = colouring(frame, order, answers, notes);
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
            // Of what does not add up there is nothing to tell of all that goes out and comes in.
            boolean addsUp = rows.dataset().addsUp(size);
            for (int g : all) {
                if (!Double.isFinite(values[g])) continue;
                double value = addsUp ? values[g] : Double.NaN;
                ends.computeIfAbsent(sheet.index().get(frame.key(0, g)), p -> new double[2])[0] += value;
                ends.computeIfAbsent(sheet.index().get(frame.key(1, g)), p -> new double[2])[1] += value;
            }
            if (order.length == 0) ends.clear();
            boolean tinted = layer.colour() != null && layer.colour().measure() != null;
            return new LayerDrawn.OfFlows(
                    rows.head(notes),
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
                    ends.values().stream()
                            .mapToDouble(e -> NumberWords.shown(e[0]))
                            .toArray(),
                    ends.values().stream()
                            .mapToDouble(e -> NumberWords.shown(e[1]))
                            .toArray(),
                    key);
        }

        /** The largest flow between two places. */
        private static double largest(Frame frame) {
            return Arrays.stream(between(frame))
                    .mapToDouble(g -> Math.abs(frame.value(0, g)))
                    .filter(Double::isFinite)
                    .max()
                    .orElse(0);
        }

        private Colouring colouring(Frame frame, int[] order, Answers answers, List<String> notes) {
            if (colour == null) return Colouring.one(layer.colour(), order.length);
            notes.addAll(coloursSaid);
            if (colour.category() == null) {
                Frame domain = answers.of(whole);
                return Colouring.byMeasure(
                        colour,
                        Arrays.stream(order).mapToDouble(g -> frame.value(1, g)).toArray(),
                        Arrays.stream(between(domain))
                                .mapToDouble(g -> domain.value(1, g))
                                .toArray(),
                        rows.dataset().words(colour.measure()),
                        rows.dataset().read(colour.measure()));
            }
            Map<String, String> values = LayerRows.commonest(answers.of(colourCounts));
            return Colouring.byCategory(
                    colour,
                    Arrays.stream(order)
                            .mapToObj(g -> values.get(LayerRows.key(frame, g, 2)))
                            .toList(),
                    rows.dataset().table().column(colour.category()),
                    ColumnWords.of(colour.category()));
        }
    }

    private static double width(double value, double largest, double widest) {
        if (!Double.isFinite(value) || value == 0 || largest == 0) return 0;
        return Math.max(THINNEST, Rounded.up(widest * Math.min(1, Math.abs(value) / largest) * 100) / 100.0);
    }

    /** Groups that lead from one place to another. */
    private static int[] between(Frame frame) {
        return IntStream.range(0, frame.size())
                .filter(g -> !frame.key(0, g).equals(frame.key(1, g)))
                .toArray();
    }

    private static double sum(double[] values, int[] groups) {
        return Sums.of(Arrays.stream(groups)
                .mapToDouble(g -> Math.abs(values[g]))
                .filter(Double::isFinite)
                .toArray());
    }
}
