package sarnik.statistics;

import org.apache.commons.statistics.distribution.ChiSquaredDistribution;
import org.apache.commons.statistics.distribution.NormalDistribution;

/**
 * How sure rates are. A rate is a number of events over what they could happen to: a share where each of those counts
 * once at most (people who have a tap, of all people), else a number of events for so many (complaints for 10,000
 * people).
 */
public final class Rates {

    /** What intervals are given for where nothing else is asked. */
    public static final double USUAL_CONFIDENCE = 0.95;

    /**
     * A rate of fewer events is unsure: Klein, Proctor, Boudreault, Turczyn 2002, Healthy People 2010 Statistical Notes
     * 24.
     */
    public static final int FEWEST_EVENTS = 20;

    /**
     * A share whose interval is wider than this is unsure, one that is narrower than {@link #NARROW} is not, and
     * between the two it is where the interval is wider than {@link #RELATIVE} of it: Parker and others 2017, National
     * Center for Health Statistics Data Presentation Standards for Proportions, Vital and Health Statistics 2(175).
     */
    private static final double WIDE = 0.30;

    private static final double NARROW = 0.05;
    private static final double RELATIVE = 1.30;

    /** So many of what it is a share of are too few, whatever the interval; the same source. */
    private static final int FEWEST_TRIALS = 30;

    private static final NormalDistribution NORMAL = NormalDistribution.of(0, 1);

    private Rates() {}

    /** The number of standard deviations within which a share of a normal distribution lies: 1.96 for 0.95. */
    public static double deviations(double confidence) {
        if (!(confidence > 0 && confidence < 1))
            throw new IllegalArgumentException("A confidence lies between 0 and 1");
        return NORMAL.inverseCumulativeProbability(0.5 + confidence / 2);
    }

    /** How likely it is to be so many standard deviations away from what is expected, or further, on either side. */
    public static double chanceOf(double deviations) {
        return 2 * NORMAL.survivalProbability(Math.abs(deviations));
    }

    /**
     * The score interval of a share: Wilson 1927, Journal of the American Statistical Association 22:209–212.
     *
     * @param events how many of the trials, 0 to trials
     * @param trials of how many; unknown where it is not above 0
     * @param confidence between 0 and 1
     */
    public static Interval wilson(double events, double trials, double confidence) {
        if (!(trials > 0) || !(events >= 0) || events > trials) return Interval.UNKNOWN;
        double z = deviations(confidence);
        double share = events / trials;
        double middle = share + z * z / (2 * trials);
        double half = z * Math.sqrt(share * (1 - share) / trials + z * z / (4 * trials * trials));
        double whole = 1 + z * z / trials;
        // At the ends the formula is exact but for the last digit.
        double low = events == 0 ? 0 : Math.max(0, (middle - half) / whole);
        double high = events == trials ? 1 : Math.min(1, (middle + half) / whole);
        return new Interval(low, high);
    }

    /**
     * The exact interval of a number of events that happen by themselves: Garwood 1936, Biometrika 28:437–442, by
     * quantiles of the chi-squared distribution.
     *
     * @param events how many happened, 0 or more
     * @param exposure what they could happen to, above 0; the interval is of events for each of it
     * @param confidence between 0 and 1
     */
    public static Interval poisson(double events, double exposure, double confidence) {
        if (!(exposure > 0) || !(events >= 0) || Double.isInfinite(events)) return Interval.UNKNOWN;
        double tail = (1 - confidence) / 2;
        double low = events == 0 ? 0 : ChiSquaredDistribution.of(2 * events).inverseCumulativeProbability(tail) / 2;
        double high = ChiSquaredDistribution.of(2 * (events + 1)).inverseSurvivalProbability(tail) / 2;
        return new Interval(low / exposure, high / exposure);
    }

    /** Whether a number of events is too small for its rate to be trusted. */
    public static boolean isUnsure(double events) {
        return !(events >= FEWEST_EVENTS);
    }

    /** Whether a share is of too few to be trusted. */
    public static boolean isUnsureShare(double events, double trials) {
        if (!(trials >= FEWEST_TRIALS)) return true;
        Interval interval = wilson(events, trials, USUAL_CONFIDENCE);
        if (!interval.isKnown() || interval.width() >= WIDE) return true;
        if (interval.width() <= NARROW) return false;
        double share = events / trials;
        // A share and what is left of one are equally sure: of the two the smaller is looked at.
        return interval.width() > RELATIVE * Math.min(share, 1 - share);
    }

