package sarnik.formula;

import java.time.LocalDateTime;
import java.time.ZoneOffset;

/**
 * A span of time in months, days and seconds, which do not turn into each other: a month has no fixed number of days.
 */
record Interval(long months, long days, long seconds) {

    private static final long SECONDS_OF_DAY = 86_400;

    Interval plus(Interval other) {
        return new Interval(
                Math.addExact(months, other.months),
                Math.addExact(days, other.days),
                Math.addExact(seconds, other.seconds));
    }

    Interval times(long factor) {
        return new Interval(
                Math.multiplyExact(months, factor),
                Math.multiplyExact(days, factor),
                Math.multiplyExact(seconds, factor));
    }

    /**
     * @param second seconds since 1970-01-01T00:00
     */
    long addTo(long second) {
        LocalDateTime at = LocalDateTime.ofEpochSecond(second, 0, ZoneOffset.UTC)
                .plusMonths(months)
                .plusDays(days);
        return Math.addExact(at.toEpochSecond(ZoneOffset.UTC), seconds);
    }

    /** The span between two moments, in days and seconds of one sign. */
    static Interval between(long later, long earlier) {
        long span = Math.subtractExact(later, earlier);
        return new Interval(0, span / SECONDS_OF_DAY, span % SECONDS_OF_DAY);
    }

    /** PostgreSQL counts a year as 365.25 days and a month as 30 days. */
    double epoch() {
        return months / 12 * 365.25 * SECONDS_OF_DAY
                + months % 12 * 30.0 * SECONDS_OF_DAY
                + days * (double) SECONDS_OF_DAY
                + seconds;
    }

    String sql() {
        return "make_interval(months => " + months + ", days => " + days + ", secs => " + seconds + ")";
    }
}
