package sarnik.dashboard;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;

/**
 * An author's own colours. Four are chosen for the day; the rest, and all of the night, is made of them.
 *
 * @param paper what everything stands on
 * @param ink what is written
 * @param deed what can be done
 * @param picked what is picked; each as {@code #RRGGBB}
 */
public record OwnTheme(String paper, String ink, String deed, String picked) {

    /** The least contrast of what is read against what it stands on (WCAG 2.2, 1.4.3). */
    static final double READABLE = 4.5;

    /** The colours of a field sheet, to begin with. */
    public static final OwnTheme BEGINNING = new OwnTheme("#F7F4EC", "#23281F", "#1F5F66", "#A9461F");

    private static final int BLACK = 0x121412;

    /** Whether each of the four is written as a colour. */
    public boolean writtenAsColours() {
        return Stream.of(paper, ink, deed, picked).allMatch(one -> one.matches("#[0-9A-Fa-f]{6}"));
    }

    /** What is hard to read in it, in words that say how to mend it; null where nothing is. */
    public String trouble() {
        String by = trouble(colours(), "");
        return by != null ? by : trouble(nightColours(), " by night");
    }

    private static String trouble(Map<String, String> colours, String when) {
        Map<String, String> read = new LinkedHashMap<>();
        read.put("ink", "The ink");
        read.put("loch", "The colour of what can be done");
        read.put("rust", "The colour of what is picked");
        read.put("faint", "Quiet writing, which is made of the ink,");
        for (Map.Entry<String, String> one : read.entrySet()) {
            double contrast = contrast(rgb(colours.get(one.getKey())), rgb(colours.get("paper")));
            if (contrast < READABLE)
                return "%s is hard to read on the paper%s: its contrast is %.1f, and has to be 4.5. Take a %s one."
                        .formatted(
                                one.getValue(),
                                when,
                                Math.floor(contrast * 10) / 10,
                                luminance(rgb(colours.get("paper"))) > .2 ? "darker" : "lighter");
        }
        return null;
    }

    /** Every colour by the name it has in the pages' style, by day. */
    public Map<String, String> colours() {
        return made(rgb(paper), rgb(ink), rgb(deed), rgb(picked));
    }

    /** The same by night: dark where the day is light, and the lighter of each colour. */
    public Map<String, String> nightColours() {
        int ground = mix(BLACK, rgb(paper), .06);
        int written = mix(0xFFFFFF, rgb(paper), .6);
        return made(
                ground, readable(written, ground, 8), readable(rgb(deed), ground, 5), readable(rgb(picked), ground, 5));
    }

    private static Map<String, String> made(int paper, int ink, int deed, int picked) {
        boolean light = luminance(paper) > .2;
        Map<String, String> made = new LinkedHashMap<>();
        made.put("paper", hex(paper));
        made.put("leaf", hex(mix(paper, light ? 0xFFFFFF : ink, light ? .5 : .05)));
        made.put("ink", hex(ink));
        made.put("faint", hex(readable(mix(ink, paper, .34), paper, READABLE + .1)));
        made.put("line", hex(mix(paper, ink, .3)));
        made.put("grid", hex(mix(paper, ink, .14)));
        made.put("loch", hex(deed));
        made.put("rust", hex(picked));
        made.put("lichen", hex(readable(light ? 0x5A6C33 : 0xAFC47C, paper, READABLE + .1)));
        made.put("sun", hex(readable(light ? 0x8F6410 : 0xE2B04C, paper, READABLE + .1)));
        made.put("land", hex(mix(paper, ink, .06)));
        made.put("water", hex(mix(paper, deed, .16)));
        made.put("border", hex(mix(paper, ink, .4)));
        made.put("province", hex(mix(paper, ink, .18)));
        made.put("river", hex(mix(paper, deed, .34)));
        made.put("town", hex(readable(mix(ink, paper, .3), paper, READABLE)));
        made.put("halo", hex(paper) + "CC");
        made.put("bar", hex(mix(paper, deed, .48)));
        return made;
    }

    /** A colour moved towards black or white until it can be read on a ground. */
    private static int readable(int colour, int ground, double contrast) {
        int towards = luminance(ground) > .2 ? 0 : 0xFFFFFF;
        for (int step = 0; step <= 20; step++) {
            int moved = mix(colour, towards, step / 20.0);
            if (contrast(moved, ground) >= contrast) return moved;
        }
        return towards;
    }

    private static int mix(int one, int other, double share) {
        int mixed = 0;
        for (int shift = 16; shift >= 0; shift -= 8) {
            double part = (one >> shift & 255) * (1 - share) + (other >> shift & 255) * share;
            mixed |= (int) Math.round(part) << shift;
        }
        return mixed;
    }

    /** The contrast of two colours, 1 to 21 (WCAG 2.2). */
    static double contrast(int one, int other) {
        double a = luminance(one);
        double b = luminance(other);
        return (Math.max(a, b) + .05) / (Math.min(a, b) + .05);
    }

    private static double luminance(int colour) {
        double sum = 0;
        double[] weights = {.2126, .7152, .0722};
        for (int i = 0; i < 3; i++) {
            double part = (colour >> (16 - 8 * i) & 255) / 255.0;
            sum += weights[i] * (part <= .04045 ? part / 12.92 : Math.pow((part + .055) / 1.055, 2.4));
        }
        return sum;
    }

    private static int rgb(String hex) {
        return Integer.parseInt(hex.substring(1), 16);
    }

    private static String hex(int colour) {
        String digits = Integer.toHexString(colour).toUpperCase(Locale.ROOT);
        return "#" + "0".repeat(6 - digits.length()) + digits;
    }
}
