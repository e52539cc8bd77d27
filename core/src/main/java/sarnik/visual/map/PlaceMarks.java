package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.OwnShapes;
import sarnik.data.PlaceSheet;
import sarnik.geo.Area;
import sarnik.place.Placing;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.scale.NumberWords;
import sarnik.scale.Palette;
import sarnik.statistics.RateOf;
import sarnik.statistics.Rates;
import sarnik.table.Column;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Colour;
import sarnik.visual.Colouring;
import sarnik.visual.Key;
import sarnik.visual.Key.ShapeSwatch;
import sarnik.visual.Scales;

/**
 * What layers with one mark for each place ask and draw alike: colours, shapes and labels. The first measure of their
 * query is what the layer is about, the second the colour, then what labels need.
 */
final class PlaceMarks {

    /** Beyond this many labels none would find room. */
    private static final int MOST_LABELS = 4_000;

    private final LayerRows rows;
    private final Layer layer;
    private final String column;
    /** The colours with the scale that is worn; null where all have one colour. */
    private final Colour colour;

    private final List<String> coloursSaid = new ArrayList<>();
    private final PlaceSheet sheet;
    private final Asked shown;
    private final Asked whole;
    private final Asked colourCounts;
    private final Asked shapeCounts;
    private final Asked labelCounts;
    /** The rates by what they were counted of; null where the colour stands for none. */
    private final Trusted trusted;

    /**
     * @param first what the layer is about
     */
    PlaceMarks(LayerRows rows, Scales scales, String column, Measure first) {
        this.rows = rows;
        this.layer = rows.layer;
        this.column = column;
        List<Measure> measures = measures(first);
        trusted = trusted();
        shown = rows.ask(List.of(column), measures);
        colour = layer.colour() == null || layer.colour().standsForNothing()
                ? null
                : scales.worn(layer.colour(), coloursSaid);
        whole = rows.domain(
                List.of(column),
                measures,
                layer.colour() == null ? null : layer.colour().domain());
        colourCounts =
                colour == null || colour.category() == null ? null : rows.counts(List.of(column), colour.category());
        shapeCounts = layer.symbol() == null || layer.symbol().category() == null
                ? null
                : rows.counts(List.of(column), layer.symbol().category());
        labelCounts = layer.label() == null || layer.label().column() == null
                ? null
                : rows.counts(List.of(column), layer.label().column());
        sheet = rows.sheet(column);
    }

