package sarnik.scale;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Colours for classes and categories, made in {@link Oklch} so that equal steps look equal.
 *
 * @param name what it is called
 * @param kind what it is good for
 * @param stops colours along its line, or, for categories, one after the other
 */
public record Palette(String name, Kind kind, List<Oklch> stops) {

    /** What a palette is good for. */
    public enum Kind {
        /** Amounts from low to high: from a light tint near the paper to a deep tone. */
        SEQUENTIAL,
        /** Amounts on two sides of a centre: deep at both ends, a light grey in the middle. */
        DIVERGING,
        /** Things that have no order. */
        CATEGORICAL
    }

    /** The palettes by name, in the order in which they are offered. */
    public static final Map<String, Palette> ALL = all();

    /** Names of the palettes for amounts from low to high, in the order in which they are offered. */
    public static final List<String> NAMES = names(Kind.SEQUENTIAL);

    /** The colour of the categories that have none of their own. */
    public static final String OTHERS = new Oklch(0.72, 0.012, 110).hex();

    private static final double LIGHTEST = 0.86;
    private static final double DEEPEST = 0.40;

    private static Map<String, Palette> all() {
        Map<String, Palette> all = new LinkedHashMap<>();
        for (Palette palette : List.of(
                sequential("loch", 165, 215, 0.085),
                sequential("rust", 75, 38, 0.125),
                sequential("lichen", 105, 135, 0.1),
                sequential("heather", 350, 310, 0.1),
                sequential("dusk", 95, 265, 0.09),
                sequential("peat", 80, 70, 0.035),
                diverging("rust to loch", 42, 0.13, 205, 0.085),
                diverging("heather to lichen", 330, 0.12, 130, 0.1),
                diverging("sun to dusk", 70, 0.125, 275, 0.12),
                new Palette(
                        "flags",
                        Kind.CATEGORICAL,
                        List.of(
                                new Oklch(0.44, 0.13, 280),
                                new Oklch(0.68, 0.13, 80),
                                new Oklch(0.77, 0.13, 230),
                                new Oklch(0.44, 0.09, 20),
                                new Oklch(0.77, 0.05, 120),
                                new Oklch(0.56, 0.13, 50),
                                new Oklch(0.65, 0.13, 260),
                                new Oklch(0.56, 0.05, 320))))) {
            all.put(palette.name, palette);
        }
        return java.util.Collections.unmodifiableMap(all);
    }

    private static Palette sequential(String name, double hueLow, double hueHigh, double chroma) {
        return new Palette(
                name,
                Kind.SEQUENTIAL,
                List.of(new Oklch(LIGHTEST, chroma * 0.45, hueLow), new Oklch(DEEPEST, chroma, hueHigh)));
    }

    private static Palette diverging(
            String name, double hueBelow, double chromaBelow, double hueAbove, double chromaAbove) {
        return new Palette(
                name,
                Kind.DIVERGING,
                List.of(
                        new Oklch(DEEPEST + 0.03, chromaBelow, hueBelow),
                        new Oklch(0.9, 0.024, hueBelow),
                        new Oklch(0.9, 0.024, hueAbove),
                        new Oklch(DEEPEST + 0.03, chromaAbove, hueAbove)));
    }

    /** Names of the palettes of a kind, in the order in which they are offered. */
    public static List<String> names(Kind kind) {
        return ALL.values().stream()
                .filter(p -> p.kind == kind)
                .map(Palette::name)
                .toList();
    }

    /**
     * A palette by its name, or made of one's own colours.
     *
     * @param text a name, or at least two colours such as "#ffffff #1f5f66"
     * @throws IllegalArgumentException when it is neither, or two neighbouring colours are equal
     */
    public static Palette of(String text) {
        Palette known = ALL.get(text);
        if (known != null) return known;
        String[] colours = text == null ? new String[0] : text.strip().split("[\\s,]+");
        if (colours.length < 2)
            throw new IllegalArgumentException("There is no palette “" + text
                    + "”. Own colours are given as two or more, such as “#f2e9d8 #1f5f66”");
        List<Oklch> stops = Arrays.stream(colours).map(Oklch::of).toList();
        for (int i = 1; i < colours.length; i++) {
            if (colours[i].equalsIgnoreCase(colours[i - 1]))
                throw new IllegalArgumentException("The palette has the colour " + colours[i]
                        + " twice in a row, so two classes could not be told apart");
        }
        return new Palette(text, Kind.SEQUENTIAL, stops);
    }

    /**
     * @param count number of classes or categories, at least 1
     * @return sRGB colours as #rrggbb, lowest first; categories beyond the palette's own are {@link #OTHERS}
     */
    public List<String> colours(int count) {
        List<String> colours = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            if (kind == Kind.CATEGORICAL)
                colours.add(i < stops.size() ? stops.get(i).hex() : OTHERS);
            else colours.add(at(count == 1 ? 0.6 : (double) i / (count - 1)).hex());
        }
        return colours;
    }

    /** The colour a share t of the way along the palette, 0 to 1. */
    public Oklch at(double t) {
        double along = Math.max(0, Math.min(1, t)) * (stops.size() - 1);
        // The two greys in the middle of a diverging palette are one point of its line.
        if (kind == Kind.DIVERGING)
            return t < 0.5
                    ? stops.get(0).towards(stops.get(1), 2 * t)
                    : stops.get(2).towards(stops.get(3), 2 * t - 1);
        int from = Math.min(stops.size() - 2, (int) along);
        return stops.get(from).towards(stops.get(from + 1), along - from);
    }
}
