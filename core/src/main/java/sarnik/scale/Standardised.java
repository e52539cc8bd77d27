package sarnik.scale;

import java.util.Arrays;
import java.util.List;
import sarnik.table.Sums;

/**
 * Likeness by several measures, each counted in its own standard deviations so that none outweighs the others by its
 * unit.
 */
public final class Standardised {

    private Standardised() {}

    /**
     * Euclidean distances from one thing to all, over measures divided by their standard deviation among all things.
     *
     * @param measures for each measure one value a thing
     * @param from the thing from which distances are taken
     * @return one distance a thing, in standard deviations; NaN where a measure is missing in it or in {@code from}. A
     *     measure that is
     *     the same in all things takes no part.
     */
    public static double[] distances(List<double[]> measures, int from) {
        double[] sums = new double[measures.get(0).length];
        for (double[] values : measures) {
            double[] finite = Arrays.stream(values).filter(Double::isFinite).toArray();
            double mean = Sums.mean(finite);
            double deviation = Math.sqrt(Sums.mean(
                    Arrays.stream(finite).map(v -> (v - mean) * (v - mean)).toArray()));
            for (int i = 0; i < sums.length; i++) {
                double difference = values[i] - values[from];
                if (!Double.isFinite(difference)) sums[i] = Double.NaN;
                else if (deviation > 0) sums[i] += difference / deviation * (difference / deviation);
            }
        }
        return Arrays.stream(sums).map(Math::sqrt).toArray();
    }
}
