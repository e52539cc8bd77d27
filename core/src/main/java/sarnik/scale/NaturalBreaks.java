package sarnik.scale;

import java.util.Arrays;

/**
 * Natural breaks: the cut of sorted values into classes with the least sum of squared deviations from the class means
 * (Fisher 1958, "On grouping for maximum homogeneity"). Exact.
 *
 * <p>Dynamic programming over the number of classes; the best last cut moves to the right with the number of values, so
 * each layer is filled by divide and conquer in O(n log n) (Wang and Song 2011 use the same property).
 */
final class NaturalBreaks {

    private final double[] sums;
    private final double[] squares;
    private final double shift;
    private double[] before;
    private double[] now;
    private int[] cuts;

    private NaturalBreaks(double[] values, int[] weights, int size) {
        shift = values[size / 2];
        sums = new double[size + 1];
        squares = new double[size + 1];
        count = new double[size + 1];
        for (int i = 0; i < size; i++) {
            double v = values[i] - shift;
            count[i + 1] = count[i] + weights[i];
            sums[i + 1] = sums[i] + v * weights[i];
            squares[i + 1] = squares[i] + v * v * weights[i];
        }
    }

    private final double[] count;

    /**
     * @param sorted ascending, finite, at least one
     * @param classes how many classes
     * @return upper bounds of all classes but the last
     */
    static double[] breaks(double[] sorted, int classes) {
        double[] values = new double[sorted.length];
        int[] weights = new int[sorted.length];
        int size = 0;
        for (double v : sorted) {
            if (size > 0 && values[size - 1] == v) weights[size - 1]++;
            else {
                values[size] = v;
                weights[size++] = 1;
            }
        }
        if (size <= classes) return Arrays.copyOf(values, size - 1);
        return new NaturalBreaks(values, weights, size).solve(values, size, classes);
    }

    private double[] solve(double[] values, int size, int classes) {
        before = new double[size + 1];
        for (int i = 1; i <= size; i++) before[i] = cost(0, i);
        int[][] cutsOf = new int[classes][];
        for (int k = 1; k < classes; k++) {
            now = new double[size + 1];
            cuts = new int[size + 1];
            fill(k + 1, size, k, size - 1);
            cutsOf[k] = cuts;
            before = now;
        }
        double[] breaks = new double[classes - 1];
        int end = size;
        for (int k = classes - 1; k >= 1; k--) {
            end = cutsOf[k][end];
            breaks[k - 1] = values[end - 1];
        }
        return breaks;
    }

    /** Best costs of the first i values for i in [low, high], whose last class starts between the two cuts. */
    private void fill(int low, int high, int cutLow, int cutHigh) {
        if (low > high) return;
        int middle = (low + high) >>> 1;
        double best = Double.POSITIVE_INFINITY;
        int bestCut = cutLow;
        for (int cut = cutLow; cut <= Math.min(middle - 1, cutHigh); cut++) {
            double cost = before[cut] + cost(cut, middle);
            if (cost < best) {
                best = cost;
                bestCut = cut;
            }
        }
        now[middle] = best;
        cuts[middle] = bestCut;
        fill(low, middle - 1, cutLow, bestCut);
        fill(middle + 1, high, bestCut, cutHigh);
    }

    /** Sum of squared deviations from their mean of the values from (included) to (excluded). */
    private double cost(int from, int to) {
        double sum = sums[to] - sums[from];
        return squares[to] - squares[from] - sum * sum / (count[to] - count[from]);
    }
}
