package sarnik.table;

/**
 * Sums that are the same wherever they are added up: streams of the JDK compensate in a way of their own, which other
 * machines for Java do not share. Values are added in their order with Neumaier's compensation (1974, "Rundungsfehleranalyse
 * einiger Verfahren zur Summation endlicher Summen").
 */
public final class Sums {

    private Sums() {}

    /**
     * @return NaN where a value is missing
     */
    public static double of(double[] values) {
        double sum = 0;
        double lost = 0;
        for (double value : values) {
            double next = sum + value;
            lost += Math.abs(sum) >= Math.abs(value) ? (sum - next) + value : (value - next) + sum;
            sum = next;
        }
        // Infinities leave nothing to compensate.
        return Double.isNaN(lost) ? sum : sum + lost;
    }

    /**
     * @return NaN where there is no value
     */
    public static double mean(double[] values) {
        return of(values) / values.length;
    }
}