    /** The colour and what labels need behind what the layer is about. */
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
        if (turn() != null) measures.add(new Measure(Summary.AVERAGE, turn()));
        return measures;
    }

    private Trusted trusted() {
        Chance chance = layer.chance();
        boolean changed = chance != null && (chance.isToward() || chance.ages() != null);
        if (!isByMeasure() || chance != null && chance.of() == Chance.Of.NONE && !changed) return null;
        Optional<LoadedDataset.Rate> rate = layer.colour().per() != null
                ? Optional.empty()
                : rows.rate(layer.colour().measure());
        if (rate.isEmpty() && changed)
            coloursSaid.add(phrase(
                    "{0} is no sum divided by another, so it is shown as it is.",
                    ColumnWords.of(layer.colour().measure())));
        boolean guessed = rate.isPresent() && rate.get().mayBeGuessed();
        if (rate.isEmpty() || !changed && !guessed && (chance == null || chance.of() == null)) return null;
        return new Trusted(rows, rate.get(), column, layer.colour().domain());
    }

    private String turn() {
        return layer.kind() != Layer.Kind.SYMBOLS || layer.symbol() == null
                ? null
                : layer.symbol().turn();
    }

    /** Towards where each mark points, degrees clockwise from north; null where none does. */
    double[] turns(Answers answers, int[] order) {
        if (turn() == null) return null;
        List<double[]> values = answers.of(shown).values();
        return rounded(picked(values.get(values.size() - 1), order));
    }

    PlaceSheet sheet() {
        return sheet;
    }

    String column() {
        return column;
    }

    Asked shown() {
        return shown;
    }

    /** The same of what scales rest on. */
    Frame whole(Answers answers) {
        return answers.of(whole);
    }

    /** Groups of an answer that have a place. */
    int[] placed(Frame frame) {
        return IntStream.range(0, frame.size())
                .filter(g -> sheet.index().containsKey(frame.key(0, g)))
                .toArray();
    }

    int[] at(Frame frame, int[] order) {
        return Arrays.stream(order).map(g -> sheet.index().get(frame.key(0, g))).toArray();
    }

    static double[] picked(double[] values, int[] order) {
        return Arrays.stream(order).mapToDouble(g -> values[g]).toArray();
    }

    static double[] rounded(double[] values) {
        return Arrays.stream(values).map(NumberWords::shown).toArray();
    }

    boolean isByMeasure() {
        return layer.colour() != null && layer.colour().measure() != null;
    }

    // --- colours ---------------------------------------------------------------------------------------

    /**
     * The marks' colours.
     *
     * @param colouring classes, and what they mean
     * @param tints the colour measure of each; null where colours stand for none
     * @param trust how far they can be trusted; null where nothing is told of it
     */
    record Coloured(Colouring colouring, double[] tints, LayerDrawn.Trust trust) {}

    Coloured coloured(Answers answers, int[] order, List<String> notes) {
        if (colour == null) return new Coloured(Colouring.one(layer.colour(), order.length), null, null);
        notes.addAll(coloursSaid);
        if (colour.category() != null) return new Coloured(byCategory(answers, order), null, null);
        Frame frame = answers.of(shown);
        Trusted.Shown rates = trusted == null
                ? null
                : trusted.shown(
                        answers,
                        Arrays.stream(order).mapToObj(g -> frame.key(0, g)).toList());
        boolean changed = rates != null && trusted.changes();
        double[] tints = changed ? rates.values() : tints(frame, order, notes);
        LayerDrawn.Trust trust = rates == null ? null : rates.trust();
        String words = changed ? trusted.words(tintWords()) : tintWords();
        if (layer.chance() != null && layer.chance().clusters() != null)
            return clusters(at(frame, order), tints, words, trust, notes);
        Frame domain = answers.of(whole);
        Colouring colouring = Colouring.byMeasure(
                colour,
                tints,
                changed ? rates.domain() : tints(domain, placed(domain), new ArrayList<>()),
                words,
                rows.dataset().read(colour.measure()));
        return marked(new Coloured(colouring, tints, trust), rates);
    }

    /** With a key that says what is hatched. */
    private Coloured marked(Coloured coloured, Trusted.Shown rates) {
        if (rates == null || rates.trust() == null || rates.trust().unsure().length == 0) return coloured;
        Key key = coloured.colouring().key().unsure(rates.trust().unsure().length, unsureWords(rates.of()));
        if (trusted.isGuessed())
            key = key.hinted(List.of(phrase(
                    "Taken for a rate of {0}: if it is not, say so in the brief.",
                    rates.of() == RateOf.SHARE ? phrase("what is one or not") : phrase("what is counted"))));
        return new Coloured(new Colouring(coloured.colouring().classes(), key), coloured.tints(), coloured.trust());
    }

    private static String unsureWords(RateOf of) {
        return of == RateOf.SHARE
                ? phrase("of too few to be sure")
                : phrase("fewer than {0} counted", Rates.FEWEST_EVENTS);
    }

    private Coloured clusters(int[] at, double[] values, String words, LayerDrawn.Trust trust, List<String> notes) {
        Palette palette = Palette.ALL.get(layer.colour().choice().palette());
        if (palette == null || palette.kind() != Palette.Kind.DIVERGING)
            palette = Palette.ALL.get(Palette.names(Palette.Kind.DIVERGING).get(0));
        FoundClusters.Drawn found = FoundClusters.draw(
                layer.chance().clusters(),
                rows.dataset(),
                sheet,
                at,
                values,
                layer.kind() == Layer.Kind.SHAPES
                        ? null
                        : setOf(layer, rows.dataset()).orElse(null),
                palette,
                words,
                notes);
        return new Coloured(
                found.colouring(),
                values,
                new LayerDrawn.Trust(
                        trust == null ? null : trust.lows(),
                        trust == null ? null : trust.highs(),
                        // What was found rests on the neighbours as well, not on the one that is coloured.
                        new int[0],
                        found.falses()));
    }

    private Colouring byCategory(Answers answers, int[] order) {
        Frame frame = answers.of(shown);
        Column column = rows.dataset().table().column(colour.category());
        Map<String, String> values = layer.symbol() != null && layer.symbol().lastOnTop()
                ? LayerRows.last(
                        answers.of(colourCounts), Colouring.order(column, colour.order(), Colouring.MOST_CATEGORIES))
                : LayerRows.commonest(answers.of(colourCounts));
        return Colouring.byCategory(
                colour,
                Arrays.stream(order).mapToObj(g -> values.get(frame.key(0, g))).toList(),
                column,
                ColumnWords.of(colour.category()));
    }

    private String tintWords() {
        String words = rows.dataset().words(layer.colour().measure());
        return "km2".equals(layer.colour().per()) ? phrase("{0} per km²", words) : words;
    }

    private double[] tints(Frame frame, int[] order, List<String> notes) {
        double[] values = picked(frame.values().get(1), order);
        if (!"km2".equals(layer.colour().per())) return values;
        Map<String, Double> sizes = sizes();
        if (sizes.isEmpty())
            notes.add(phrase("Only areas have a size to divide by, so the measure is shown as it is."));
        else if (!rows.dataset().addsUp(layer.colour().measure()))
            notes.add(phrase(
                    "“{0}” does not add up, so what it is for a km² says little.",
                    ColumnWords.of(layer.colour().measure())));
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

    /** The boundary set whose areas a layer shows: the one it names, or the one its rows are placed by. */
    static Optional<String> setOf(Layer layer, LoadedDataset dataset) {
        if (layer.set() != null) return Optional.of(layer.set());
        return dataset.placing() instanceof Placing.ByArea area ? Optional.of(area.set()) : Optional.empty();
    }

    // --- areas and own shapes ------------------------------------------------------------------------

    /** A layer that fills what lies there: areas of a boundary set, or the rows' own shapes. */
    LayerPlan filled(String set, OwnShapes own) {
        return new LayerPlan(shown, (answers, notes) -> {
            Frame frame = answers.of(shown);
            int[] order = placed(frame);
            Coloured coloured = coloured(answers, order, notes);
            Key key = coloured.colouring().key();
            if (isByMeasure()
                    && layer.colour().per() == null
                    && isSum(layer.colour().measure())
                    && (own == null || own.mayHaveAreas())) {
                key = key.hinted(List.of(phrase(
                        "Large areas make large sums. Divide “{0}” by people in a formula, or by the size of the area in the brief.",
                        ColumnWords.of(layer.colour().measure()))));
            }
            Labels labels = labels(answers, order);
            double[] values =
                    isByMeasure() ? coloured.tints() : picked(frame.values().get(0), order);
            return new LayerDrawn.OfAreas(
                    rows.head(notes),
                    set,
                    own == null ? null : own.tag(),
                    sheet.tag(),
                    at(frame, order),
                    coloured.colouring().classes(),
                    rounded(values),
                    labels.texts(),
                    labels.ranks(),
                    coloured.trust(),
                    key);
        });
    }

    private static boolean isSum(Measure measure) {
        return measure.summary() == Summary.SUM
                || measure.summary() == Summary.COUNT
                || measure.summary() == Summary.DISTINCT;
    }

    // --- shapes and labels -----------------------------------------------------------------------------

    /**
     * @param of shape of each mark; null where all have one
     * @param one the shape of all
     */
    record Shapes(int[] of, int one, List<ShapeSwatch> swatches) {}

    Shapes shapes(Answers answers, int[] order) {
        Frame frame = answers.of(shown);
        Layer.Symbol symbol = layer.symbol();
        if (symbol == null) return new Shapes(null, 0, List.of());
        if (symbol.category() == null)
            return new Shapes(null, symbol.shape() == null ? 0 : symbol.shape().ordinal(), List.of());
        int most = Layer.Shape.values().length - 1;
        // Where colours stand for the same, they say the order: a state keeps its sign however many there are of each.
        List<String> first = colour != null && symbol.category().equals(colour.category()) ? colour.order() : null;
        List<String> values = Colouring.order(rows.dataset().table().column(symbol.category()), first, most);
        Map<String, String> of = LayerRows.commonest(answers.of(shapeCounts));
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
        if (counts[most] > 0) swatches.add(new ShapeSwatch(most, phrase("others"), counts[most]));
        return new Shapes(shapes, 0, swatches);
    }

    record Labels(List<String> texts, int[] ranks) {}

    Labels labels(Answers answers, int[] order) {
        Frame frame = answers.of(shown);
        Layer.Label label = layer.label();
        if (label == null) return new Labels(null, null);
        boolean byColumn = label.column() != null;
        Map<String, String> values = byColumn ? LayerRows.commonest(answers.of(labelCounts)) : Map.of();
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
