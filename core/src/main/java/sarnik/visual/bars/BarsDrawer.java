package sarnik.visual.bars;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.language.Language;
import sarnik.query.Frame;
import sarnik.query.Rank;
import sarnik.scale.Aligned;
import sarnik.scale.Palette;
import sarnik.table.Sums;
import sarnik.visual.Axis;
import sarnik.visual.CategoryColours;
import sarnik.visual.Key;
import sarnik.visual.Reference;
import sarnik.visual.Scene;
import sarnik.visual.SureRates;
import sarnik.visual.Trail;
import sarnik.visual.Written;

/** Draws bars of the answers. */
final class BarsDrawer {

    /** Without a rank at most this many bars are drawn; how many more there are is said. */
    static final int MOST_BARS = 60;

    /** What a bar of the earliest date has of the span of all. */
    private static final double BEFORE_THE_FIRST = 0.05;

    private final Bars bars;
    private final LoadedDataset dataset;
    private final Scene scene;
    private final UnaryOperator<String> labels;
    private final Written written;
    private final Frame held;
    private final List<String> notes;

    /**
     * @param labels what a bar's key is called
     * @param held what the axis has room for besides what is drawn: values by key, step and, in parts, part; null for
     *     nothing
     * @param notes what is not as it was asked for
     */
    BarsDrawer(
            Bars bars,
            LoadedDataset dataset,
            Scene scene,
            UnaryOperator<String> labels,
            Frame held,
            List<String> notes) {
        this.held = held;
        this.notes = new ArrayList<>(notes);
        this.bars = bars;
        this.dataset = dataset;
        this.scene = scene;
        this.labels = labels;
        written = Written.of(dataset, bars.measure(), bars.format());
    }

    /** A bar on its way: its key, its value, and whether it is one of the others. */
    private record Row(String key, String label, double value, boolean after) {}

