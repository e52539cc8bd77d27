package sarnik.statistics;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Where high values lie beside high ones and low beside low ones, more than chance would have it. What chance would do
 * is found by putting the other values in other places many times over, so nothing is supposed of how they are spread.
 */
public final class LocalClusters {

    /** So often the other values are put elsewhere: p-values go down to one in ten thousand. */
    public static final int USUAL_TIMES = 9999;

    private LocalClusters() {}

    /** What a place is among its neighbours. */
    public enum Kind {
        /** High among high ones. */
        HIGH,
        /** Low among low ones. */
        LOW,
        /** High among low ones. */
        HIGH_ALONE,
        /** Low among high ones. */
        LOW_ALONE,
        /** As chance would have it. */
        NOTHING,
        /** It has no value or no neighbour. */
        UNKNOWN
    }

    /**
     * @param value of the statistic; NaN where it is unknown
     * @param chance how likely a value as far out is by chance
     * @param discovery the share of false ones among those that are as surprising, see {@link FalseDiscovery}
     * @param kind by the sign of the value, whatever its chance; {@link Kind#UNKNOWN} where it is unknown
     */
    public record Found(double value, double chance, double discovery, Kind kind) {

        /** What it is called where so large a share of false ones is borne. */
        public Kind kind(double most) {
            if (kind == Kind.UNKNOWN) return kind;
            return discovery <= most ? kind : Kind.NOTHING;
        }
    }

    /**
     * Getis and Ord's G* of each place, standardised: how far the sum of its value and its neighbours' is from what it
     * would be anywhere, in standard deviations. Ord and Getis 1995, Geographical Analysis 27:286–306.
     *
     * @param values by place; NaN where unknown: such a place is no neighbour either
     * @param times how often values are put elsewhere; 0 for the chance by a normal distribution
     * @param seed the same gives the same
     */
    public static Found[] hotSpots(double[] values, Neighbours neighbours, int times, long seed) {
        Known known = Known.of(values, neighbours);
        int n = known.values.length;
        double[] away = known.away();
        double deviation = deviation(away);
        double[] value = new double[n];
        double[] chance = new double[n];
        IntStream.range(0, n).forEach(p -> {
            int[] near = known.neighbours.of()[p];
            int weights = near.length + 1;
            double spread = deviation * Math.sqrt((n * (double) weights - (double) weights * weights) / (n - 1.0));
            if (near.length == 0 || weights == n || !(spread > 0)) {
                value[p] = chance[p] = Double.NaN;
                return;
            }
            double sum = 0;
            for (int other : near) sum += away[other];
            value[p] = (away[p] + sum) / spread;
            chance[p] = times == 0
                    ? Rates.chanceOf(value[p])
                    : elsewhere(away, p, near.length, times, seed, sum, deviation * SAME);
        });
        return known.found(value, chance, p -> value[p] > 0 ? Kind.HIGH : Kind.LOW);
    }

    /**
     * Anselin's local Moran's I of each place: its value beside the mean of its neighbours', both from the mean of all.
     * Anselin 1995, Geographical Analysis 27:93–115.
     *
     * @param times how often the other values are put elsewhere, 1 or more
     */
    public static Found[] alike(double[] values, Neighbours neighbours, int times, long seed) {
        Known known = Known.of(values, neighbours);
        int n = known.values.length;
        double[] away = known.away();
        double deviation = deviation(away);
        double[] value = new double[n];
        double[] chance = new double[n];
        double[] around = new double[n];
        IntStream.range(0, n).forEach(p -> {
            int[] near = known.neighbours.of()[p];
            if (near.length == 0 || near.length == n - 1 || !(deviation > 0)) {
                value[p] = chance[p] = Double.NaN;
                return;
            }
            double sum = 0;
            for (int other : near) sum += away[other];
            around[p] = sum / near.length;
            value[p] = away[p] / (deviation * deviation) * around[p];
            chance[p] = elsewhere(away, p, near.length, times, seed, sum, deviation * SAME);
        });
        return known.found(
                value,
                chance,
                p -> away[p] > 0
                        ? around[p] > 0 ? Kind.HIGH : Kind.HIGH_ALONE
                        : around[p] > 0 ? Kind.LOW_ALONE : Kind.LOW);
    }

