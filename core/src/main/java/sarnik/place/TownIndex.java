package sarnik.place;

import java.util.List;
import java.util.Optional;
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

    private final Place[] places;
    private final double[] x;
    private final double[] y;
    private final double[] z;

    TownIndex(List<Place> towns) {
        int count = towns.size();
        double[][] at = {new double[count], new double[count], new double[count]};
        for (int i = 0; i < count; i++) {
            double[] point = onSphere(towns.get(i).lon(), towns.get(i).lat());
            for (int axis = 0; axis < 3; axis++) at[axis][i] = point[axis];
        }
        Integer[] order = IntStream.range(0, count).boxed().toArray(Integer[]::new);
        arrange(order, at, 0, count, 0);
        places = new Place[count];
        x = new double[count];
        y = new double[count];
        z = new double[count];
        for (int i = 0; i < count; i++) {
            places[i] = towns.get(order[i]);
            x[i] = at[0][order[i]];
            y[i] = at[1][order[i]];
            z[i] = at[2][order[i]];
        }
    }

    private static void arrange(Integer[] order, double[][] at, int from, int to, int axis) {
        if (to - from < 2) return;
        double[] along = at[axis];
        java.util.Arrays.sort(order, from, to, (a, b) -> Double.compare(along[a], along[b]));
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
        search.below(0, places.length, 0);
        return search.best < 0 ? Optional.empty() : Optional.of(places[search.best]);
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
            if (distance <= reach && places[middle] != without) {
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
