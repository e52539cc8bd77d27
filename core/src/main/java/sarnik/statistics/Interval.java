package sarnik.statistics;

/**
 * Where a value may well lie. Both ends are NaN where nothing can be said.
 *
 * @param low the lower end
 * @param high the upper end
 */
public record Interval(double low, double high) {

    /** Nothing can be said. */
    public static final Interval UNKNOWN = new Interval(Double.NaN, Double.NaN);

    public boolean isKnown() {
        return !Double.isNaN(low) && !Double.isNaN(high);
    }

    public boolean holds(double value) {
        return value >= low && value <= high;
    }

    public double width() {
        return high - low;
    }

    /** Both ends times a number of 0 or more. */
    public Interval times(double factor) {
        return new Interval(low * factor, high * factor);
    }
}
