package sarnik.app.dataset;

/**
 * Of which feed a dataset shows what.
 *
 * @param feed its id
 */
public record Live(long feed, Part part) {

    /** What of a feed. */
    public enum Part {
        /** Its newest readings, a row for each device and moment. */
        READINGS,
        /** Its devices as they are now, a row for each. */
        DEVICES
    }
}
