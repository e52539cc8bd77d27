package sarnik.app.testing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.Callable;

/** Waits for what comes about by itself, for as long as a slow machine may take and no longer than it takes. */
public final class Waiting {

    private static final long PATIENCE_MILLIS = 60_000;
    private static final long LOOKS_MILLIS = 50;

    private Waiting() {}

    /** Looks again and again until something holds; fails, saying what it waited for, where it does not in a minute. */
    public static void until(Callable<Boolean> holds, String what) throws Exception {
        long end = System.currentTimeMillis() + PATIENCE_MILLIS;
        while (!holds.call()) {
            assertThat(System.currentTimeMillis()).as(what).isLessThan(end);
            Thread.sleep(LOOKS_MILLIS);
        }
    }
}
