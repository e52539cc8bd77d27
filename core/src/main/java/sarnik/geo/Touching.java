package sarnik.geo;

import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.index.strtree.STRtree;
import org.locationtech.jts.operation.distance.IndexedFacetDistance;

/**
 * Which areas of a boundary set touch each other, at a corner or along a border. Borders that were drawn apart may gape
 * by a metre. Worked out when it is first asked for; safe to share between threads.
 */
public final class Touching {

    /** So far apart two borders are still one, degrees: about a metre. */
    private static final double GAP = 1e-5;

    private final List<Area> areas;
    private int[][] of;

    Touching(List<Area> areas) {
        this.areas = areas;
    }

    /** By area, in the order of the set, the numbers of those that touch it, ascending. */
    public synchronized int[][] of() {
        if (of == null) of = found();
        return of;
    }

    private int[][] found() {
        List<Set<Integer>> met =
                areas.stream().<Set<Integer>>map(area -> new TreeSet<>()).toList();
        sharedCorners(met);
        STRtree reaches = new STRtree();
        for (int a = 0; a < areas.size(); a++) reaches.insert(reach(a), a);
        for (int a = 0; a < areas.size(); a++) {
            IndexedFacetDistance near = null;
            for (Object found : reaches.query(reach(a))) {
                int other = (Integer) found;
                if (other <= a || met.get(a).contains(other)) continue;
                if (near == null) near = new IndexedFacetDistance(areas.get(a).shape());
                Geometry shape = areas.get(other).shape();
                if (near.isWithinDistance(shape, GAP)) meet(met, a, other);
            }
        }
        return met.stream()
                .map(others -> others.stream().mapToInt(Integer::intValue).toArray())
                .toArray(int[][]::new);
    }

    private Envelope reach(int area) {
        Envelope reach = new Envelope(areas.get(area).shape().getEnvelopeInternal());
        reach.expandBy(GAP);
        return reach;
    }

    /** Most borders are the same corners in both areas, which are found at once. */
    private void sharedCorners(List<Set<Integer>> met) {
        Map<Long, int[]> owners = new HashMap<>();
        for (int a = 0; a < areas.size(); a++) {
            Set<Long> own = new HashSet<>();
            for (Coordinate corner : areas.get(a).shape().getCoordinates()) own.add(cell(corner));
            for (Long cell : own) {
                int[] before = owners.getOrDefault(cell, new int[0]);
                for (int other : before) meet(met, a, other);
                int[] now = Arrays.copyOf(before, before.length + 1);
                now[before.length] = a;
                owners.put(cell, now);
            }
        }
    }

    private static long cell(Coordinate corner) {
        return Math.round(corner.x / GAP * 10) * 100_000_007L + Math.round(corner.y / GAP * 10);
    }

    private static void meet(List<Set<Integer>> met, int one, int other) {
        met.get(one).add(other);
        met.get(other).add(one);
    }
}
