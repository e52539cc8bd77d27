package sarnik.live;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;

/**
 * Keeps the state of one device as its readings come: the worst of what its thresholds say, or silent, and for what
 * reasons. Not safe for use by several threads at once.
 */
public final class StateKeeper {

    /**
     * A state that a device turned to, or is in for more reasons than before.
     *
     * @param since from when on it is in that state, milliseconds since 1970
     * @param reasons such as “turbidity 4.2, above 4”, or “no reading”; none for good
     */
    public record Turn(DeviceState state, long since, List<String> reasons) {

        /** The reasons as one phrase; empty for good. */
        public String why() {
            return String.join(BETWEEN, reasons);
        }
    }

    private static final String BETWEEN = "; ";
    private static final String SILENT = "no reading";

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
        /** Whether a value has said whether it counts. */
        boolean isDecided;

        /** What lay beyond it the last time; NaN before the first. */
        double beyond = Double.NaN;
        /** What is said of it; null before it was. */
        String reason;
        /** Whether that is among the reasons of the state that the device is in. */
        boolean isTold;

        Limit(Threshold threshold, DeviceState state, int field) {
            this.threshold = threshold;
            this.state = state;
            this.limit = threshold.limit(state);
            this.field = field;
        }

        /** Whether it is a reason of a state. */
        boolean counts(DeviceState worst) {
            return holds && state == worst;
        }

        void take(double value, long at) {
            if (threshold.isBeyond(value, limit)) {
                beyond = value;
                if (beyondSince == NOT) beyondSince = at;
                if (at - beyondSince >= threshold.seconds() * 1000) decide(true);
                return;
            }
            beyondSince = NOT;
            if (threshold.isBack(value, limit)) decide(false);
        }

        private void decide(boolean now) {
            holds = now;
            isDecided = true;
        }

        /** Says anew why it counts: of one that is remembered what was said of it. */
        void say() {
            if (!Double.isNaN(beyond)) reason = reason(beyond);
        }

        private String reason(double value) {
            String side = threshold.side().words();
            return "%s %s, %s"
                    .formatted(
                            threshold.column(),
                            number(value, limit),
                            value == limit ? "at %s or %s".formatted(number(limit), side) : side + " " + number(limit));
        }

        /** Goes on holding where a reason that was kept is of this limit and no value has decided otherwise. */
        void remember(List<String> reasons) {
            if (isDecided) return;
            String like = reason(limit);
            for (String kept : reasons) {
                List<String> words =
                        List.of(kept.substring(kept.lastIndexOf(',') + 1).split(" "));
                if (!isAmong(like, kept) || !words.contains(number(limit))) continue;
                holds = true;
                reason = kept;
            }
        }

        /** To six digits, or to as many as it takes to tell it from the limit. */
        private static String number(double value, double limit) {
            double rounded = BigDecimal.valueOf(value).round(new MathContext(6)).doubleValue();
            return number(rounded == limit ? value : rounded);
        }

        private static String number(double value) {
            return value == 0
                    ? "0"
                    : BigDecimal.valueOf(value).stripTrailingZeros().toPlainString();
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

    /**
     * Goes on from a state that was kept, after readings were taken that have come since or lately. Limits that none of
     * these has decided about hold still, where a reason that was kept is theirs: their values have not come back.
     *
     * @param since milliseconds since 1970
     * @param why the reasons as one phrase
     */
    public void remember(DeviceState state, long since, String why) {
        if (now == null) return;
        List<String> reasons = Arrays.asList(why.split(BETWEEN));
        for (Limit limit : limits) if (limit.state == state) limit.remember(reasons);
        if (now.state() != DeviceState.SILENT) {
            DeviceState worst = worst();
            tell(worst, worst == now.state());
            now = new Turn(worst, now.since(), reasons());
        }
        if (now.state() == state && since < now.since()) now = new Turn(state, since, now.reasons());
    }

    /** The reasons that a phrase of reasons has none alike of: of the same measure and side, whatever the value. */
    public static List<String> lacking(List<String> reasons, String why) {
        return reasons.stream().filter(reason -> !isAmong(reason, why)).toList();
    }

    private static boolean isAmong(String reason, String why) {
        int comma = reason.lastIndexOf(", ");
        if (comma < 0) return why.equals(reason);
        String measure = reason.substring(0, reason.lastIndexOf(' ', comma - 1));
        String side = reason.endsWith("above") || reason.startsWith("above", comma + 2) ? "above" : "below";
        return Pattern.compile("(?:^|%s)%s \\S+, (?:at \\S+ or )?%s".formatted(BETWEEN, Pattern.quote(measure), side))
                .matcher(why)
                .find();
    }

    /** Two phrases of reasons as one. */
    public static String both(String why, List<String> more) {
        return why.isEmpty() ? String.join(BETWEEN, more) : why + BETWEEN + String.join(BETWEEN, more);
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
     * @return the turn that it brings, or the state with its reasons where there are more than before; null where
     *     nothing is to be told
     */
    public Turn take(Reading reading) {
        if (reading.millis() < newest) return null;
        newest = reading.millis();
        for (Limit limit : limits) {
            double value = reading.number(limit.field);
            if (!Double.isNaN(value)) limit.take(value, newest);
        }
        DeviceState worst = worst();
        boolean stays = now != null && now.state() == worst;
        if (stays && limits.stream().noneMatch(limit -> limit.isTold != limit.counts(worst))) return null;
        // Reasons that have gone are told no longer; of those that stay what they were when they came.
        boolean isMore = tell(worst, stays);
        now = new Turn(worst, stays ? now.since() : newest, reasons());
        return isMore || !stays ? now : null;
    }

    /** Says of each limit whether it is a reason of a state. @return whether there are more than were told */
    private boolean tell(DeviceState worst, boolean stays) {
        boolean isMore = false;
        for (Limit limit : limits) {
            boolean counts = limit.counts(worst);
            if (counts && !(stays && limit.isTold)) {
                limit.say();
                isMore = true;
            }
            limit.isTold = counts;
        }
        return isMore;
    }

    private List<String> reasons() {
        return limits.stream()
                .filter(limit -> limit.isTold)
                .map(limit -> limit.reason)
                .toList();
    }

    private DeviceState worst() {
        DeviceState worst = DeviceState.GOOD;
        for (Limit limit : limits) if (limit.holds) worst = worst.worse(limit.state);
        return worst;
    }

    /**
     * Looks whether the device has been silent for too long.
     *
     * @return the turn to silent, since its last reading; null where there is none
     */
    public Turn look(long millis) {
        if (silentMillis <= 0 || now == null || now.state() == DeviceState.SILENT) return null;
        if (millis - newest <= silentMillis) return null;
        now = new Turn(DeviceState.SILENT, newest, List.of(SILENT));
        return now;
    }
}
