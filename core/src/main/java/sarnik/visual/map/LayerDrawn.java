package sarnik.visual.map;

import java.util.List;
import sarnik.data.PlaceSheet;
import sarnik.visual.Key;

/**
 * What the browser draws of a map's layer. Places are named by their numbers in a {@link PlaceSheet}, figures are
 * rounded as
 * {@link sarnik.scale.NumberWords#full} shows them, and a missing figure is NaN.
 */
public sealed interface LayerDrawn {

    Head head();

    /** What it is called in drawings: {@code symbols}. */
    String kind();

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
     * How far marks can be trusted. All are by mark, or null where nothing is told.
     *
     * @param lows the low end of where each value may well lie, 95 of 100; NaN where that is not known
     * @param highs the high end
     * @param unsure numbers of the marks that rest on too few
     * @param falses the share of false finds among all that are as surprising; NaN where nothing is known
     */
    record Trust(double[] lows, double[] highs, int[] unsure, double[] falses) {}

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
     * @param turns towards where each points, degrees clockwise from north, NaN for nowhere; null where none does
     * @param pile the order in which they are painted, the lowest first; null for that in which they stand here
     * @param trust how far they can be trusted; null where nothing is told of it
     */
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
            double[] turns,
            int[] pile,
            Trust trust,
            Key key)
            implements LayerDrawn {
        @Override
        public String kind() {
            return "symbols";
        }

        @Override
        public LayerDrawn with(Key other) {
            return new OfSymbols(
                    head, places, at, radii, classes, shapes, shape, sizes, tints, members, labels, ranks, turns, pile,
                    trust, other);
        }
    }

    /**
     * Areas of a boundary set, or the rows' own shapes.
     *
     * @param set the boundary set, whose shapes travel apart; null for the rows' own
     * @param own changes with the rows' own shapes, which travel apart; null for a boundary set
     * @param classes class of colour, -1 for no data; areas that are not listed have no row
     * @param values the colour measure
     * @param trust how far they can be trusted; null where nothing is told of it
     */
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
            Trust trust,
            Key key)
            implements LayerDrawn {
        @Override
        public String kind() {
            return "areas";
        }

        @Override
        public LayerDrawn with(Key other) {
            return new OfAreas(head, set, own, places, at, classes, values, labels, ranks, trust, other);
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
    record OfDensity(
            Head head, String places, int[] at, double[] weights, double radius, boolean metres, double peak, Key key)
            implements LayerDrawn {
        @Override
        public String kind() {
            return "density";
        }

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
        public String kind() {
            return "flows";
        }

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
        public String kind() {
            return "paths";
        }

        @Override
        public LayerDrawn with(Key other) {
            return new OfPaths(head, names, classes, parts, pathOf, places, at, moments, other);
        }
    }

    /**
     * The borders of a boundary set, whose shapes travel apart.
     *
     * @param named whether the areas' names are written
     * @param credit what is to be said of the set
     */
    record OfOutlines(Head head, String set, boolean named, String credit, Key key) implements LayerDrawn {

        OfOutlines(Head head, String set, boolean named, String credit) {
            this(head, set, named, credit, Key.NONE);
        }

        @Override
        public String kind() {
            return "outlines";
        }

        @Override
        public LayerDrawn with(Key other) {
            return this;
        }

        /** The same as areas that have no row, for what draws the shapes of areas. */
        public OfAreas asAreas() {
            return new OfAreas(head, set, null, "", new int[0], new int[0], new double[0], null, null, null, Key.NONE);
        }
    }

    /**
     * Pictures or vector tiles of a source.
     *
     * @param source its name
     */
    record OfPictures(Head head, String source, Key key) implements LayerDrawn {

        OfPictures(Head head, String source) {
            this(head, source, Key.NONE);
        }

        @Override
        public String kind() {
            return "pictures";
        }

        @Override
        public LayerDrawn with(Key other) {
            return this;
        }
    }

    /** A layer that is hidden, or that cannot be drawn; its notes say why. */
    record OfNothing(Head head, Key key) implements LayerDrawn {
        @Override
        public String kind() {
            return "nothing";
        }

        @Override
        public LayerDrawn with(Key other) {
            return new OfNothing(head, other);
        }
    }
}
