package sarnik.statistics;

/**
 * What parts a whole from another one: for each group how much of the difference is its own, so that all of them add up
 * to the difference exactly.
 */
public final class Contributions {

    private Contributions() {}

    /**
     * What a group adds to a difference of means or rates.
     *
     * @param ofShare because more or fewer of the whole are in it: the change of its share, at how far it is from the
     *     mean of both wholes
     * @param ofValue because its own value is another: that change, at its mean share
     */
    public record Part(double ofShare, double ofValue) {
        public double whole() {
            return ofShare + ofValue;
        }
    }

    /**
     * The difference of two means (or rates) by groups: Kitagawa 1955, Journal of the American Statistical Association
     * 50:1168–1194, with what shares add counted from the mean of both wholes, so that a group of the usual value adds
     * nothing by growing.
     *
     * @param sums by group what is summed, of the one and of the other
     * @param sizes by group over what it is divided: numbers of rows, people, litres; a group that is in one of the two
     *     only has no value in the other, and all of it counts as of its share
     * @return in the order of the groups; the sum of {@link Part#whole} is the mean of the one less that of the other
     */
    public static Part[] ofMean(double[] sums, double[] sizes, double[] otherSums, double[] otherSizes) {
        double size = sum(sizes);
        double otherSize = sum(otherSizes);
        double usual = (sum(sums) / size + sum(otherSums) / otherSize) / 2;
        Part[] parts = new Part[sums.length];
        for (int g = 0; g < parts.length; g++) {
            double share = sizes[g] / size;
            double otherShare = otherSizes[g] / otherSize;
            double value =
                    sizes[g] == 0 ? otherSizes[g] == 0 ? usual : otherSums[g] / otherSizes[g] : sums[g] / sizes[g];
            double otherValue = otherSizes[g] == 0 ? value : otherSums[g] / otherSizes[g];
            parts[g] = new Part(
                    (share - otherShare) * ((value + otherValue) / 2 - usual),
                    (value - otherValue) * (share + otherShare) / 2);
        }
        return parts;
    }

    /**
     * The difference of two sums by groups, where the other whole may be of another size: it is brought to the size of
     * the one first.
     *
     * @param scale by what the other's sums are multiplied; 1 for as they are
     */
    public static double[] ofSum(double[] sums, double[] otherSums, double scale) {
        double[] parts = new double[sums.length];
        for (int g = 0; g < parts.length; g++) parts[g] = sums[g] - otherSums[g] * scale;
        return parts;
    }

    /**
     * How likely two rates of events are as different by chance: of all events of both so many would fall to the one as
     * it has of what they could happen to. By a normal distribution, two-sided.
     *
     * @return 1 where nothing can be told
     */
    public static double chanceOfEvents(double events, double over, double otherEvents, double otherOver) {
        double share = over / (over + otherOver);
        double all = events + otherEvents;
        double variance = all * share * (1 - share);
        return variance > 0 ? Rates.chanceOf((events - all * share) / Math.sqrt(variance)) : 1;
    }

    private static double sum(double[] values) {
        double sum = 0;
        for (double value : values) sum += value;
        return sum;
    }

    /**
     * How likely two shares are as different by chance: the two-sided test of two proportions with pooled variance. A
     * group with a chance that is not small says little, however large its share of the difference.
     *
     * @return 1 where nothing can be told
     */
    public static double chanceOfShares(double events, double trials, double otherEvents, double otherTrials) {
        double pooled = (events + otherEvents) / (trials + otherTrials);
        double variance = pooled * (1 - pooled) * (1 / trials + 1 / otherTrials);
        if (!(variance > 0)) return 1;
        return Rates.chanceOf((events / trials - otherEvents / otherTrials) / Math.sqrt(variance));
    }
}