    /**
     * Rates drawn toward the whole, the more the fewer they rest on: the empirical Bayes estimate by the method of
     * moments of Marshall 1991, Applied Statistics 40:283–294, toward one mean.
     *
     * @param events by group; NaN where unknown
     * @param exposure by group; a group of 0 or less has no rate
     * @return the rate of each group; NaN where it has none
     */
    public static double[] smoothed(double[] events, double[] exposure) {
        double allEvents = 0;
        double allExposure = 0;
        int groups = 0;
        for (int g = 0; g < events.length; g++) {
            if (!isKnown(events[g], exposure[g])) continue;
            allEvents += events[g];
            allExposure += exposure[g];
            groups++;
        }
        double[] smoothed = new double[events.length];
        if (groups == 0) {
            java.util.Arrays.fill(smoothed, Double.NaN);
            return smoothed;
        }
        double mean = allEvents / allExposure;
        double spread = 0;
        for (int g = 0; g < events.length; g++) {
            if (!isKnown(events[g], exposure[g])) continue;
            double away = events[g] / exposure[g] - mean;
            spread += exposure[g] * away * away;
        }
        // What the rates differ by beyond what chance alone would make them differ; nothing where chance is enough.
        double between = Math.max(0, spread / allExposure - mean / (allExposure / groups));
        for (int g = 0; g < events.length; g++) {
            if (!isKnown(events[g], exposure[g])) {
                smoothed[g] = Double.NaN;
                continue;
            }
            double chance = mean / exposure[g];
            double weight = between + chance == 0 ? 0 : between / (between + chance);
            smoothed[g] = mean + weight * (events[g] / exposure[g] - mean);
        }
        return smoothed;
    }

    private static boolean isKnown(double events, double exposure) {
        return events >= 0 && exposure > 0 && !Double.isInfinite(events) && !Double.isInfinite(exposure);
    }

    /**
     * Between which rates chance alone would let a group of this size lie: the limits of a funnel, Spiegelhalter 2005,
     * Statistics in Medicine 24:1185–1202, from exact tails of the expected number, drawn between whole numbers.
     *
     * @param rate of the whole, events for each of the exposure
     * @param exposure of the group, above 0
     * @param confidence such as 0.95 or 0.998
     */
    public static Interval funnel(double rate, double exposure, double confidence) {
        if (!(exposure > 0) || !(rate >= 0)) return Interval.UNKNOWN;
        double expected = rate * exposure;
        double tail = (1 - confidence) / 2;
        if (expected == 0) return new Interval(0, 0);
        return new Interval(quantile(expected, tail) / exposure, quantile(expected, 1 - tail) / exposure);
    }

    /** The same of a share. */
    public static Interval funnelOfShare(double share, double trials, double confidence) {
        if (!(trials > 0) || !(share >= 0) || share > 1) return Interval.UNKNOWN;
        double tail = (1 - confidence) / 2;
        return new Interval(
                shareQuantile(trials, share, tail) / trials, shareQuantile(trials, share, 1 - tail) / trials);
    }

    /**
     * A quantile of a Poisson distribution, drawn between whole numbers as Spiegelhalter does, so that limits are
     * smooth.
     */
    private static double quantile(double mean, double probability) {
        if (mean > 1e6) return Math.max(0, mean + NORMAL.inverseCumulativeProbability(probability) * Math.sqrt(mean));
        var poisson = org.apache.commons.statistics.distribution.PoissonDistribution.of(mean);
        int above = poisson.inverseCumulativeProbability(probability);
        return between(
                above,
                probability,
                poisson.cumulativeProbability(above),
                above == 0 ? 0 : poisson.cumulativeProbability(above - 1));
    }

    private static double shareQuantile(double trials, double share, double probability) {
        if (trials > 1e6)
            return Math.min(
                    trials,
                    Math.max(
                            0,
                            trials * share
                                    + NORMAL.inverseCumulativeProbability(probability)
                                            * Math.sqrt(trials * share * (1 - share))));
        var binomial =
                org.apache.commons.statistics.distribution.BinomialDistribution.of((int) Math.round(trials), share);
        int above = binomial.inverseCumulativeProbability(probability);
        return between(
                above,
                probability,
                binomial.cumulativeProbability(above),
                above == 0 ? 0 : binomial.cumulativeProbability(above - 1));
    }

    private static double between(int above, double probability, double atAbove, double atBelow) {
        double step = atAbove - atBelow;
        return step <= 0 ? above : Math.max(0, above - (atAbove - probability) / step);
    }
}
