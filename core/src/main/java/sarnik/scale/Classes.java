package sarnik.scale;

import java.util.Arrays;

/**
 * Values cut into classes.
 *
 * @param breaks upper bounds of all classes but the last, ascending; a value equal to a bound belongs below it
 * @param low the smallest value
 * @param high the largest value
 */
public record Classes(double[] breaks, double low, double high) {

    /** How the breaks are found. */
    public enum Method {
        NATURAL("natural"),
        EQUAL_STEPS("equal-step"),
        EQUAL_COUNTS("equal-count");

        private final String words;

        Method(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Cuts values into classes. Where there are fewer distinct values than classes, there are as many classes as values.
     *
     * @param values any order; missing ones (NaN) take no part
     * @param count the number of classes wished, 2 to 11
     * @throws IllegalArgumentException when count is out of range
     */
    public static Classes of(Method method, double[] values, int count) {
        if (count < 2 || count > 11) throw new IllegalArgumentException("There can be 2 to 11 classes, not " + count);
        double[] sorted = Arrays.stream(values).filter(Double::isFinite).sorted().toArray();
        if (sorted.length == 0) return new Classes(new double[0], Double.NaN, Double.NaN);
        double[] breaks = switch (method) {
            case NATURAL -> NaturalBreaks.breaks(sorted, count);
            case EQUAL_STEPS -> equalSteps(sorted, count);
            case EQUAL_COUNTS -> equalCounts(sorted, count);
        };
        double high = sorted[sorted.length - 1];
        double[] distinct = Arrays.stream(breaks).distinct().filter(b -> b < high).toArray();
        return new Classes(distinct, sorted[0], high);
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

    /** Class i ends at the value of rank ⌈n·(i+1)/count⌉, so that equal values never fall into two classes. */
    private static double[] equalCounts(double[] sorted, int count) {
        double[] breaks = new double[count - 1];
        for (int i = 0; i < breaks.length; i++) {
            breaks[i] = sorted[(int) Math.ceil((double) sorted.length * (i + 1) / count) - 1];
        }
        return breaks;
    }
}
