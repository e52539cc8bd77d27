package sarnik.narrow;

/**
 * A named number that the reader sets: the centre of scales that turn about it.
 *
 * @param order its place in the strip, behind the filters
 * @param value what it is until the reader sets it
 * @param low the least it can be; null for no bound
 * @param high the most it can be; null for no bound
 */
public record Parameter(String name, int order, double value, Double low, Double high) {

    /** Whether it can have this value. */
    public boolean allows(double value) {
        return Double.isFinite(value) && (low == null || value >= low) && (high == null || value <= high);
    }
}
