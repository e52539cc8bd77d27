package sarnik.statistics;

import java.util.Arrays;

/**
 * Values that stand out of others, by what those others are like in their middle, so that what stands out does not hide
 * itself: Iglewicz and Hoaglin 1993, How to Detect and Handle Outliers.
 */
public final class Unlikely {

    /** From so many (modified) standard deviations on a value is called unlikely; the same source. */
    public static final double FROM = 3.5;

    /** Fewer values say nothing of what is usual. */
    public static final int FEWEST = 8;

    /** What the median of absolute deviations is of a normal distribution's standard deviation. */
    private static final double OF_NORMAL = 0.6745;

    /** The same of the mean of absolute deviations, for values of which more than half are the same. */
    private static final double MEAN_OF_NORMAL = 0.7979;

    private Unlikely() {}

    /**
     * What is usual.
     *
     * @param median the middle value
     * @param deviation a standard deviation as the middle half has it; 0 where all are the same
     * @param count of how many values
     */
    public record Usual(double median, double deviation, long count) {

        /** How many deviations a value is away; NaN where too few are known, infinite where all others are the same. */
        public double away(double value) {
            if (count < FEWEST || Double.isNaN(value)) return Double.NaN;
            if (value == median) return 0;
            return (value - median) / deviation;
        }

        /** Between which values nothing stands out. */
        public Interval interval() {
            return count < FEWEST
                    ? Interval.UNKNOWN
                    : new Interval(median - FROM * deviation, median + FROM * deviation);
        }
    }

    /** What is usual among some values; those that are NaN are left out. */
    public static Usual usual(double[] values) {
        double[] sorted =
                Arrays.stream(values).filter(v -> !Double.isNaN(v)).sorted().toArray();
        long[] once = new long[sorted.length];
        Arrays.fill(once, 1);
        return usual(sorted, once);
    }

    /**
     * What is usual among values that occur several times.
     *
     * @param values ascending, none of them NaN
     * @param times how often each occurs
     */
    public static Usual usual(double[] values, long[] times) {
        long count = Arrays.stream(times).sum();
        if (count == 0) return new Usual(Double.NaN, Double.NaN, 0);
        double median = median(values, times, count);
        double[] away = new double[values.length];
        long[] often = new long[values.length];
        // What lies below and what lies above the middle are in order already: both are gone through from there.
        int below = Arrays.binarySearch(values, median);
        below = below >= 0 ? below : -below - 2;
        int above = below + 1;
        double sum = 0;
        for (int i = 0; i < values.length; i++) {
            boolean lower = above >= values.length || below >= 0 && median - values[below] <= values[above] - median;
            int next = lower ? below-- : above++;
            away[i] = Math.abs(values[next] - median);
            often[i] = times[next];
            sum += away[i] * often[i];
        }
        double deviation = median(away, often, count) / OF_NORMAL;
        // More than half are the same: the mean of what they differ by is looked at.
        if (deviation == 0) deviation = sum / count / MEAN_OF_NORMAL;
        return new Usual(median, deviation, count);
    }

    /** The middle of values in order, or the mean of the two middle ones. */
    private static double median(double[] sorted, long[] times, long count) {
        long passed = 0;
        for (int i = 0; i < sorted.length; i++) {
            passed += times[i];
            if (passed * 2 < count) continue;
            if (passed * 2 > count) return sorted[i];
            int next = i + 1;
            while (times[next] == 0) next++;
            return (sorted[i] + sorted[next]) / 2;
        }
        throw new IllegalArgumentException("No values");
    }

    private static double median(double[] sorted) {
        int n = sorted.length;
        return n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
    }

    /**
     * How far each value of a history stands out of those that came before it.
     *
     * @param values one after the other; NaN where one is missing
     * @param season after so many steps the same comes round, such as 12 for months; a value is compared with its own
     *     season where that came round often enough, else with all; 1 for none
     * @return deviations; NaN where too little came before
     */
    public static double[] ofHistory(double[] values, int season) {
        double[] away = new double[values.length];
        for (int t = 0; t < values.length; t++)
            away[t] = before(values, t, season).away(values[t]);
        return away;
    }

    /**
     * What was usual before a value of a history.
     *
     * @param season as with {@link #ofHistory}
     */
    public static Usual before(double[] values, int at, int season) {
        double[] before = season > 1 ? seasonal(values, at, season) : new double[0];
        return usual(before.length < FEWEST ? Arrays.copyOf(values, at) : before);
    }

    private static double[] seasonal(double[] values, int at, int season) {
        int rounds = at / season;
        double[] same = new double[rounds];
        for (int r = 0; r < rounds; r++) same[r] = values[at - (r + 1) * season];
        return Arrays.stream(same).filter(v -> !Double.isNaN(v)).toArray();
    }

    /**
     * How far each place stands out of its neighbours.
     *
     * @return deviations of the difference to the neighbours' median from what such differences usually are; NaN where
     *     a place has no value or fewer than three neighbours that have one
     */
    public static double[] ofNeighbours(double[] values, Neighbours neighbours) {
        double[] differences = new double[values.length];
        for (int p = 0; p < values.length; p++) {
            double[] around = Arrays.stream(neighbours.of()[p])
                    .mapToDouble(other -> values[other])
                    .filter(v -> !Double.isNaN(v))
                    .sorted()
                    .toArray();
            differences[p] = around.length < 3 ? Double.NaN : values[p] - median(around);
        }
        Usual usual = usual(differences);
        return Arrays.stream(differences).map(usual::away).toArray();
    }
}
