package sarnik.demo;

import java.util.Arrays;

/** Drawing by weight. */
final class Draw {

    private Draw() {}

    /**
     * @param upTo running sums of the weights
     * @param at a number from 0 (included) to the last sum (excluded)
     * @return index of the weight in which the number falls
     */
    static int index(double[] upTo, double at) {
        int found = Arrays.binarySearch(upTo, at);
        int index = found >= 0 ? found + 1 : -found - 1;
        return Math.min(index, upTo.length - 1);
    }

    static double[] sums(double[] weights) {
        double[] sums = weights.clone();
        Arrays.parallelPrefix(sums, Double::sum);
        return sums;
    }
}
