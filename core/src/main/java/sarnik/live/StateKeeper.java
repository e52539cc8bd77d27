package sarnik.live;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * Keeps the state of one device as its readings come: the worst of what its thresholds say, or silent. Not safe for use
 * by several threads at once.
 */
public final class StateKeeper {

    /**
     * A state that a device turned to.
     *
     * @param since milliseconds since 1970
     * @param why a phrase such as “turbidity 4.2, above 4”, or “no reading”; empty for good
     */
    public record Turn(DeviceState state, long since, String why) {}

    private static final DeviceState[] WORSE = {DeviceState.WATCH, DeviceState.BAD};
    private static final long NOT = Long.MIN_VALUE;

    /** A limit of a threshold and how the device stands to it. */
    private static final class Limit {
        final Threshold threshold;
        final DeviceState state;
        final double limit;
        final int field;
        /** Since when values lie beyond it. */
        long beyondSince = NOT;
        /** Whether it counts: values have lain beyond it for long enough and have not come back. */
        boolean holds;

        double value;

        Limit(Threshold threshold, DeviceState state, int field) {
            this.threshold = threshold;
            this.state = state;
            this.limit = threshold.limit(state);
            this.field = field;
        }

        void take(double newer, long at) {
            value = newer;
            if (threshold.isBeyond(value, limit)) {
                if (beyondSince == NOT) beyondSince = at;
                if (at - beyondSince >= threshold.seconds() * 1000) holds = true;
                return;
            }
            beyondSince = NOT;
            if (threshold.isBack(value, limit)) holds = false;
        }

        String why() {
            return "%s %s, %s %s"
                    .formatted(
                            threshold.column(), number(value), threshold.side().words(), number(limit));
        }

        private static String number(double value) {
            return value == Math.rint(value) && Math.abs(value) < 1e15
                    ? Long.toString((long) value)
                    : Double.toString(Math.round(value * 1000) / 1000.0);
        }
    }

    private final List<Limit> limits = new ArrayList<>();
    private final long silentMillis;
    private long newest = NOT;
    private Turn now;

    /**
     * @param shape says which column is which
     * @param thresholds those of columns that the shape lacks say nothing
     * @param silentMillis after so long without a reading it is silent; 0 for never
     */
    public StateKeeper(MessageShape shape, List<Threshold> thresholds, long silentMillis) {
        this.silentMillis = silentMillis;
        for (Threshold threshold : thresholds) {
            int field = shape.field(threshold.column());
            if (field < 0) continue;
            for (DeviceState state : WORSE)
                if (threshold.limit(state) != null) limits.add(new Limit(threshold, state, field));
        }
    }

    /** Goes on from a state that was kept. */
    public void begin(Turn turn, long newestMillis) {
        now = turn;
        newest = newestMillis;
    }

    /** The state; null before the first reading. */
    public Turn now() {
        return now;
    }

    /** The moment of the newest reading; {@link Long#MIN_VALUE} before the first. */
    public long newest() {
        return newest;
    }

    /**
     * Takes a reading. One that is older than the newest changes nothing.
     *
     * @return the turn that it brings; null where the state stays
     */
    public Turn take(Reading reading) {
        if (reading.millis() < newest) return null;
        newest = reading.millis();
        DeviceState worst = DeviceState.GOOD;
        for (Limit limit : limits) {
            double value = reading.number(limit.field);
            if (!Double.isNaN(value)) limit.take(value, newest);
            if (limit.holds) worst = worst.worse(limit.state);
        }
        if (now != null && now.state() == worst) return null;
        now = new Turn(worst, newest, why(worst));
        return now;
    }

    private String why(DeviceState worst) {
        return limits.stream()
                .filter(limit -> limit.holds && limit.state == worst)
                .map(Limit::why)
                .collect(Collectors.joining("; "));
    }

    /**
     * Looks whether the device has been silent for too long.
     *
     * @return the turn to silent, since its last reading; null where there is none
     */
    public Turn look(long millis) {
        if (silentMillis <= 0 || now == null || now.state() == DeviceState.SILENT) return null;
        if (millis - newest <= silentMillis) return null;
        now = new Turn(DeviceState.SILENT, newest, "no reading");
        return now;
    }
}
