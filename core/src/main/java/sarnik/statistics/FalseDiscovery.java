package sarnik.statistics;

import java.util.Arrays;
import java.util.Comparator;

/**
 * Of many looks some show something by chance alone. The share of those among what is called found is held down:
 * Benjamini and Hochberg 1995, Journal of the Royal Statistical Society B 57:289–300.
 */
public final class FalseDiscovery {

    private FalseDiscovery() {}

    /**
     * For each look the share of false ones among all that are as surprising, if it is called found.
     *
     * @param chances for each how likely it would be by chance; NaN where nothing was looked at
     * @return in the same order; NaN where nothing was looked at
     */
    public static double[] adjusted(double[] chances) {
        Integer[] order = new Integer[chances.length];
        Arrays.setAll(order, i -> i);
        Arrays.sort(order, Comparator.comparingDouble(i -> chances[i]));
        int looks = (int) Arrays.stream(chances).filter(p -> !Double.isNaN(p)).count();
        double[] adjusted = new double[chances.length];
        Arrays.fill(adjusted, Double.NaN);
        double least = 1;
        for (int rank = looks; rank >= 1; rank--) {
            int at = order[rank - 1];
            least = Math.min(least, chances[at] * looks / rank);
            adjusted[at] = least;
        }
        return adjusted;
    }
}
