package sarnik.app.live;

import java.util.List;
import sarnik.app.web.RefusedException;
import sarnik.live.Threshold;

/**
 * How a feed is kept and watched.
 *
 * @param keepDays how long readings are kept
 * @param windowHours readings of so many hours are at hand for dashboards
 * @param silentSeconds after so long without a reading a device is silent; 0 for never
 * @param trailMinutes of so many minutes the way of moving devices is shown
 * @param thresholds from which values on devices are to be watched and bad
 * @param strangers whether readings of devices are taken that no list of devices names
 * @param devices where names, kinds and places of devices stand; null for nowhere
 */
record FeedSettings(
        int keepDays,
        int windowHours,
        long silentSeconds,
        int trailMinutes,
        List<Threshold> thresholds,
        boolean strangers,
        DeviceList devices) {

    static final FeedSettings FIRST = new FeedSettings(90, 24, 300, 30, List.of(), true, null);

    private static final int MOST_DAYS = 3660;
    private static final int MOST_HOURS = 24 * 366;

    /**
     * A dataset whose rows are devices.
     *
     * @param dataset where they lie is where its rows lie
     * @param code the column of their codes
     * @param name the column of their names; null for none
     * @param kind the column that says of which kind they are; null for none
     */
    record DeviceList(long dataset, String code, String name, String kind) {}

    FeedSettings {
        thresholds = thresholds == null ? List.of() : List.copyOf(thresholds);
    }

    /** @throws RefusedException with a sentence where something is out of bounds */
    FeedSettings checked() {
        if (keepDays < 1 || keepDays > MOST_DAYS)
            throw new RefusedException("Readings are kept for 1 to %,d days.".formatted(MOST_DAYS));
        if (windowHours < 1 || windowHours > MOST_HOURS)
            throw new RefusedException("Readings of 1 to %,d hours are at hand.".formatted(MOST_HOURS));
        if (silentSeconds < 0 || silentSeconds > 30L * 86_400)
            throw new RefusedException("A device is silent after 0 (never) seconds to 30 days.");
        if (trailMinutes < 0 || trailMinutes > 24 * 60) throw new RefusedException("A way is of 0 to 1,440 minutes.");
        return this;
    }
}
