package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import sarnik.data.ColumnWords;
import sarnik.data.RolledUp;
import sarnik.data.Rule;
import sarnik.query.Condition;
import sarnik.query.Measure;
import sarnik.query.Stage;
import sarnik.scale.CircleSizes;
import sarnik.visual.Colour;

/**
 * A layer of a map. One record for all kinds, so that a layer whose kind is changed keeps all it was told: what a kind
 * does not use waits until it is changed back.
 *
 * @param kind what is drawn; null for symbols
 * @param order its place in the pile of layers
 * @param dataset id of the dataset; 0 for a kind that draws no data
 * @param name what readers call it; null for a name made of what it shows
 * @param hidden whether it is hidden until the reader shows it; null for no
 * @param size how large symbols and how wide flows are; null for one size
 * @param colour how they are coloured; null for one colour
 * @param symbol the shape of symbols; null for circles
 * @param gather whether crowded symbols gather into groups; null for no
 * @param set name of the boundary set of whose areas places are counted; null for places as they are. Of outlines the
 *     boundary set, of pictures the source
 * @param spread how density spreads about a point; null for 12 pixels
 * @param path how points are joined; null where they are not
 * @param label what is written beside places; null for nothing
 * @param tip what is told of a place besides, when it is hovered or picked; null for nothing
 * @param border the width of borders, pixels; null for a thin one
 * @param opacity 0 to 1
 * @param rule a standing rule; null for none
 * @param period days that the layer keeps to; null for all
 * @param chance how far its rates can be trusted, and what is more than chance; null for what can be guessed
 */
