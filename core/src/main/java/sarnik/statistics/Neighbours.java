package sarnik.statistics;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * Which places are next to which. Nothing is its own neighbour here; statistics that count a place itself add it.
 *
 * @param of by place the numbers of its neighbours, ascending
 */
public record Neighbours(int[][] of) {

    private static final double EARTH_KM = 6371.0088;

    public int size() {
        return of.length;
    }

    /** How many places have none. */
    public int alone() {
        return (int) Arrays.stream(of).filter(n -> n.length == 0).count();
    }

    /** How many neighbours a place has in the mean. */
    public double mean() {
        return of.length == 0 ? 0 : Arrays.stream(of).mapToInt(n -> n.length).sum() / (double) of.length;
    }

    /**
     * The same among some places only.
     *
     * @param kept which of them, ascending; the first of them is number 0 of what comes
     */
    public Neighbours among(int[] kept) {
        int[] now = new int[of.length];
        Arrays.fill(now, -1);
        for (int k = 0; k < kept.length; k++) now[kept[k]] = k;
        int[][] among = new int[kept.length][];
        for (int k = 0; k < kept.length; k++)
            among[k] = Arrays.stream(of[kept[k]])
                    .map(n -> now[n])
                    .filter(n -> n >= 0)
                    .toArray();
        return new Neighbours(among);
    }

    /**
     * Those that lie within a distance over the Earth.
     *
     * @param lon degrees
     * @param lat degrees
     * @param km above 0
     */
    public static Neighbours within(double[] lon, double[] lat, double km) {
        Points points = new Points(lon, lat);
        double most = chord(km);
        int[][] of = new int[lon.length][];
        for (int p = 0; p < of.length; p++) {
            List<Integer> near = new ArrayList<>();
            for (int order = points.from(points.z[p] - most); order < of.length; order++) {
                int other = points.byHeight[order];
                if (points.z[other] - points.z[p] > most) break;
                if (other != p && points.squared(p, other) <= most * most) near.add(other);
            }
            of[p] = near.stream().mapToInt(Integer::intValue).sorted().toArray();
        }
        return new Neighbours(of);
    }

    /** A distance over the Earth as one straight through it, of radius 1. */
    private static double chord(double km) {
        return 2 * Math.sin(Math.min(Math.PI / 2, km / EARTH_KM / 2));
    }

    /**
     * The nearest of each; of those that lie equally far the first in order are taken. The one may be the other's
     * neighbour and not the other way round.
     *
     * @param count how many, 1 or more; fewer where there are not so many
     */
    public static Neighbours nearest(double[] lon, double[] lat, int count) {
        Points points = new Points(lon, lat);
        int[][] of = new int[lon.length][];
        for (int p = 0; p < of.length; p++) of[p] = points.nearest(p, Math.min(count, of.length - 1));
        return new Neighbours(of);
    }

    /** Points on a ball of radius 1, in the order of their height, so that few have to be looked at. */
    private static final class Points {
        private final double[] x;
        private final double[] y;
        private final double[] z;
        private final int[] byHeight;
        private final int[] orderOf;
        private final double[] heights;

        Points(double[] lon, double[] lat) {
            int n = lon.length;
            x = new double[n];
            y = new double[n];
            z = new double[n];
            for (int p = 0; p < n; p++) {
                double up = Math.toRadians(lat[p]);
                double along = Math.toRadians(lon[p]);
                x[p] = Math.cos(up) * Math.cos(along);
                y[p] = Math.cos(up) * Math.sin(along);
                z[p] = Math.sin(up);
            }
            Integer[] order = new Integer[n];
            for (int p = 0; p < n; p++) order[p] = p;
            Arrays.sort(order, Comparator.comparingDouble(p -> z[p]));
            byHeight = Arrays.stream(order).mapToInt(Integer::intValue).toArray();
            orderOf = new int[n];
            heights = new double[n];
            for (int o = 0; o < n; o++) {
                orderOf[byHeight[o]] = o;
                heights[o] = z[byHeight[o]];
            }
        }

        int from(double height) {
            int at = Arrays.binarySearch(heights, height);
            if (at < 0) return -at - 1;
            while (at > 0 && heights[at - 1] == height) at--;
            return at;
        }

        double squared(int one, int other) {
            double dx = x[one] - x[other];
            double dy = y[one] - y[other];
            double dz = z[one] - z[other];
            return dx * dx + dy * dy + dz * dz;
        }

        /** Looks up and down from the point's own height until nothing nearer can come. */
        int[] nearest(int p, int count) {
            double[] far = new double[count];
            int[] found = new int[count];
            Arrays.fill(far, Double.POSITIVE_INFINITY);
            Arrays.fill(found, Integer.MAX_VALUE);
            int down = orderOf[p] - 1;
            int up = orderOf[p] + 1;
            while (count > 0 && (down >= 0 || up < heights.length)) {
                double below = down >= 0 ? z[p] - heights[down] : Double.POSITIVE_INFINITY;
                double above = up < heights.length ? heights[up] - z[p] : Double.POSITIVE_INFINITY;
                double step = Math.min(below, above);
                if (step * step > far[count - 1]) break;
                int other = byHeight[below <= above ? down-- : up++];
                put(far, found, squared(p, other), other);
            }
            return Arrays.stream(found).sorted().toArray();
        }

        private static void put(double[] far, int[] found, double distance, int other) {
            int at = far.length - 1;
            if (distance > far[at] || distance == far[at] && other > found[at]) return;
            while (at > 0 && (distance < far[at - 1] || distance == far[at - 1] && other < found[at - 1])) {
                far[at] = far[at - 1];
                found[at] = found[at - 1];
                at--;
            }
            far[at] = distance;
            found[at] = other;
        }
    }
}
