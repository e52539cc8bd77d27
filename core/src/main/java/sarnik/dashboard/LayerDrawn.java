package sarnik.dashboard;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import sarnik.scale.ValueWords;

/**
 * What the browser draws of a map's layer. Places are named by their numbers in a {@link PlaceSheet}, figures are
 * rounded as
 * {@link sarnik.scale.NumberWords#full} shows them, and a missing figure is NaN.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({
    @JsonSubTypes.Type(LayerDrawn.OfSymbols.class),
    @JsonSubTypes.Type(LayerDrawn.OfAreas.class),
    @JsonSubTypes.Type(LayerDrawn.OfDensity.class),
    @JsonSubTypes.Type(LayerDrawn.OfFlows.class),
    @JsonSubTypes.Type(LayerDrawn.OfPaths.class),
    @JsonSubTypes.Type(LayerDrawn.OfNothing.class)
})
public sealed interface LayerDrawn {

    Head head();

    /** What its colours, sizes and shapes mean. */
    Key key();

    /** This layer with another key. */
    LayerDrawn with(Key key);

    /**
     * What all layers have.
     *
     * @param id the layer
     * @param name what readers call it
     * @param hidden whether it is hidden; then nothing of it is drawn
     * @param opacity 0 to 1
     * @param border the width of borders, pixels
     * @param notes sentences about what is not as one would expect
     */
    record Head(String id, String name, boolean hidden, double opacity, double border, List<String> notes) {}

    /**
     * Symbols, largest first.
     *
     * @param places tag of the sheet of places
     * @param at the place of each symbol
     * @param radii pixels; 0 where there is nothing to draw
     * @param classes class of colour, -1 for no data
     * @param shapes number of a {@link Layer.Shape} for each; null where all have the shape {@code shape}
     * @param shape number of the shape
     * @param sizes the size measure, or the number of rows
     * @param tints the colour measure; null where colours stand for none
     * @param members how many places each stands for; null where each is one
     * @param labels what is written beside each; null for nothing
     * @param ranks the order in which labels are written; null for that of the symbols
     */
    @JsonTypeName("symbols")
    record OfSymbols(
            Head head,
            String places,
            int[] at,
            double[] radii,
            int[] classes,
            int[] shapes,
            int shape,
            double[] sizes,
            double[] tints,
            int[] members,
            List<String> labels,
            int[] ranks,
            Key key)
            implements LayerDrawn {
        @Override
        public LayerDrawn with(Key other) {
            return new OfSymbols(
                    head, places, at, radii, classes, shapes, shape, sizes, tints, members, labels, ranks, other);
        }
    }

    /**
     * Areas of a boundary set, or the rows' own shapes.
     *
     * @param set the boundary set, whose shapes travel apart; null for the rows' own
     * @param own changes with the rows' own shapes, which travel apart; null for a boundary set
     * @param classes class of colour, -1 for no data; areas that are not listed have no row
     * @param values the colour measure
     */
    @JsonTypeName("areas")
    record OfAreas(
            Head head,
            String set,
            String own,
            String places,
            int[] at,
            int[] classes,
            double[] values,
            List<String> labels,
            int[] ranks,
            Key key)
            implements LayerDrawn {
        @Override
        public LayerDrawn with(Key other) {
            return new OfAreas(head, set, own, places, at, classes, values, labels, ranks, other);
        }
    }

    /**
     * How thick points lie.
     *
     * @param weights what each place counts
     * @param radius how far a point is felt
     * @param metres whether on the ground, else pixels
     * @param peak the greatest density, per square kilometre; NaN where it depends on the zoom
     */
    @JsonTypeName("density")
    record OfDensity(
            Head head, String places, int[] at, double[] weights, double radius, boolean metres, double peak, Key key)
            implements LayerDrawn {
        @Override
        public LayerDrawn with(Key other) {
            return new OfDensity(head, places, at, weights, radius, metres, peak, other);
        }
    }

    /**
     * Flows from place to place, widest first.
     *
     * @param from numbers of places
     * @param to numbers of places
     * @param widths pixels
     * @param values the measure
     * @param ends places at which flows end or begin
     * @param out what goes out of each of them
     * @param in what comes in
     */
    @JsonTypeName("flows")
    record OfFlows(
            Head head,
            String places,
            int[] from,
            int[] to,
            double[] widths,
            int[] classes,
            double[] values,
            double[] tints,
            int[] ends,
            double[] out,
            double[] in,
            Key key)
            implements LayerDrawn {
        @Override
        public LayerDrawn with(Key other) {
            return new OfFlows(head, places, from, to, widths, classes, values, tints, ends, out, in, other);
        }
    }

    /**
     * Paths.
     *
     * @param names the paths
     * @param classes class of colour of each path
     * @param parts index of the first point of each unbroken part
     * @param pathOf the path of each part
     * @param at the place of each point
     * @param moments the order value of each point, in words
     */
    @JsonTypeName("paths")
    record OfPaths(
            Head head,
            List<String> names,
            int[] classes,
            int[] parts,
            int[] pathOf,
            String places,
            int[] at,
            List<String> moments,
            Key key)
            implements LayerDrawn {
        @Override
        public LayerDrawn with(Key other) {
            return new OfPaths(head, names, classes, parts, pathOf, places, at, moments, other);
        }
    }

    /** A layer that is hidden, or that cannot be drawn; its notes say why. */
    @JsonTypeName("nothing")
    record OfNothing(Head head, Key key) implements LayerDrawn {
        @Override
        public LayerDrawn with(Key other) {
            return new OfNothing(head, other);
        }
    }

    /**
     * @param sizeWords what the size stands for; null for one size
     * @param circles nested example sizes, largest first
     * @param colourWords what the colour stands for; null for one colour
     * @param colours the classes, lowest first; of a ramp its steps
     * @param missing how many marks have no data for the colour
     * @param ramp whether colours run on without classes
     * @param breaks the breaks between classes
     * @param low the low end; null where there is no value
     * @param high the high end
     * @param spread how many values fall into each of equally wide bars from the low to the high end
     * @param below numbers of the marks whose values lie below the low end that was set
     * @param above numbers of those above the high end
     * @param shapes what shapes stand for; empty where all have one
     * @param hints what the author may think of
     * @param offered measures among which the reader chooses; empty where there is no choice
     * @param chosen which of them is shown
     * @param shared name of the shared key that is worn; null for none
     * @param turns whether on the dark ground of the night the palette turns about, so that the high end stands out
     *     there too
     * @param sizesOffered measures among which the reader chooses for the size or weight; empty where there is no
     *     choice
     * @param sizeChosen which of them is shown
     * @param read how the values of the colour are read
     */
    record Key(
            String sizeWords,
            List<Drawing.Circle> circles,
            String colourWords,
            List<Drawing.Swatch> colours,
            int missing,
            boolean ramp,
            double[] breaks,
            Double low,
            Double high,
            int[] spread,
            int[] below,
            int[] above,
            List<ShapeSwatch> shapes,
            List<String> hints,
            List<String> offered,
            int chosen,
            String shared,
            boolean turns,
            List<String> sizesOffered,
            int sizeChosen,
            ValueWords read) {

        static final int[] NO_MARKS = {};

        /** A key that says nothing. */
        static final Key NONE = new Key(
                null,
                List.of(),
                null,
                List.of(),
                0,
                false,
                new double[0],
                null,
                null,
                new int[0],
                NO_MARKS,
                NO_MARKS,
                List.of(),
                List.of(),
                List.of(),
                0,
                null,
                false,
                List.of(),
                0,
                ValueWords.NUMBER);

        Key sized(String words, List<Drawing.Circle> examples) {
            return new Key(
                    words,
                    examples,
                    colourWords,
                    colours,
                    missing,
                    ramp,
                    breaks,
                    low,
                    high,
                    spread,
                    below,
                    above,
                    shapes,
                    hints,
                    offered,
                    chosen,
                    shared,
                    turns,
                    sizesOffered,
                    sizeChosen,
                    read);
        }

        Key shaped(List<ShapeSwatch> swatches) {
            return new Key(
                    sizeWords,
                    circles,
                    colourWords,
                    colours,
                    missing,
                    ramp,
                    breaks,
                    low,
                    high,
                    spread,
                    below,
                    above,
                    swatches,
                    hints,
                    offered,
                    chosen,
                    shared,
                    turns,
                    sizesOffered,
                    sizeChosen,
                    read);
        }

        Key hinted(List<String> more) {
            return new Key(
                    sizeWords,
                    circles,
                    colourWords,
                    colours,
                    missing,
                    ramp,
                    breaks,
                    low,
                    high,
                    spread,
                    below,
                    above,
                    shapes,
                    more,
                    offered,
                    chosen,
                    shared,
                    turns,
                    sizesOffered,
                    sizeChosen,
                    read);
        }

        Key offeringSizes(List<String> words, int which) {
            return new Key(
                    sizeWords,
                    circles,
                    colourWords,
                    colours,
                    missing,
                    ramp,
                    breaks,
                    low,
                    high,
                    spread,
                    below,
                    above,
                    shapes,
                    hints,
                    offered,
                    chosen,
                    shared,
                    turns,
                    words,
                    which,
                    read);
        }

        Key offering(List<String> words, int which) {
            return new Key(
                    sizeWords,
                    circles,
                    colourWords,
                    colours,
                    missing,
                    ramp,
                    breaks,
                    low,
                    high,
                    spread,
                    below,
                    above,
                    shapes,
                    hints,
                    words,
                    which,
                    shared,
                    turns,
                    sizesOffered,
                    sizeChosen,
                    read);
        }
    }

    /** A shape and what it stands for. */
    record ShapeSwatch(int shape, String text, int count) {}
}
