package sarnik.live;

/**
 * From which value on a measure is to be watched and bad. A state that has been reached is left only where the value
 * comes back by more than {@code back}, so that one that trembles about the limit does not turn to and fro.
 *
 * @param column the measure
 * @param side on which side of the limits values are bad
 * @param watch the value from which on it is to be watched; null for none
 * @param bad the value from which on it is bad; null for none
 * @param back how far a value has to come back, in the unit of the measure; 0 or more
 * @param seconds for how long values have to lie beyond a limit before it counts; 0 for at once
 */
public record Threshold(String column, Side side, Double watch, Double bad, double back, long seconds) {

    /** The side of a limit on which values are bad. */
    public enum Side {
        ABOVE("above"),
        BELOW("below");

        private final String words;

        Side(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * @throws IllegalArgumentException with a sentence where the limits do not go together
     */
    public Threshold {
        if (column == null || column.isBlank()) throw new IllegalArgumentException("A threshold is of a measure.");
        if (watch == null && bad == null)
            throw new IllegalArgumentException("A threshold of %s needs a value.".formatted(column));
        if (!(back >= 0) || Double.isInfinite(back))
            throw new IllegalArgumentException("A value comes back by 0 or more.");
        if (seconds < 0 || seconds > 30L * 86_400)
            throw new IllegalArgumentException("A state counts after 0 seconds to 30 days.");
        if (watch != null && bad != null && (side == Side.ABOVE ? watch > bad : watch < bad))
            throw new IllegalArgumentException(
                    "Of %s what is bad has to lie %s what is to be watched.".formatted(column, side.words()));
    }

    /** The value from which on it is so; null for none. */
    Double limit(DeviceState state) {
        return state == DeviceState.BAD ? bad : state == DeviceState.WATCH ? watch : null;
    }

    boolean isBeyond(double value, double limit) {
        return side == Side.ABOVE ? value >= limit : value <= limit;
    }

    /** Whether a value has come back from a limit by more than it has to. */
    boolean isBack(double value, double limit) {
        return side == Side.ABOVE ? value < limit - back : value > limit + back;
    }
}
