package sarnik.app;

import java.util.function.LongConsumer;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sarnik.app.web.RefusedException;

/**
 * The memory that data may fill, counted in bytes: files on their way in, versions being loaded and pictures in work
 * reserve
 * their part; versions that are loaded fill what is left and give way. What does not fit is refused with a sentence,
 * before it
 * is made. Safe to share between threads.
 */
@Component
public class MemoryBudget {

    /** So much of it may be reserved: the rest stays for versions that are being read. */
    private static final double RESERVABLE = 0.7;

    private final long total;
    private long reserved;
    private LongConsumer left = bytes -> {};

    @Autowired
    public MemoryBudget(SarnikProperties properties) {
        this((long) (Runtime.getRuntime().maxMemory() * properties.memoryShare()));
    }

    MemoryBudget(long total) {
        this.total = total;
    }

    /** Bytes that are reserved; given back by closing, once. */
    public final class Share implements AutoCloseable {

        private long bytes;

        private Share(long bytes) {
            this.bytes = bytes;
        }

        /**
         * Holds another amount from now on.
         *
         * @throws RefusedException as {@link MemoryBudget#reserve}; the share stays as it was then
         */
        public void become(long wanted, String what) {
            synchronized (MemoryBudget.this) {
                take(wanted - bytes, what);
                bytes = wanted;
            }
        }

        @Override
        public void close() {
            synchronized (MemoryBudget.this) {
                reserved -= bytes;
                bytes = 0;
                left.accept(total - reserved);
            }
        }
    }

    /**
     * Reserves memory.
     *
     * @param what what it is for, as the beginning of a sentence, such as "This file"
     * @throws RefusedException with 503 when it does not fit now, with 413 when it never would
     */
    public synchronized Share reserve(long bytes, String what) {
        take(bytes, what);
        return new Share(bytes);
    }

    private void take(long more, String what) {
        long most = (long) (total * RESERVABLE);
        if (more > most) {
            throw new RefusedException(
                    HttpStatus.CONTENT_TOO_LARGE,
                    ("%s needs about %,d MB of memory, and Sarnik may use %,d MB for such work. Leave out "
                                    + "columns or rows, or start it with more, such as SARNIK_MEMORY=%dg.")
                            .formatted(what, more >> 20, most >> 20, Math.max(4, (more * 4 >> 30) + 1)));
        }
        if (more > 0 && reserved + more > most) {
            throw new RefusedException(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    ("%s needs about %,d MB of memory, and %,d MB are free just now: other files and pictures "
                                    + "are in work. Try again in a little while; nothing was lost.")
                            .formatted(what, more >> 20, Math.max(0, most - reserved) >> 20));
        }
        reserved += more;
        left.accept(total - reserved);
    }

    /** Tells, from now on and whenever it changes, how many bytes are left for what gives way. */
    public synchronized void whenLeft(LongConsumer left) {
        this.left = left;
        left.accept(total - reserved);
    }

    /** All of it, bytes. */
    public long total() {
        return total;
    }

    /** What is reserved now, bytes. */
    public synchronized long reserved() {
        return reserved;
    }
}
