package sarnik.scale;

import java.math.BigDecimal;
import java.math.RoundingMode;
import sarnik.language.Language;
import sarnik.table.Rounded;

/** Numbers as people read them, in the language that is spoken. */
public final class NumberWords {

    /** What lies below them is the noise of adding up. */
    private static final int MOST_DECIMALS = 8;

    private static final double[] POWERS = {1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8};

    private NumberWords() {}

    /**
     * The whole number where it is one, else as many decimals as the size asks for: two below 100, one below 1,000,
     * and below a tenth as
     * many as show two figures, so that what is small is not written as nothing. In files all digits.
     *
     * @return the text, "–" for a missing value
     */
    public static String full(double value) {
        if (!Double.isFinite(value)) return "–";
        if (Language.spoken().isForFiles()) return Digits.all(value);
        double rounded = shown(value);
        int decimals = rounded == Rounded.even(rounded) ? 0 : decimals(Math.abs(rounded));
        return Digits.grouped(rounded, decimals);
    }

    /**
     * The value rounded as {@link #full} shows it, so that it can be sent short and put in words elsewhere.
     *
     * @return the rounded value; missing and infinite ones as they are
     */
    public static double shown(double value) {
        if (!Double.isFinite(value) || value == Rounded.even(value)) return value;
        if (Language.spoken().isForFiles()) return value;
        double size = Math.abs(value);
        return size >= 1000 ? Rounded.even(value) : rounded(value, decimals(size));
    }

    /** Rounded half up as it is written; only where it lies near a half need its digits be looked at. */
    private static double rounded(double value, int decimals) {
        double power = POWERS[decimals];
        double scaled = Math.abs(value) * power;
        double below = Math.floor(scaled);
        double rest = scaled - below;
        if (Math.abs(rest - 0.5) > 1e-4) return Math.copySign((rest < 0.5 ? below : below + 1) / power, value);
        return BigDecimal.valueOf(value)
                .setScale(decimals, RoundingMode.HALF_UP)
                .doubleValue();
    }

    /** Decimals that tell something of a number below 1000: two, and below a tenth as many as show two figures. */
    private static int decimals(double size) {
        if (size >= 100) return 1;
        return size >= 0.1 ? 2 : Math.min(MOST_DECIMALS, 1 - Rounded.tens(size));
    }

    /**
     * Three figures at most, with k, M or G (thousand, million, thousand million) behind: 1.23 M, 45.6 k, 789.
     *
     * @return the text, "–" for a missing value
     */
    public static String brief(double value) {
        if (!Double.isFinite(value)) return "–";
        double size = Math.abs(value);
        if (size < 1000 && value == Rounded.even(value) || Language.spoken().isForFiles()) return full(value);
        // Rounded first: 999.6 is 1 k.
        double rounded = value == 0
                ? 0
                : new BigDecimal(value)
                        .round(new java.math.MathContext(3, RoundingMode.HALF_UP))
                        .doubleValue();
        size = Math.abs(rounded);
        String sign = "";
        double unit = 1;
        if (size >= 1e9) {
            unit = 1e9;
            sign = " G";
        } else if (size >= 1e6) {
            unit = 1e6;
            sign = " M";
        } else if (size >= 1e3) {
            unit = 1e3;
            sign = " k";
        }
        return Language.spoken()
                        .written(BigDecimal.valueOf(rounded / unit)
                                .round(new java.math.MathContext(3, RoundingMode.HALF_UP))
                                .stripTrailingZeros()
                                .toPlainString())
                + sign;
    }

    /** The nearest number at or above the value that is 1, 2 or 5 times a power of ten. */
    public static double roundUp(double value) {
        if (!(value > 0)) return 0;
        double power = Rounded.power(Rounded.tens(value));
        for (double step : new double[] {1, 2, 5}) if (value <= step * power * (1 + 1e-12)) return step * power;
        return 10 * power;
    }

    /** The nearest number at or below the value that is 1, 2 or 5 times a power of ten. */
    public static double roundDown(double value) {
        if (!(value > 0)) return 0;
        double power = Rounded.power(Rounded.tens(value));
        double best = power;
        for (double step : new double[] {2, 5}) if (step * power <= value * (1 + 1e-12)) best = step * power;
        return best;
    }
}
