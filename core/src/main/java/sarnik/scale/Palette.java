package sarnik.scale;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Colours for classes, made in OKLCH (Ottosson 2020) so that equal steps look equal: from a light tint near the paper to
 * a deep tone, along one line of lightness.
 *
 * @param name what it is called
 * @param hueLow hue of the light end, degrees
 * @param hueHigh hue of the deep end, degrees
 * @param chroma the greatest chroma, reached near the deep end
 */
public record Palette(String name, double hueLow, double hueHigh, double chroma) {

    private static final double LIGHTEST = 0.86;
    private static final double DEEPEST = 0.40;

    /** The palettes by name. */
    public static final Map<String, Palette> ALL = Map.of(
            "loch", new Palette("loch", 165, 215, 0.085),
            "rust", new Palette("rust", 75, 38, 0.125),
            "lichen", new Palette("lichen", 105, 135, 0.1),
            "heather", new Palette("heather", 350, 310, 0.1));

    /** Names in the order in which they are offered. */
    public static final List<String> NAMES = List.of("loch", "rust", "lichen", "heather");

    /**
     * @param count number of classes, at least 1
     * @return sRGB colours as #rrggbb, lightest first
     */
    public List<String> colours(int count) {
        List<String> colours = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            double t = count == 1 ? 0.6 : (double) i / (count - 1);
            double lightness = LIGHTEST + (DEEPEST - LIGHTEST) * t;
            // The shorter way around the circle of hues.
            double turn = ((hueHigh - hueLow) % 360 + 540) % 360 - 180;
            colours.add(hex(lightness, chroma * (0.45 + 0.55 * t), hueLow + turn * t));
        }
        return colours;
    }

    /** OKLCH to sRGB with the matrices of Ottosson 2020; what lies outside sRGB is cut off at its edge. */
    static String hex(double lightness, double chroma, double hue) {
        double a = chroma * Math.cos(Math.toRadians(hue));
        double b = chroma * Math.sin(Math.toRadians(hue));
        double l = cube(lightness + 0.3963377774 * a + 0.2158037573 * b);
        double m = cube(lightness - 0.1055613458 * a - 0.0638541728 * b);
        double s = cube(lightness - 0.0894841775 * a - 1.2914855480 * b);
        return "#%02x%02x%02x"
                .formatted(
                        channel(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
                        channel(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
                        channel(-0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s));
    }

    private static double cube(double v) {
        return v * v * v;
    }

    /** The transfer function of sRGB (IEC 61966-2-1). */
    private static int channel(double linear) {
        double v = Math.max(0, Math.min(1, linear));
        return (int) Math.round(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * Math.pow(v, 1 / 2.4) - 0.055));
    }
}
