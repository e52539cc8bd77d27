package sarnik.place;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;

/**
 * Finds the place nearest to a point: a k-d tree (J. L. Bentley, "Multidimensional binary search trees used for
 * associative
 * searching", 1975) over points on the unit sphere, so that neither the poles nor the date line are anything special.
 * The tree
 * stands in arrays: the middle of a range is its root. Immutable; safe to share between threads.
 */
final class TownIndex {

    private static final double EARTH = 6_371_008.8;

    private final IntFunction<Place> place;
    private final int[] numbers;
    private final double[] x;
    private final double[] y;
    private final double[] z;

    TownIndex(List<Place> towns) {
        this(
                IntStream.range(0, towns.size()).toArray(),
                i -> towns.get(i).lon(),
                i -> towns.get(i).lat(),
                towns::get);
    }

    /**
     * An index of places that become objects only when they are found.
     *
     * @param numbers of the places
     * @param lon degrees, of the place of a number
     * @param lat likewise
     * @param place the same object each time it is asked for a number
     */
    TownIndex(int[] numbers, IntToDoubleFunction lon, IntToDoubleFunction lat, IntFunction<Place> place) {
        int count = numbers.length;
        double[][] at = new double[3][count];
        for (int i = 0; i < count; i++) {
            double[] point = onSphere(lon.applyAsDouble(numbers[i]), lat.applyAsDouble(numbers[i]));
            for (int axis = 0; axis < 3; axis++) at[axis][i] = point[axis];
        }
        Integer[] order = IntStream.range(0, count).boxed().toArray(Integer[]::new);
        arrange(order, at, 0, count, 0);
        this.place = place;
        this.numbers = Arrays.stream(order).mapToInt(i -> numbers[i]).toArray();
        x = Arrays.stream(order).mapToDouble(i -> at[0][i]).toArray();
        y = Arrays.stream(order).mapToDouble(i -> at[1][i]).toArray();
        z = Arrays.stream(order).mapToDouble(i -> at[2][i]).toArray();
    }

    private static void arrange(Integer[] order, double[][] at, int from, int to, int axis) {
        if (to - from < 2) return;
        double[] along = at[axis];
        Arrays.sort(order, from, to, (a, b) -> Double.compare(along[a], along[b]));
        int middle = (from + to) >>> 1;
        arrange(order, at, from, middle, (axis + 1) % 3);
        arrange(order, at, middle + 1, to, (axis + 1) % 3);
    }

    private static double[] onSphere(double lon, double lat) {
        double phi = Math.toRadians(lat);
        double lambda = Math.toRadians(lon);
        return new double[] {Math.cos(phi) * Math.cos(lambda), Math.cos(phi) * Math.sin(lambda), Math.sin(phi)};
    }

    /**
     * The place nearest to a point.
     *
     * @param within metres along the ground; farther ones do not count
     */
    Optional<Place> nearest(double lon, double lat, double within) {
        return nearest(lon, lat, within, null);
    }

    /**
     * The same.
     *
     * @param without a place that does not count; null for none
     */
    Optional<Place> nearest(double lon, double lat, double within, Place without) {
        double chord = 2 * Math.sin(Math.min(Math.PI, within / EARTH) / 2);
        Search search = new Search(onSphere(lon, lat), chord * chord, without);
        search.below(0, numbers.length, 0);
        return search.best < 0 ? Optional.empty() : Optional.of(place.apply(numbers[search.best]));
    }

    private final class Search {

        private final double[] point;
        /** Squared straight distance through the sphere to the best so far. */
        private double reach;

        private int best = -1;
        private final Place without;

        Search(double[] point, double reach, Place without) {
            this.point = point;
            this.reach = reach;
            this.without = without;
        }

        void below(int from, int to, int axis) {
            if (from >= to) return;
            int middle = (from + to) >>> 1;
            double dx = x[middle] - point[0];
            double dy = y[middle] - point[1];
            double dz = z[middle] - point[2];
            double distance = dx * dx + dy * dy + dz * dz;
            if (distance <= reach && (without == null || place.apply(numbers[middle]) != without)) {
                reach = distance;
                best = middle;
            }
            double apart = axis == 0 ? dx : axis == 1 ? dy : dz;
            int next = (axis + 1) % 3;
            // The side on which the point lies first; the other only where it can hold something nearer.
            if (apart >= 0) {
                below(from, middle, next);
                if (apart * apart <= reach) below(middle + 1, to, next);
            } else {
                below(middle + 1, to, next);
                if (apart * apart <= reach) below(from, middle, next);
            }
        }
    }
}
