package sarnik.scale;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Locale;
import sarnik.language.Language;
import sarnik.table.Rounded;

/**
 * Writes numbers that are rounded already, as the language does that is spoken. A page writes tens of
 * thousands of them at a pick, so it is done by hand.
 */
final class Digits {

    private static final double[] POWERS = {1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9};

    /** Up to here the last digit that is written is sure: a double holds some 50 times as many. */
    private static final double EXACT = 1L << 46;

    /** So many digits of a number are sure; what comes behind is how it is kept. */
    private static final MathContext SURE = new MathContext(15);

    private Digits() {}

    /** A finite number with all its digits, as programs read it. */
    static String all(double value) {
        return value == Math.rint(value) && Math.abs(value) < 1L << 53
                ? Long.toString((long) value)
                : BigDecimal.valueOf(value).round(SURE).stripTrailingZeros().toPlainString();
    }

    /**
     * @param rounded a finite number that has no more decimals than are written
     * @param decimals 0 or more
     */
    static String grouped(double rounded, int decimals) {
        double size = Math.abs(rounded);
        if (decimals >= POWERS.length || size * POWERS[decimals] >= EXACT)
            return Language.spoken()
                    .written(String.format(Locale.ENGLISH, "%." + decimals + "f", rounded == 0 ? 0.0 : rounded));
        long scaled = Rounded.up(size * POWERS[decimals]);
        Language language = Language.spoken();
        char grouping = language.grouping();
        boolean apart = language.groups(size >= 1e4 ? 5 : 4);
        char[] text = new char[32];
        int at = text.length;
        for (int d = 0; d < decimals; d++) {
            text[--at] = (char) ('0' + scaled % 10);
            scaled /= 10;
        }
        if (decimals > 0) text[--at] = language.decimal();
        int written = 0;
        do {
            if (apart && written > 0 && written % 3 == 0) text[--at] = grouping;
            text[--at] = (char) ('0' + scaled % 10);
            scaled /= 10;
            written++;
        } while (scaled > 0);
        if (rounded < 0) text[--at] = '-';
        return new String(text, at, text.length - at);
    }
}
