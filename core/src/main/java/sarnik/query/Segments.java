package sarnik.query;

import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/** Runs the segments of a scan, each on its own. */
@FunctionalInterface
public interface Segments {

    /** One after the other; also where this is compiled for browsers. */
    Segments PLAIN = new Segments() {
        @Override
        public boolean hasFastLongs() {
            return false;
        }

        @Override
        public <T> List<T> run(int segments, IntFunction<T> one) {
            return IntStream.range(0, segments).mapToObj(one).toList();
        }
    };

    /** Whether whole numbers of 64 bits are added up as fast as those of 32 where they run; in a browser they are not. */
    default boolean hasFastLongs() {
        return true;
    }

    /**
     * @return what each gives, in their order
     */
    <T> List<T> run(int segments, IntFunction<T> one);
}
