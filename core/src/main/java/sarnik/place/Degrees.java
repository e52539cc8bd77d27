package sarnik.place;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads degrees as people write them: 41.76, 41,76, 41° 45′ 50″ N, N 41 45.83, -2.47, 2.47 W.
 */
final class Degrees {

    private static final Pattern PARTS =
            Pattern.compile("([NSEWO])?\\s*([+-]?\\d{1,3}(?:[.,]\\d+)?)\\s*(?:[°ºD:\\s]\\s*(\\d{1,2}(?:[.,"
                    + "]\\d+)?)\\s*(?:['′’M:\\s]\\s*(\\d{1,2}(?:[.,]\\d+)?)\\s*(?:\"|″|"
                    + "'')?)?\\s*['′’M]?)?\\s*[°º]?\\s*([NSEWO])?");

    private Degrees() {}

    /**
     * One number of degrees.
     *
     * @return degrees, negative for south and west; NaN where the text is none
     */
    static double read(String text) {
        Matcher parts = PARTS.matcher(text.strip().toUpperCase(Locale.ROOT));
        if (!parts.matches() || parts.group(1) != null && parts.group(5) != null) return Double.NaN;
        double whole = number(parts.group(2));
        double minutes = parts.group(3) == null ? 0 : number(parts.group(3));
        double seconds = parts.group(4) == null ? 0 : number(parts.group(4));
        if (minutes >= 60 || seconds >= 60) return Double.NaN;
        String side = parts.group(1) != null ? parts.group(1) : parts.group(5);
        double size = Math.abs(whole) + minutes / 60 + seconds / 3600;
        boolean negative = parts.group(2).startsWith("-") || side != null && "SWO".contains(side);
        return negative ? -size : size;
    }

    /** Whether the text names a side of the world that only a longitude (E, W) has. */
    static boolean saysEastOrWest(String text) {
        return text.toUpperCase(Locale.ROOT).matches(".*[EWO].*");
    }

    private static double number(String text) {
        return Double.parseDouble(text.replace(',', '.'));
    }

    private static final Pattern BETWEEN =
            Pattern.compile("\\s*[;|]\\s*|\\s*,\\s+|(?<=[NSEWOnsewo])\\s*,?\\s+(?=[\\d+-])|(?<=\\d),(?=[+-]?\\d+\\.)");

    /**
     * Two numbers of degrees in one text, in the order in which they stand.
     *
     * @return two numbers, or null where the text does not hold two
     */
    static double[] readPair(String text) {
        String inside = text.strip().replaceAll("^[(\\[]|[)\\]]$", "").replaceFirst("(?i)^POINT\\s*\\(?", "");
        String[] parts = BETWEEN.split(inside, 2);
        if (parts.length < 2) parts = inside.split("\\s+", 2);
        if (parts.length < 2) return null;
        double[] pair = {read(parts[0]), read(parts[1])};
        return Double.isNaN(pair[0]) || Double.isNaN(pair[1]) ? null : pair;
    }
}
