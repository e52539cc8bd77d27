package sarnik.query;

/**
 * A condition on groups: the value of a measure lies between two bounds.
 *
 * @param measure index of the measure in the query
 * @param low the least; null for none
 * @param withLow whether the least is included
 * @param high the greatest; null for none
 * @param withHigh whether the greatest is included
 * @param missing true to keep only groups without a value instead
 * @param words what it does, as people read it
 */
public record Having(
        int measure, Double low, boolean withLow, Double high, boolean withHigh, boolean missing, String words) {

    boolean keeps(double value) {
        if (missing || Double.isNaN(value)) return missing && Double.isNaN(value);
        return (low == null || value > low || withLow && value == low)
                && (high == null || value < high || withHigh && value == high);
    }
}
