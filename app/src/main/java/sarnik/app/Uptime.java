package sarnik.app;

/**
 * Time that only goes on, by which is told how long something takes or has been: the clock of a machine may be set back,
 * and what waited for it would wait for as long.
 */
public final class Uptime {

    private static final long NANOS = 1_000_000;
    private static final long BEGUN = System.nanoTime();

    private Uptime() {}

    /** Milliseconds since this program began, from 1 on; to be compared with others of this program only. */
    public static long millis() {
        return (System.nanoTime() - BEGUN) / NANOS + 1;
    }
}
