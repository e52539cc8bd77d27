package sarnik.app.live;

import sarnik.app.dataset.Live;

/** How readings are put together: what lies in one of these of one device is one row. */
enum Rolled {
    MINUTES("m", "1 minute", Live.Part.MINUTES),
    HOURS("h", "1 hour", Live.Part.HOURS),
    DAYS("d", "1 day", Live.Part.DAYS);

    private final String prefix;
    final String span;
    final Live.Part part;

    Rolled(String prefix, String span, Live.Part part) {
        this.prefix = prefix;
        this.span = span;
        this.part = part;
    }

    String table(long feed) {
        return "live." + prefix + feed;
    }

    static boolean isOf(Live.Part part) {
        return part == Live.Part.MINUTES || part == Live.Part.HOURS || part == Live.Part.DAYS;
    }

    static Rolled of(Live.Part part) {
        for (Rolled each : values()) if (each.part == part) return each;
        throw new IllegalArgumentException(part + " is nothing put together");
    }
}
