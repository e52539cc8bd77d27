package sarnik.place;

import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/** Is told now and then how far placing has come, on whichever thread works; what it throws stops the placing. */
@FunctionalInterface
public interface Watch {

    /** Nobody watches. */
    Watch NONE = (done, all) -> {};

    /** After so many words it is told. */
    int EVERY = 512;

    /**
     * @param done distinct words placed so far
     * @param all distinct words there are
     */
    void at(long done, long all);

    /** Works something out for each of some numbers from 0, over all cores, and tells how far that has come. */
    default <T> List<T> each(int count, IntFunction<T> work) {
        AtomicLong done = new AtomicLong();
        at(0, count);
        return IntStream.range(0, count)
                .parallel()
                .<T>mapToObj(i -> {
                    long now = done.incrementAndGet();
                    if (now % EVERY == 0) at(now, count);
                    return work.apply(i);
                })
                .toList();
    }
}
