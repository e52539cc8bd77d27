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
        DEVICES,
        /** The states that its devices have turned to, a row for each. */
        TURNS,
        /** Its readings put together, a row for each device and minute. */
        MINUTES,
        HOURS,
        DAYS,
        /** Where its devices stopped, and when they were within areas, a row for each. */
        STAYS
    }
}