public record Layer(
        Kind kind,
        int order,
        Long dataset,
        String name,
        Boolean hidden,
        Size size,
        Colour colour,
        Symbol symbol,
        Boolean gather,
        String set,
        Spread spread,
        Path path,
        Label label,
        Tip tip,
        Double border,
        double opacity,
        Rule rule,
        Period period,
        Chance chance) {

    /**
     * Beyond this many places symbols are gathered whether or not that was asked for: more cannot be told apart or
     * drawn at once.
     */
    public static final int MOST_APART = 50_000;

    private static final double USUAL_BORDER = 0.8;

    /** What a layer draws. */
    public enum Kind {
        SYMBOLS("symbols", new Symbols()),
        AREAS("areas", new Areas()),
        /** The lines, areas and points that the rows brought along. */
        SHAPES("own shapes", new RowShapes()),
        DENSITY("density", new Density()),
        FLOWS("flows", new Flows()),
        PATHS("paths", new Paths()),
        OUTLINES("outlines", new Outlines()),
        PICTURES("pictures", new FromElsewhere());

        private final String words;
        private final LayerKind room;
        private final LayerKind.Bare bare;

        Kind(String words, LayerKind room) {
            this.words = words;
            this.room = room;
            this.bare = null;
        }

        Kind(String words, LayerKind.Bare bare) {
            this.words = words;
            this.room = null;
            this.bare = bare;
        }

        /** Whether it draws data. */
        public boolean hasData() {
            return bare == null;
        }

        LayerKind.Bare bare() {
            return bare;
        }

        public String words() {
            return words;
        }

        LayerKind room() {
            return room;
        }
    }

    public Layer {
        if (kind == null) kind = Kind.SYMBOLS;
        if (dataset == null) dataset = 0L;
    }

    /**
     * @param measure what sizes stand for
     * @param rule how they grow
     * @param radius the largest symbol's radius, pixels; a flow is half as wide
     * @param largest the amount that gets the largest symbol; null for the largest there is
     * @param offered measures among which the reader chooses; null for none
     */
    public record Size(Measure measure, CircleSizes.Rule rule, double radius, Double largest, List<Measure> offered) {

        /** The same sizes by another measure; the amount of the largest belongs to the values, so it is found anew. */
        Size by(Measure other) {
            return other.equals(measure) ? this : new Size(other, rule, radius, null, offered);
        }
    }

    /**
     * @param shape one of {@link Shape}; null where a category chooses
     * @param category column whose values have a shape each; null where all have one
     * @param turn column of headings, degrees clockwise from north, towards which each points; null for none
     * @param last whether the colours that come last in their order lie on top, and are those of groups: the worst
     *     where the order leads from good to bad; null for the commonest
     */
    public record Symbol(Shape shape, String category, String turn, Boolean last) {

        boolean lastOnTop() {
            return Boolean.TRUE.equals(last);
        }
    }

    /** The shapes of symbols. */
    public enum Shape {
        CIRCLE,
        SQUARE,
        DIAMOND,
        TRIANGLE,
        STAR,
        DROP,
        RING,
        CROSS;

        public String words() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    /**
     * @param radius how far a point is felt
     * @param metres whether in metres on the ground, else in pixels
     */
    public record Spread(double radius, boolean metres) {}

    /**
     * Points joined in order.
     *
     * @param who column that tells one path from another
     * @param by column of the order: numbers, dates or times
     * @param breakMinutes a path is broken where the next point comes later than this; null for never
     * @param breakMetres a path is broken where the next point lies farther than this; null for never
     */
    public record Path(String who, String by, Double breakMinutes, Double breakMetres) {}

    /**
     * @param column column that is written; null for the place's name, or the measure where there is one
     * @param measure measure that is written below; null for none
     * @param priority measure by which labels give way to others; null for the size
     */
    public record Label(String column, Measure measure, Measure priority) {}

    /**
     * @param measures told of a place besides what it shows
     * @param columns values of a place that are listed
     * @param over column over whose values the first measure is drawn as a tiny chart; null for no chart
     * @param text a sentence in which {@code {place}} and the names of what is told stand in braces; null for a list
     */
    public record Tip(List<Measure> measures, List<String> columns, String over, String text) {}

    /**
     * Both ends included; null for open.
     */
    public record Period(String column, LocalDate from, LocalDate to) {

        /** Stages, and behind them that of the period. */
        static List<Stage> kept(List<Stage> stages, Period period) {
            if (period == null) return stages;
            String from = period.from == null ? null : period.from.toString();
            String to = period.to == null ? null : period.to.toString();
            String of = ColumnWords.of(period.column);
            List<Stage> all = new ArrayList<>(stages);
            all.add(new Stage(
                    from == null
                            ? phrase("The layer keeps to {0} up to {1}", of, to)
                            : to == null
                                    ? phrase("The layer keeps to {0} from {1}", of, from)
                                    : phrase("The layer keeps to {0} from {1} to {2}", of, from, to),
                    List.of(new Condition.Between(period.column, from, to))));
            return all;
        }
    }

    /** A layer of a dataset of which nothing else is said yet. */
    static Layer of(Kind kind, long dataset) {
        return new Layer(
                kind, 1, dataset, null, null, null, null, null, null, null, null, null, null, null, null, 0.75, null,
                null, null);
    }

    Layer sized(Size by) {
        return new Layer(
                kind, order, dataset, name, hidden, by, colour, symbol, gather, set, spread, path, label, tip, border,
                opacity, rule, period, chance);
    }

    Layer coloured(Colour by) {
        return new Layer(
                kind, order, dataset, name, hidden, size, by, symbol, gather, set, spread, path, label, tip, border,
                opacity, rule, period, chance);
    }

    Layer joined(Path in) {
        return new Layer(
                kind, order, dataset, name, hidden, size, colour, symbol, gather, set, spread, in, label, tip, border,
                opacity, rule, period, chance);
    }

    /** The columns that the layer shows, tells or keeps to. */
    Set<String> columns() {
        Set<String> columns = new LinkedHashSet<>();
        List<Measure> measures = new ArrayList<>();
        if (size != null) offer(measures, size.measure(), size.offered());
        if (colour != null) {
            offer(measures, colour.measure(), colour.offered());
            columns.add(colour.category());
        }
        if (symbol != null) columns.addAll(Arrays.asList(symbol.category(), symbol.turn()));
        if (path != null) columns.addAll(Arrays.asList(path.who(), path.by()));
        if (label != null) {
            columns.add(label.column());
            offer(measures, label.measure(), null);
        }
        if (tip != null) {
            offer(measures, null, tip.measures());
            if (tip.columns() != null) columns.addAll(tip.columns());
            columns.add(tip.over());
        }
        if (period != null) columns.add(period.column());
        if (chance != null && chance.ages() != null) columns.add(chance.ages().band());
        measures.forEach(m -> columns.add(m.column()));
        columns.remove(null);
        return columns;
    }

    private static void offer(List<Measure> measures, Measure one, List<Measure> more) {
        if (one != null) measures.add(one);
        if (more != null) measures.addAll(more);
    }

    /** The width of its borders, pixels. */
    double borderOrUsual() {
        return border == null ? USUAL_BORDER : border;
    }

    /** Whether it is hidden until the reader shows it. */
    public boolean startsHidden() {
        return Boolean.TRUE.equals(hidden);
    }

    /**
     * Whether it fills or draws what lies there, rather than setting marks: it has no sizes, but borders and words for
     * each place.
     */
    boolean isOfShapes() {
        return kind == Kind.AREAS || kind == Kind.SHAPES;
    }

    /** The column whose values the layer's marks are. */
    public String placeColumn() {
        return set == null || kind == Kind.DENSITY || kind == Kind.PATHS || kind == Kind.SHAPES
                ? sarnik.place.PlacedTable.PLACE
                : RolledUp.column(set);
    }
}
