package sarnik.scale;

import java.util.Arrays;
import sarnik.table.Rounded;
import sarnik.table.Sums;

/**
 * Values cut into classes.
 *
 * @param breaks upper bounds of all classes but the last, ascending; a value equal to a bound belongs below it
 * @param low the smallest value
 * @param high the largest value
 */
public record Classes(double[] breaks, double low, double high) {

    /** How far values of one amount may lie apart, as a share of it, after some arithmetic in binary64. */
    private static final double NOISE = 1e-12;

    /** How the breaks are found. */
    public enum Method {
        NATURAL("natural"),
        EQUAL_STEPS("equal-step"),
        EQUAL_COUNTS("equal-count"),
        ABOUT_THE_MEAN("about-the-mean"),
        ROUND_NUMBERS("round-number"),
        GEOMETRIC("geometric");

        private final String words;

        Method(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Cuts values into classes. Where there are fewer distinct values than classes, there are as many classes as
     * values.
     *
     * @param values any order; missing ones (NaN) take no part
     * @param count the number of classes wished, 2 to 11
     * @throws IllegalArgumentException when count is out of range
     */
    public static Classes of(Method method, double[] values, int count) {
        if (count < 2 || count > 11) throw new IllegalArgumentException("There can be 2 to 11 classes, not " + count);
        double[] sorted =
                Arrays.stream(values).filter(Double::isFinite).sorted().toArray();
        if (sorted.length == 0) return new Classes(new double[0], Double.NaN, Double.NaN);
        double least = sorted[0];
        settle(sorted);
        double[] breaks = switch (method) {
            case NATURAL -> NaturalBreaks.breaks(sorted, count);
            case EQUAL_STEPS -> equalSteps(sorted, count);
            case EQUAL_COUNTS -> equalCounts(sorted, count);
            case ABOUT_THE_MEAN -> aboutTheMean(sorted, count);
            case ROUND_NUMBERS -> roundNumbers(sorted, count);
            case GEOMETRIC -> geometric(sorted, count);
        };
        double high = sorted[sorted.length - 1];
        double[] distinct = Arrays.stream(breaks)
                .distinct()
                .filter(b -> b < high && b >= sorted[0])
                .toArray();
        return new Classes(distinct, least, high);
    }

    /** Values that only arithmetic tells apart are one: of each such few, the largest. */
    private static void settle(double[] sorted) {
        for (int i = sorted.length - 2; i >= 0; i--) {
            double next = sorted[i + 1];
            if (next - sorted[i] <= NOISE * Math.max(Math.abs(next), Math.abs(sorted[i]))) sorted[i] = next;
        }
    }

    /** Number of classes. */
    public int count() {
        return breaks.length + 1;
    }

    /** The class of a value, from 0; -1 for a missing one. */
    public int classOf(double value) {
        if (Double.isNaN(value)) return -1;
        int i = 0;
        while (i < breaks.length && value > breaks[i]) i++;
        return i;
    }

    private static double[] equalSteps(double[] sorted, int count) {
        double low = sorted[0];
        double step = (sorted[sorted.length - 1] - low) / count;
        double[] breaks = new double[count - 1];
        for (int i = 0; i < breaks.length; i++) breaks[i] = low + step * (i + 1);
        return breaks;
    }

    /**
     * Classes one standard deviation of the population wide, about the mean: with an even number of classes a break
     * lies on
     * the mean, with an odd one the mean is in the middle of a class. The outermost classes hold all that lies beyond.
     */
    private static double[] aboutTheMean(double[] sorted, int count) {
        double mean = Sums.mean(sorted);
        double deviation = Math.sqrt(Sums.mean(
                Arrays.stream(sorted).map(v -> (v - mean) * (v - mean)).toArray()));
        double[] breaks = new double[count - 1];
        for (int i = 0; i < breaks.length; i++) breaks[i] = mean + (i + 1 - count / 2.0) * deviation;
        return breaks;
    }

    /**
     * Steps of 1, 2, 2.5 or 5 times a power of ten (after Heckbert 1990, "Nice numbers for graph labels"): the
     * smallest that
     * make no more classes than are wished.
     */
    private static double[] roundNumbers(double[] sorted, int count) {
        double low = sorted[0];
        double high = sorted[sorted.length - 1];
        if (high == low) return new double[0];
        double rough = (high - low) / count;
        double power = Rounded.power(Rounded.tens(rough));
        for (double factor : new double[] {1, 2, 2.5, 5, 10, 20}) {
            double step = factor * power;
            double first = Math.floor(low / step) + 1;
            double last = Math.ceil(high / step) - 1;
            if (last - first + 2 > count) continue;
            double[] breaks = new double[(int) Math.max(0, last - first + 1)];
            // Divided rather than multiplied where the step is a fraction: 3 / 10 is 0.3, 3 * 0.1 is not.
            for (int i = 0; i < breaks.length; i++)
                breaks[i] = power < 1 ? (first + i) * factor / Rounded.even(1 / power) : (first + i) * step;
            return breaks;
        }
        return equalSteps(sorted, count);
    }

    /**
     * Classes whose bounds grow by one factor, for values that spread over several powers of ten. Values that are not
     * above
     * zero have no factor: they share the first class with the smallest positive ones.
     */
    private static double[] geometric(double[] sorted, int count) {
        double low = Arrays.stream(sorted).filter(v -> v > 0).findFirst().orElse(Double.NaN);
        double high = sorted[sorted.length - 1];
        if (!(low > 0) || low == high) return equalSteps(sorted, count);
        double factor = Math.pow(high / low, 1.0 / count);
        double[] breaks = new double[count - 1];
        for (int i = 0; i < breaks.length; i++) breaks[i] = low * Math.pow(factor, i + 1);
        return breaks;
    }

    /** Class i ends at the value of rank ⌈n·(i+1)/count⌉, so that equal values never fall into two classes. */
    private static double[] equalCounts(double[] sorted, int count) {
        double[] breaks = new double[count - 1];
        for (int i = 0; i < breaks.length; i++) {
            breaks[i] = sorted[(int) Math.ceil((double) sorted.length * (i + 1) / count) - 1];
        }
        return breaks;
    }
}
