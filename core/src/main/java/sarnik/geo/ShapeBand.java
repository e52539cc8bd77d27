package sarnik.geo;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.coverage.CoverageSimplifier;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;

/**
 * A range of zooms for which shapes are simplified alike. Edges that two areas share are simplified once for both (JTS's
 * CoverageSimplifier, after Visvalingam and Whyatt 1993), so that no gaps come about.
 */
public enum ShapeBand {
    /** The world to a continent: zoom 0 to 4. */
    FAR(0.08, 3),
    /** A country: zoom 4 to 6. */
    WIDE(0.02, 3),
    /** A region: zoom 6 to 8. */
    NEAR(0.004, 4),
    /** Closer than that: as it was brought in. */
    CLOSE(0, 5);

    private final double tolerance;
    private final int digits;

    /**
     * @param tolerance degrees; the square root of the area of a triangle that may be cut off
     * @param digits decimals of a degree that are kept
     */
    ShapeBand(double tolerance, int digits) {
        this.tolerance = tolerance;
        this.digits = digits;
    }

    /** The shapes for this band, in the order of the set. */
    public List<Geometry> simplify(BoundarySet set) {
        Geometry[] shapes = set.areas().stream().map(Area::shape).toArray(Geometry[]::new);
        return tolerance == 0 ? List.of(shapes) : List.of(CoverageSimplifier.simplify(shapes, tolerance));
    }

    /** What whole numbers are divided by to give degrees. */
    public int scale() {
        return (int) Math.pow(10, digits);
    }

    /**
     * A shape as lists of whole numbers: for each ring x, y of its first corner, then the steps from corner to corner.
     * Corners that fall together are left out, and rings that keep fewer than three corners with them.
     */
    public List<int[]> rings(Geometry shape) {
        List<int[]> rings = new ArrayList<>();
        for (int p = 0; p < shape.getNumGeometries(); p++) {
            if (!(shape.getGeometryN(p) instanceof Polygon polygon) || polygon.isEmpty()) continue;
            add(polygon.getExteriorRing(), rings);
            for (int h = 0; h < polygon.getNumInteriorRing(); h++) add(polygon.getInteriorRingN(h), rings);
        }
        return rings;
    }

    private void add(LineString ring, List<int[]> rings) {
        int scale = scale();
        int[] steps = new int[2 * ring.getNumPoints()];
        int size = 0;
        int x = 0;
        int y = 0;
        // The last corner is the first again.
        for (int i = 0; i < ring.getNumPoints() - 1; i++) {
            int toX = (int) Math.round(ring.getCoordinateN(i).x * scale);
            int toY = (int) Math.round(ring.getCoordinateN(i).y * scale);
            if (i > 0 && toX == x && toY == y) continue;
            steps[size++] = toX - x;
            steps[size++] = toY - y;
            x = toX;
            y = toY;
        }
        if (size >= 6) rings.add(java.util.Arrays.copyOf(steps, size));
    }
}