    /**
     * @param rates how sure the rates of keys are; empty where nothing is known of that
     */
    BarsDrawing draw(
            Frame frame, double others, Frame parts, CategoryColours colours, Map<String, SureRates.Sure> rates) {
        int shown = Math.min(frame.size(), MOST_BARS);
        List<Row> rows = rows(frame, shown, others);
        double[] values = rows.stream().mapToDouble(Row::value).toArray();
        List<String> texts = written.column(values);
        List<Reference.Drawn> references =
                Reference.drawn(bars.references(), frame.values().get(0), scene, written);
        boolean inParts = parts != null;
        Map<String, List<BarsDrawing.Part>> made = new LinkedHashMap<>();
        Axis axis;
        Set<String> worn = new LinkedHashSet<>();
        if (inParts) {
            Parts of = new Parts(parts, colours);
            axis = of.axis(rows, references);
            for (Row row : rows) made.put(row.key(), of.parts(row, axis, worn));
        } else {
            axis = axis(values, references);
        }
        List<BarsDrawing.Bar> drawn = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            Row row = rows.get(i);
            boolean amount = written.read().isAmount();
            double value = !Double.isNaN(row.value()) ? row.value() : amount ? 0 : axis.low();
            double from = amount ? Math.min(0, value) : axis.low();
            double to = amount ? Math.max(0, value) : value;
            drawn.add(new BarsDrawing.Bar(
                    row.key(),
                    row.label(),
                    axis.at(from),
                    axis.at(to),
                    texts.get(i),
                    written.full(row.value()),
                    row.after(),
                    inParts ? made.get(row.key()) : null,
                    row.key() == null ? null : sure(rates.get(row.key()), axis)));
        }
        String words = ColumnWords.of(bars.measure());
        Bars.Layout layout = bars.stands();
        if (drawn.stream().anyMatch(bar -> bar.sure() != null && bar.sure().unsure()))
            notes.add(phrase("Hatched bars rest on too few to be sure."));
        if (inParts
                && layout == Bars.Layout.SHARES
                && Arrays.stream(parts.values().get(0)).anyMatch(v -> v < 0))
            notes.add(phrase("Parts below zero are drawn by their size."));
        return new BarsDrawing(
                Scene.titleOf(bars, phrase("{0} by {1}", words, ColumnWords.of(bars.category()))),
                words,
                drawn,
                frame.size() - shown,
                axis,
                inParts ? layout.name().toLowerCase(Locale.ROOT) : null,
                Boolean.TRUE.equals(bars.upright()),
                inParts ? swatches(worn, colours) : List.of(),
                inParts && layout == Bars.Layout.SHARES
                        ? List.of()
                        : references.stream().map(r -> r.on(axis)).toList(),
                bars.pinned() == null ? List.of() : bars.pinned(),
                notes,
                Trail.of(frame.trail()));
    }

    private BarsDrawing.Sure sure(SureRates.Sure rate, Axis axis) {
        if (rate == null || !rate.interval().isKnown()) return null;
        return new BarsDrawing.Sure(
                Math.max(0, axis.at(rate.interval().low())),
                axis.at(rate.interval().high()),
                phrase(
                        "{0} to {1}",
                        written.full(rate.interval().low()),
                        written.full(rate.interval().high())),
                rate.unsure());
    }

    private List<Row> rows(Frame frame, int shown, double others) {
        boolean both = bars.rank() != null && bars.rank().end() == Rank.End.BOTH;
        // The most come first, so the least begin where as many as were asked for have been; few make no gap.
        int gap = both && shown > bars.rank().count() ? shown - bars.rank().count() : -1;
        if (both && shown < 2 * bars.rank().count()) gap = -1;
        List<Row> rows = new ArrayList<>();
        for (int g = 0; g < shown; g++) {
            if (g == gap && !Double.isNaN(others)) rows.add(new Row(null, phrase("others"), others, true));
            rows.add(new Row(frame.key(0, g), labels.apply(frame.key(0, g)), frame.value(0, g), g == gap));
        }
        if (gap < 0 && !Double.isNaN(others)) rows.add(new Row(null, phrase("others"), others, true));
        return rows;
    }

    private Axis axis(double[] values, List<Reference.Drawn> references) {
        double[] known = DoubleStream.concat(
                        DoubleStream.concat(
                                Arrays.stream(values),
                                held == null
                                        ? DoubleStream.empty()
                                        : Arrays.stream(held.values().get(0))),
                        references.stream().flatMapToDouble(Reference.Drawn::ends))
                .filter(Double::isFinite)
                .toArray();
        double least = Arrays.stream(known).min().orElse(0);
        double most = Arrays.stream(known).max().orElse(0);
        if (written.read().isAmount()) {
            Axis round = Axis.of(least, most, true, written, dataset.words(bars.measure()));
            // The longest bar takes all the room there is; the axis is marked where it is round.
            return tight(round, Math.min(0, least), Math.max(0, most));
        }
        // Dates have no zero to start at: their bars start a little before the first.
        double low = least - (most - least) * BEFORE_THE_FIRST;
        return new Axis(low, most == low ? low + 1 : most, List.of(), dataset.words(bars.measure()));
    }

    /** An axis cut to its values, with the marks that lie within. */
    private static Axis tight(Axis round, double low, double high) {
        if (!(high > low)) return new Axis(0, 1, List.of(), round.words());
        List<Axis.Tick> ticks = round.ticks().stream()
                .map(t -> new Axis.Tick(
                        (round.low() + t.at() * (round.high() - round.low()) - low) / (high - low), t.text()))
                .filter(t -> t.at() >= -1e-9 && t.at() <= 1 + 1e-9)
                .toList();
        return new Axis(low, high, ticks, round.words());
    }

    private static List<Key.Swatch> swatches(Set<String> worn, CategoryColours colours) {
        List<Key.Swatch> swatches = new ArrayList<>();
        boolean others = false;
        for (String value : colours.inOrder(List.copyOf(worn))) {
            if (colours.of(value).equals(Palette.OTHERS)) others = true;
            else swatches.add(new Key.Swatch(colours.of(value), value, 0));
        }
        if (others) swatches.add(new Key.Swatch(Palette.OTHERS, phrase("others"), 0));
        return swatches;
    }

    /** The parts of bars. */
    private final class Parts {

        private final Map<String, Map<String, Double>> byBar = new LinkedHashMap<>();
        private final List<String> order;
        private final CategoryColours colours;
        private final Bars.Layout layout = bars.stands();

        Parts(Frame frame, CategoryColours colours) {
            this.colours = colours;
            Set<String> all = new LinkedHashSet<>();
            for (int g = 0; g < frame.size(); g++) {
                String series = frame.key(1, g) == null ? phrase("(missing)") : frame.key(1, g);
                byBar.computeIfAbsent(String.valueOf(frame.key(0, g)), k -> new LinkedHashMap<>())
                        .put(series, frame.value(0, g));
                all.add(series);
            }
            order = colours.inOrder(List.copyOf(all));
        }

        private Map<String, Double> of(Row row) {
            return byBar.getOrDefault(String.valueOf(row.key()), Map.of());
        }

        Axis axis(List<Row> rows, List<Reference.Drawn> references) {
            if (layout == Bars.Layout.SHARES) {
                List<Axis.Tick> ticks = IntStream.rangeClosed(0, 4)
                        .mapToObj(i -> new Axis.Tick(i / 4.0, i * 25 + " %"))
                        .toList();
                return new Axis(0, 1, ticks, phrase("share"));
            }
            double low = 0;
            double high = 0;
            List<Map<String, Double>> all = new ArrayList<>();
            rows.forEach(row -> all.add(of(row)));
            all.addAll(heldBars());
            for (Map<String, Double> bar : all) {
                double[] ends = ends(bar);
                low = Math.min(low, ends[0]);
                high = Math.max(high, ends[1]);
            }
            for (Reference.Drawn reference : references) {
                low = Math.min(low, reference.ends().min().orElse(0));
                high = Math.max(high, reference.ends().max().orElse(0));
            }
            return tight(Axis.of(low, high, true, written, dataset.words(bars.measure())), low, high);
        }

        /** How far the parts of a bar reach below and above zero. */
        private double[] ends(Map<String, Double> bar) {
            double below = 0;
            double above = 0;
            for (Map.Entry<String, Double> part : bar.entrySet()) {
                double value = part.getValue();
                if (!Double.isFinite(value)) continue;
                if (layout == Bars.Layout.BACK)
                    value = part.getKey().equals(order.get(0)) ? -Math.abs(value) : Math.abs(value);
                if (layout == Bars.Layout.STACKED && value < 0) below += value;
                else if (layout == Bars.Layout.STACKED) above += value;
                else {
                    below = Math.min(below, value);
                    above = Math.max(above, value);
                }
            }
            return new double[] {below, above};
        }

        /** The bars of all steps, each as its parts. */
        private Collection<Map<String, Double>> heldBars() {
            Map<String, Map<String, Double>> all = new LinkedHashMap<>();
            for (int g = 0; held != null && g < held.size(); g++)
                all.computeIfAbsent(held.key(0, g) + " " + held.key(1, g), k -> new HashMap<>())
                        .put(held.key(2, g), held.value(0, g));
            return all.values();
        }

        List<BarsDrawing.Part> parts(Row row, Axis axis, Set<String> worn) {
            Map<String, Double> values = of(row);
            double sum = Sums.of(values.values().stream()
                    .filter(Double::isFinite)
                    .mapToDouble(Math::abs)
                    .toArray());
            double above = 0;
            double below = 0;
            List<BarsDrawing.Part> parts = new ArrayList<>();
            for (int s = 0; s < order.size(); s++) {
                double value = values.getOrDefault(order.get(s), Double.NaN);
                if (!Double.isFinite(value)) continue;
                double from = 0;
                double to = value;
                if (layout == Bars.Layout.SHARES) {
                    from = above;
                    to = above + (sum == 0 ? 0 : Math.abs(value) / sum);
                    above = to;
                } else if (layout == Bars.Layout.BACK) {
                    // More than two have no side of their own.
                    if (s > 1) continue;
                    to = s == 0 ? -Math.abs(value) : Math.abs(value);
                } else if (layout == Bars.Layout.STACKED) {
                    from = value < 0 ? below : above;
                    to = from + value;
                    if (value < 0) below = to;
                    else above = to;
                }
                worn.add(order.get(s));
                String share = layout == Bars.Layout.SHARES
                                && sum > 0
                                && !Language.spoken().isForFiles()
                        ? " (" + Aligned.written(100 * Math.abs(value) / sum, 0) + " %)"
                        : "";
                parts.add(new BarsDrawing.Part(
                        colours.of(order.get(s)),
                        order.get(s),
                        axis.at(Math.min(from, to)),
                        axis.at(Math.max(from, to)),
                        written.full(value) + share));
            }
            return parts;
        }
    }
}
