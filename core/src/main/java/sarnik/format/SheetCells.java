package sarnik.format;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What the cells of sheets hold, as text: numbers as they are shown, dates and times by the format of their number,
 * durations as numbers of the unit that they begin with.
 */
final class SheetCells {

    /** Digits that a sheet shows; what is stored beyond them is binary noise. */
    private static final MathContext SHOWN = new MathContext(15);

    private static final int LONGEST = 40;

    /** Decimals of durations: below a hundredth of a second. */
    private static final int DURATION_PLACES = 6;

    /** Sign and digits of a whole number that fits 64 bits. */
    private static final int LONGEST_WHOLE = 19;

    /** Days from 1899-12-30 to 1904-01-01, from which some workbooks count. */
    private static final int LATER_START = 1462;

    private static final int MOST_FORMATS = 10_000;
    private static final Map<String, Written> FORMATS = new ConcurrentHashMap<>();

    /** 1970-01-01, counted from 1899-12-30. */
    private static final long EPOCH = 25_569;

    /** The last day that a sheet knows, 9999-12-31. */
    private static final long LAST_DAY = 2_958_465;

    /**
     * What a format shows. Few stand on many cells: each is looked at once.
     *
     * @param moment whether it is of dates or times
     * @param day whether with a day or a year
     * @param clock whether with hours or seconds
     * @param inDay how many of the units of a duration a day has; 0 where the format is of none
     */
    private record Written(boolean moment, boolean day, boolean clock, int inDay) {

        /** Hours, minutes or seconds that go on beyond a day (ISO/IEC 29500-1, 18.8.31). */
        private static final Pattern DURATION = Pattern.compile("(?i)\\[(h+|m+|s+)\\]");

        /** Days, months, years, hours or seconds outside quotes and brackets. */
        static Written of(String format) {
            String letters =
                    format.replaceAll("\"[^\"]*\"|\\[[^\\]]*\\]|\\\\.|_.", "").split(";", 2)[0];
            boolean moment = !letters.equalsIgnoreCase("General")
                    && letters.matches("(?i).*[dmyhs].*")
                    && !letters.matches(".*[0#?].*[eE][+-].*");
            Matcher duration = DURATION.matcher(format.replaceAll("\"[^\"]*\"", ""));
            int inDay = duration.find()
                    ? switch (Character.toLowerCase(duration.group(1).charAt(0))) {
                        case 'h' -> 24;
                        case 'm' -> 1440;
                        default -> 86_400;
                    }
                    : 0;
            return new Written(moment, format.matches("(?i).*[dy].*"), format.matches("(?i).*[hs].*"), inDay);
        }
    }

    private SheetCells() {}

    /**
     * A number in the format of its cell.
     *
     * @param raw digits as they are stored
     * @param format of the cell; null where it has none
     * @param from1904 whether days are counted from 1904-01-01 (ISO/IEC 29500-1, 18.17.4.1)
     */
    static String number(String raw, String format, boolean from1904) {
        if (!isNumber(raw)) return raw;
        if (format == null) return plain(raw);
        if (FORMATS.size() > MOST_FORMATS) FORMATS.clear();
        Written written = FORMATS.computeIfAbsent(format, Written::of);
        if (written.inDay > 0)
            return plain(new BigDecimal(raw)
                    .multiply(BigDecimal.valueOf(written.inDay))
                    .setScale(DURATION_PLACES, RoundingMode.HALF_EVEN)
                    .toPlainString());
        return written.moment ? moment(raw, written, from1904) : plain(raw);
    }

    /** Sign, digits with points, and an exponent. */
    private static boolean isNumber(String raw) {
        int digits = 0;
        for (int i = 0; i < raw.length(); i++) {
            char c = raw.charAt(i);
            if (c >= '0' && c <= '9') digits++;
            else if (c == 'e' || c == 'E') {
                if (digits == 0 || i + 1 == raw.length()) return false;
            } else if (c == '-' || c == '+') {
                if (i > 0 && raw.charAt(i - 1) != 'e' && raw.charAt(i - 1) != 'E') return false;
            } else if (c != '.') return false;
        }
        return digits > 0;
    }

    /** Numbers are stored with binary noise: 0.1 + 0.2 as 0.30000000000000004. */
    static String plain(String raw) {
        if (raw.length() < SHOWN.getPrecision()
                && raw.indexOf('e') < 0
                && raw.indexOf('E') < 0
                && (raw.indexOf('.') < 0 || raw.charAt(raw.length() - 1) != '0')
                && !raw.startsWith("-0")
                && !raw.startsWith("+")) return raw;
        // What is stored digit by digit, as no binary number is, is meant so.
        if (raw.length() <= LONGEST_WHOLE
                && raw.chars().skip(raw.charAt(0) == '-' ? 1 : 0).allMatch(Character::isDigit))
            return new BigDecimal(raw).toPlainString();
        BigDecimal value = new BigDecimal(raw);
        if (value.precision() > SHOWN.getPrecision()) value = value.round(SHOWN);
        if (value.signum() == 0) return "0";
        String text = value.stripTrailingZeros().toPlainString();
        return text.length() > LONGEST ? String.valueOf(value.doubleValue()) : text;
    }

    /** Days since 1899-12-30; 1900-02-29 is counted though it never was (ISO/IEC 29500-1, 18.17.4.1). */
    private static String moment(String raw, Written written, boolean from1904) {
        BigDecimal serial = new BigDecimal(raw);
        long whole = serial.longValue();
        long days = whole + (from1904 ? LATER_START : 0);
        long seconds = serial.scale() <= 0
                ? 0
                : Math.round(serial.remainder(BigDecimal.ONE).doubleValue() * 86_400);
        if (whole < 1 && !written.day)
            return LocalTime.MIDNIGHT.plusSeconds(seconds).toString();
        if (days < 0 || days > LAST_DAY) return serial.toPlainString();
        LocalDate day = LocalDate.ofEpochDay((days < 60 ? days + 1 : days) - EPOCH);
        return seconds == 0 && !written.clock
                ? day.toString()
                : day.atStartOfDay().plusSeconds(seconds).toString();
    }
}
