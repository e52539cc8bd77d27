package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import sarnik.data.MisfitException;
import sarnik.scale.ColourScale;
import sarnik.scale.Palette;
import sarnik.scale.ValueWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.visual.Key.Swatch;

/**
 * The colours of a layer's marks.
 *
 * @param classes class of each mark, -1 for no data
 * @param key what the classes mean
 */
public record Colouring(int[] classes, Key key) {

    /** Categories that get a colour of their own; the rest are "others". */
    public static final int MOST_CATEGORIES = 8;

    private static final int BARS = 32;

    /**
     * All marks in one colour: the middle one of the palette, or the one that was given.
     *
     * @param colour what was chosen; null for the usual colour
     * @throws MisfitException when the palette cannot be read
     */
    public static Colouring one(Colour colour, int count) {
        return one(colour == null || colour.palette() == null ? "loch" : colour.palette(), count);
    }

    private static Colouring one(String palette, int count) {
        String colour;
        try {
            colour = palette.matches("#[0-9a-fA-F]{6}")
                    ? palette
                    : Palette.of(palette).colours(3).get(1);
        } catch (IllegalArgumentException unfit) {
            throw new MisfitException(unfit.getMessage());
        }
        return new Colouring(new int[count], keyOf(null, List.of(new Swatch(colour, "", count)), 0));
    }

    private static Key keyOf(String words, List<Swatch> swatches, int missing) {
        Key.Draft key = new Key.Draft();
        key.colourWords = words;
        key.colours = swatches;
        key.missing = missing;
        return key.key();
    }

    /**
     * Colours by a measure.
     *
     * @param values the measure of each mark
     * @param domain the values that the scale is cut from: the same marks on the whole
     * @param words what it is
     * @param read how its values are read
     * @throws MisfitException when the scale cannot be made
     */
    public static Colouring byMeasure(Colour colour, double[] values, double[] domain, String words, ValueWords read) {
        ColourScale scale;
        try {
            scale = ColourScale.of(colour.choice(), domain);
        } catch (IllegalArgumentException unfit) {
            throw new MisfitException(unfit.getMessage());
        }
        int[] classes = Arrays.stream(values).mapToInt(scale::classOf).toArray();
        double[] breaks = scale.classes().breaks();
        double low = scale.classes().low();
        double high = scale.classes().high();
        int missing = (int) Arrays.stream(classes).filter(c -> c < 0).count();
        if (Double.isNaN(low)) return new Colouring(classes, keyOf(words, List.of(), missing));
        int[] counts = new int[scale.colours().size()];
        for (int c : classes) if (c >= 0) counts[c]++;
        List<Swatch> swatches = new ArrayList<>();
        for (int c = 0; c < counts.length; c++) {
            double from = c == 0 ? low : breaks[c - 1];
            double to = c == counts.length - 1 ? high : breaks[c];
            // Beyond the outermost of the author's own breaks there may be nothing.
            boolean open = colour.choice().breaks() != null && counts.length > 1 && from == to;
            String range = open
                    ? (c == 0 ? phrase("up to {0}", read.brief(from)) : phrase("over {0}", read.brief(from)))
                    : range(from, to, read);
            swatches.add(new Swatch(scale.colours().get(c), range, counts[c]));
        }
        Key.Draft key = new Key.Draft();
        key.colourWords = words;
        key.colours = swatches;
        key.missing = missing;
        key.ramp = scale.ramp();
        if (!scale.ramp()) key.breaks = breaks;
        key.low = low;
        key.high = high;
        key.spread = scale.spread(domain, BARS);
        key.below = beyond(scale, values, -1);
        key.above = beyond(scale, values, 1);
        key.shared = colour.key();
        key.turns =
                colour.centre() == null && Palette.of(colour.choice().palette()).kind() == Palette.Kind.SEQUENTIAL;
        key.read = read;
        return new Colouring(classes, key.key());
    }

