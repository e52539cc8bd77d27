package sarnik.query;

import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/** Runs segments over all cores. */
public final class ParallelSegments implements Segments {

    @Override
    public <T> List<T> run(int segments, IntFunction<T> one) {
        return IntStream.range(0, segments).parallel().mapToObj(one).toList();
    }
}
