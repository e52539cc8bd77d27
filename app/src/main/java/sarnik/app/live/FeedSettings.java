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
 * @param keepRolledDays how long what is put together by hour and day is kept; null for ten years
 * @param stays what counts as a stop, and within which areas devices arrive; null for what is usual, and none
 * @param notices who is told when devices turn; null for nobody
 * @param devices where names, kinds and places of devices stand; null for nowhere
 */
record FeedSettings(
        int keepDays,
        int windowHours,
        long silentSeconds,
        int trailMinutes,
        List<Threshold> thresholds,
        boolean strangers,
        Integer keepRolledDays,
        StaysSaid stays,
        Notices notices,
        DeviceList devices) {

    static final FeedSettings FIRST = new FeedSettings(90, 24, 300, 30, List.of(), true, null, null, null, null);

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

    /**
     * What counts as a stop, and within which areas devices arrive.
     *
     * @param metres a device stops where it stays within so many of the middle of its positions
     * @param minutes for so long at least
     * @param places a dataset at whose places devices arrive; null for none
     * @param name the column of that dataset that says what a place is called
     * @param within how near a device has to be to have arrived, metres
     * @param boundaries a set of areas within which devices arrive; null for none
     */
    record StaysSaid(int metres, int minutes, Long places, String name, Integer within, String boundaries) {}

    /** What is usual: within 75 metres for three minutes. */
    static final StaysSaid USUAL = new StaysSaid(75, 3, null, null, null, null);

    FeedSettings {
        if (keepRolledDays == null) keepRolledDays = MOST_DAYS;
        if (stays == null) stays = USUAL;
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
        if (keepRolledDays < keepDays || keepRolledDays > MOST_DAYS)
            throw new RefusedException(
                    "What is put together is kept for at least as long as readings, and %,d days at most."
                            .formatted(MOST_DAYS));
        if (stays.metres() < 1 || stays.metres() > 10_000 || stays.minutes() < 1 || stays.minutes() > 1440)
            throw new RefusedException("A stop is within 1 to 10,000 metres, for 1 to 1,440 minutes.");
        if (stays.places() != null && (stays.within() == null || stays.within() < 1 || stays.within() > 100_000))
            throw new RefusedException("A device has arrived within 1 to 100,000 metres of a place.");
        if (notices != null) notices.check();
        if (trailMinutes < 0 || trailMinutes > 24 * 60) throw new RefusedException("A way is of 0 to 1,440 minutes.");
        return this;
    }
}