    /** The standard deviation of values that are given as how far each is from the mean of all. */
    private static double deviation(double[] away) {
        return Math.sqrt(Arrays.stream(away).map(v -> v * v).sum() / Math.max(1, away.length));
    }

    /** Sums that differ by less, in standard deviations, are the same: what parts them is the order of adding up. */
    private static final double SAME = 1e-9;

    /** So often a sum as far out is seen before it is known well enough to be no surprise. */
    private static final int SEEN_ENOUGH = 50;

    /**
     * How likely the sum of so many of the other values is as far out as this one, on the side that it is on, and as
     * far on the other: twice the smaller side (Davison and Hinkley 1997), at most 1. A place keeps its own value.
     * Where such sums have been seen often enough no more are drawn (Besag and Clifford 1991, Biometrika 78:301–304).
     *
     * @param same sums that differ by no more are as far out
     */
    private static double elsewhere(
            double[] values, int own, int count, int times, long seed, double sum, double same) {
        Xoshiro128 chance = new Xoshiro128((int) seed * 0x01000193 + own);
        int n = values.length;
        int[] drawn = new int[count];
        int above = 0;
        int below = 0;
        for (int t = 1; t <= times; t++) {
            double other = 0;
            for (int k = 0; k < count; k++) {
                // Of the other places, each once: drawn anew where it was drawn already, for there are few of them.
                int place;
                do {
                    place = chance.next(n - 1);
                    if (place >= own) place++;
                } while (contains(drawn, k, place));
                drawn[k] = place;
                other += values[place];
            }
            if (other >= sum - same) above++;
            if (other <= sum + same) below++;
            if (Math.min(above, below) >= SEEN_ENOUGH) return Math.min(1, 2.0 * SEEN_ENOUGH / t);
        }
        return Math.min(1, 2 * (Math.min(above, below) + 1.0) / (times + 1.0));
    }

    private static boolean contains(int[] drawn, int count, int place) {
        for (int k = 0; k < count; k++) if (drawn[k] == place) return true;
        return false;
    }

    /** The places that have a value, and the neighbours among them. */
    private record Known(int places, int[] at, double[] values, Neighbours neighbours) {

        static Known of(double[] values, Neighbours neighbours) {
            if (values.length != neighbours.size())
                throw new IllegalArgumentException(
                        "There are %d values for %d places".formatted(values.length, neighbours.size()));
            int[] at = IntStream.range(0, values.length)
                    .filter(p -> Double.isFinite(values[p]))
                    .toArray();
            return new Known(
                    values.length,
                    at,
                    Arrays.stream(at).mapToDouble(p -> values[p]).toArray(),
                    neighbours.among(at));
        }

        /** How far each value is from the mean of all; 0 where all are the same. */
        double[] away() {
            double least = Arrays.stream(values).min().orElse(0);
            double most = Arrays.stream(values).max().orElse(0);
            double mean =
                    least == most ? least : Arrays.stream(values).average().orElse(0);
            return Arrays.stream(values).map(v -> v - mean).toArray();
        }

        Found[] found(double[] value, double[] chance, java.util.function.IntFunction<Kind> kind) {
            double[] discovery = FalseDiscovery.adjusted(chance);
            Found[] found = new Found[places];
            Arrays.fill(found, new Found(Double.NaN, Double.NaN, Double.NaN, Kind.UNKNOWN));
            for (int k = 0; k < at.length; k++)
                if (!Double.isNaN(chance[k]))
                    found[at[k]] = new Found(value[k], chance[k], discovery[k], kind.apply(k));
            return found;
        }
    }
}
