package sarnik.scale;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import sarnik.language.Language;
import sarnik.table.Rounded;

/**
 * Numbers that stand below each other: of one unit and with as many decimals each, so that their points are in line.
 */
public final class Aligned {

    private static final int FIGURES = 3;
    private static final int MOST_DECIMALS = 6;

    /** Where the largest is more than so many times the smallest, no unit serves both. */
    private static final double FAR_APART = 200;

    private Aligned() {}

    /**
     * As short as can be: three figures of the largest, thousands as k, M or G.
     *
     * @return a text for each, "–" for a missing one
     */
    public static List<String> brief(double[] values) {
        if (Language.spoken().isForFiles())
            return Arrays.stream(values).mapToObj(NumberWords::full).toList();
        double largest = Arrays.stream(values)
                .filter(Double::isFinite)
                .map(Math::abs)
                .max()
                .orElse(0);
        double smallest = Arrays.stream(values)
                .filter(v -> Double.isFinite(v) && v != 0)
                .map(Math::abs)
                .min()
                .orElse(0);
        // In thousands of the largest the smallest would be nothing, so both are written out.
        boolean areWhole = Arrays.stream(values).allMatch(v -> !Double.isFinite(v) || v == Rounded.even(v));
        if (smallest < largest / FAR_APART && largest < 1e9)
            return full(values, areWhole || smallest >= 10 ? 0 : Math.max(1, decimals(largest, 1)));
        double unit = largest >= 999.5e6 ? 1e9 : largest >= 999_500 ? 1e6 : largest >= 9_999.5 ? 1e3 : 1;
        String sign = unit == 1e9 ? " G" : unit == 1e6 ? " M" : unit == 1e3 ? " k" : "";
        int decimals = unit == 1 && areWhole ? 0 : decimals(largest, unit);
        List<String> texts = new ArrayList<>();
        for (double value : values) texts.add(Double.isFinite(value) ? written(value / unit, decimals) + sign : "–");
        return texts;
    }

    /** How many decimals give the largest of some numbers its figures. */
    private static int decimals(double largest, double unit) {
        if (largest > 0 && largest / unit < 0.1) return Math.min(MOST_DECIMALS, 1 - Rounded.tens(largest));
        return Math.max(0, FIGURES - (largest / unit < 1 ? 1 : Rounded.tens(largest / unit) + 1));
    }

    private static List<String> full(double[] values, int decimals) {
        List<String> texts = new ArrayList<>();
        for (double value : values) texts.add(Double.isFinite(value) ? written(value, decimals) : "–");
        return texts;
    }

    /**
     * Marks of an axis: of one unit, with the decimals that tell them apart, and a plain 0.
     *
     * @param step between them
     */
    public static List<String> marks(double[] values, double step) {
        double largest = Arrays.stream(values).map(Math::abs).max().orElse(0);
        double unit = largest >= 1e9 ? 1e9 : largest >= 1e6 ? 1e6 : largest >= 10_000 ? 1e3 : 1;
        String sign = unit == 1e9 ? " G" : unit == 1e6 ? " M" : unit == 1e3 ? " k" : "";
        int decimals = (int) Math.max(0, Math.min(8, -Math.floor(Math.log10(step / unit) + 1e-9)));
        List<String> texts = new ArrayList<>();
        for (double value : values)
            texts.add(Math.abs(value) < step / 1000 ? "0" : written(value / unit, decimals) + sign);
        return texts;
    }

    /** A finite number with so many decimals, rounded half up; in files with all there are. */
    public static String written(double value, int decimals) {
        if (Language.spoken().isForFiles()) return Digits.all(value);
        double rounded =
                new BigDecimal(value).setScale(decimals, RoundingMode.HALF_UP).doubleValue();
        return Digits.grouped(rounded, decimals);
    }
}
