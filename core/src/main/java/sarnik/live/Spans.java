package sarnik.live;

/** Stretches of time as people say them. */
public final class Spans {

    private static final long[] MILLIS = {86_400_000L, 3_600_000L, 60_000L, 1_000L};
    private static final String[] UNITS = {"day", "hour", "minute", "second"};

    private Spans() {}

    /** A stretch in its largest whole unit, rounded down: “3 days”, “1 minute”. */
    public static String words(long millis) {
        for (int unit = 0; unit < UNITS.length; unit++) {
            long count = millis / MILLIS[unit];
            if (count > 0) return "%,d %s%s".formatted(count, UNITS[unit], count == 1 ? "" : "s");
        }
        return "less than a second";
    }
}
