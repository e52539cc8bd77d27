package sarnik.query;

import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/** Runs the segments of a scan, each on its own. */
@FunctionalInterface
public interface Segments {

    /** One after the other. */
    Segments PLAIN = new Segments() {
        @Override
        public <T> List<T> run(int segments, IntFunction<T> one) {
            return IntStream.range(0, segments).mapToObj(one).toList();
        }
    };

    /**
     * @return what each gives, in their order
     */
    <T> List<T> run(int segments, IntFunction<T> one);
}
