package sarnik.table;

/**
 * Sums that are the same wherever they are added up: streams of the JDK compensate in a way of their own, which other
 * machines for Java do not share. Values are added in their order with Neumaier's compensation (1974,
 * "Rundungsfehleranalyse einiger Verfahren zur Summation endlicher Summen").
 */
public final class Sums {

    private Sums() {}

    /**
     * @return NaN where a value is missing
     */
    public static double of(double[] values) {
        Running running = new Running();
        for (double value : values) running.add(value);
        return running.sum();
    }

    /** A sum that goes on. */
    public static final class Running {

        private double sum;
        private double lost;

        public void add(double value) {
            double next = sum + value;
            lost += Math.abs(sum) >= Math.abs(value) ? (sum - next) + value : (value - next) + sum;
            sum = next;
        }

        /** The sum so far, the same as of all values at once. */
        public double sum() {
            // Infinities leave nothing to compensate.
            return Double.isNaN(lost) ? sum : sum + lost;
        }
    }

    /**
     * @return NaN where there is no value
     */
    public static double mean(double[] values) {
        return of(values) / values.length;
    }
}