    private static int[] beyond(ColourScale scale, double[] values, int end) {
        return IntStream.range(0, values.length)
                .filter(i -> scale.beyond(values[i]) == end)
                .toArray();
    }

    private static String range(double from, double to, ValueWords read) {
        return from == to ? read.brief(from) : read.brief(from) + " – " + read.brief(to);
    }

    /**
     * Colours by a category. Which value has which colour depends on all rows of the dataset, never on what is
     * narrowed, so
     * that a value wears the same colour everywhere.
     *
     * @param values the value of each mark, null for none
     * @throws MisfitException when the palette cannot be read
     */
    public static Colouring byCategory(Colour colour, List<String> values, Column column, String words) {
        List<String> order = order(column, colour.order(), MOST_CATEGORIES);
        List<String> colours = categorical(colour).colours(order.size());
        int[] counts = new int[order.size() + 1];
        int[] classes = new int[values.size()];
        int missing = 0;
        for (int i = 0; i < classes.length; i++) {
            int place = values.get(i) == null ? -1 : order.indexOf(values.get(i));
            classes[i] = values.get(i) == null ? -1 : place < 0 ? order.size() : place;
            if (classes[i] < 0) missing++;
            else counts[classes[i]]++;
        }
        List<Swatch> swatches = new ArrayList<>();
        for (int c = 0; c < order.size(); c++) swatches.add(new Swatch(colours.get(c), order.get(c), counts[c]));
        if (counts[order.size()] > 0) swatches.add(new Swatch(Palette.OTHERS, phrase("others"), counts[order.size()]));
        return new Colouring(classes, keyOf(words, swatches, missing));
    }

    /**
     * Colours that mean what is said of each.
     *
     * @param words what they stand for
     * @param classes class of each mark, -1 for no data
     * @param missing how many marks have no data
     */
    public static Colouring of(String words, List<Swatch> swatches, int[] classes, int missing) {
        return new Colouring(classes, keyOf(words, swatches, missing));
    }

    /**
     * The palette of a category's colours.
     *
     * @param colour null for the usual
     */
    static Palette categorical(Colour colour) {
        String name = colour == null ? null : colour.palette();
        boolean fits = name != null
                && (!Palette.ALL.containsKey(name) || Palette.ALL.get(name).kind() == Palette.Kind.CATEGORICAL);
        try {
            return Palette.of(fits ? name : "flags");
        } catch (IllegalArgumentException unfit) {
            throw new MisfitException(unfit.getMessage());
        }
    }

    /**
     * The key of values in the colours of a category, whatever rows there are.
     *
     * @throws MisfitException when the palette cannot be read
     */
    public static Key swatches(Colour colour, String words, List<String> values) {
        List<String> colours = categorical(colour).colours(values.size());
        return keyOf(
                words,
                IntStream.range(0, values.size())
                        .mapToObj(i -> new Swatch(colours.get(i), values.get(i), 0))
                        .toList(),
                0);
    }

    /** Values that get a colour or shape of their own: those asked for first, then the commonest of all rows. */
    public static List<String> order(Column column, List<String> first, int most) {
        Set<String> order = new LinkedHashSet<>(first == null ? List.of() : first);
        if (column instanceof CodedColumn coded) {
            for (int code : coded.commonest()) {
                if (order.size() >= most) break;
                order.add(coded.dictionary().get(code));
            }
        } else {
            Map<String, Integer> counts = new LinkedHashMap<>();
            for (int row = 0; row < column.size(); row++)
                if (!column.isMissing(row)) counts.merge(column.text(row), column.weight(row), (a, b) -> a + b);
            counts.entrySet().stream()
                    .sorted(Map.Entry.<String, Integer>comparingByValue()
                            .reversed()
                            .thenComparing(Map.Entry.comparingByKey()))
                    .limit(most)
                    .forEach(e -> order.add(e.getKey()));
        }
        return order.stream().limit(most).toList();
    }
}
