package sarnik.format;

import java.math.BigDecimal;
import java.math.MathContext;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** What the cells of sheets hold, as text: numbers as they are shown, dates and times by the format of their number. */
final class SheetCells {

    /** Digits that a sheet shows; what is stored beyond them is binary noise. */
    private static final MathContext SHOWN = new MathContext(15);

    private static final int LONGEST = 40;

    /** Days from 1899-12-30 to 1904-01-01, from which some workbooks count. */
    private static final int LATER_START = 1462;

    private static final Map<String, Boolean> DATES = new ConcurrentHashMap<>();
    private static final int MOST_FORMATS = 10_000;

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
        return format != null && isDate(format) ? date(new BigDecimal(raw), format, from1904) : plain(raw);
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
        if (raw.length() < SHOWN.getPrecision() && raw.indexOf('e') < 0 && raw.indexOf('E') < 0 && (raw.indexOf('.') < 0 || raw.charAt(raw.length() - 1) != '0') && !raw.startsWith("-0") && !raw.startsWith("+")) return raw;
        BigDecimal value = new BigDecimal(raw);
        if (value.precision() > SHOWN.getPrecision()) value = value.round(SHOWN);
        if (value.signum() == 0) return "0";
        String text = value.stripTrailingZeros().toPlainString();
        return text.length() > LONGEST ? String.valueOf(value.doubleValue()) : text;
    }

    /** A format with days, months, years, hours or seconds outside quotes and brackets. Few stand on many cells: each is looked at once. */
    private static boolean isDate(String format) {
        if (DATES.size() > MOST_FORMATS) DATES.clear();
        return DATES.computeIfAbsent(format, f -> {
            String letters = f.replaceAll("\"[^\"]*\"|\\[[^\\]]*\\]|\\\\.|_.", "").split(";", 2)[0];
            return !letters.equalsIgnoreCase("General") && letters.matches("(?i).*[dmyhs].*") && !letters.matches(".*[0#?].*[eE][+-].*");
        });
    }

    /** Days since 1899-12-30; 1900-02-29 is counted though it never was (ISO/IEC 29500-1, 18.17.4.1). */
    private static String date(BigDecimal serial, String format, boolean from1904) {
        long days = serial.longValue() + (from1904 ? LATER_START : 0);
        long seconds = Math.round(serial.remainder(BigDecimal.ONE).doubleValue() * 86_400);
        if (serial.longValue() < 1 && !format.matches("(?i).*[dy].*")) return LocalTime.MIDNIGHT.plusSeconds(seconds).toString();
        if (days < 0 || days > 2_958_465) return serial.toPlainString();
        LocalDateTime at = LocalDateTime.of(1899, 12, 30, 0, 0).plusDays(days < 60 ? days + 1 : days).plusSeconds(seconds);
        return seconds == 0 && !format.matches("(?i).*[hs].*") ? at.toLocalDate().toString() : at.truncatedTo(ChronoUnit.SECONDS).toString();
    }
}
