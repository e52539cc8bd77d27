package sarnik.geo;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.coverage.CoverageSimplifier;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFilter;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.Polygonal;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;

/**
 * A range of zooms for which shapes are simplified alike. Edges that two areas share are simplified once for both
 * (JTS's
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

    /**
     * The shapes for this band, in the order of the set. Lines, and areas among lines, share no edges and are
     * simplified one by
     * one (after Douglas and Peucker 1973, each area kept whole).
     */
    public List<Geometry> simplify(BoundarySet set) {
        Geometry[] shapes = set.areas().stream().map(Area::shape).toArray(Geometry[]::new);
        if (tolerance == 0) return List.of(shapes);
        if (Arrays.stream(shapes).allMatch(Polygonal.class::isInstance))
            return List.of(CoverageSimplifier.simplify(shapes, tolerance));
        return Arrays.stream(shapes)
                .map(shape -> TopologyPreservingSimplifier.simplify(shape, tolerance / 2))
                .toList();
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
        for (Polygon polygon : polygons(shape)) {
            add(polygon.getExteriorRing(), rings);
            for (int h = 0; h < polygon.getNumInteriorRing(); h++) add(polygon.getInteriorRingN(h), rings);
        }
        return rings;
    }

    private void add(LineString ring, List<int[]> rings) {
        // The last corner is the first again.
        int[] steps = steps(ring.getCoordinates(), ring.getNumPoints() - 1);
        if (steps.length >= 6) rings.add(steps);
    }

    /** The lines of a shape, in the form of {@link #rings} but open; a point is a line of one corner. */
    public List<int[]> lines(Geometry shape) {
        List<int[]> lines = new ArrayList<>();
        for (LineString line : linesOf(shape)) lines.add(steps(line.getCoordinates(), line.getNumPoints()));
        for (Coordinate point : pointsOf(shape)) lines.add(steps(new Coordinate[] {point}, 1));
        return lines;
    }

    /** A corner by itself, in the form of {@link #lines}. */
    public int[] dot(double[] at) {
        return steps(new Coordinate[] {new Coordinate(at[0], at[1])}, 1);
    }

    /** The polygons of a shape, however deep they stand in collections; empty ones are left out. */
    public static List<Polygon> polygons(Geometry shape) {
        List<Polygon> polygons = new ArrayList<>();
        shape.apply((GeometryFilter) part -> {
            if (part instanceof Polygon polygon && !polygon.isEmpty()) polygons.add(polygon);
        });
        return polygons;
    }

    /** The lines of a shape, however deep they stand in collections. */
    public static List<LineString> linesOf(Geometry shape) {
        List<LineString> lines = new ArrayList<>();
        shape.apply((GeometryFilter) part -> {
            if (part instanceof LineString line && !line.isEmpty()) lines.add(line);
        });
        return lines;
    }

    /** The points of a shape, however deep they stand in collections. */
    public static List<Coordinate> pointsOf(Geometry shape) {
        List<Coordinate> points = new ArrayList<>();
        shape.apply((GeometryFilter) part -> {
            if (part instanceof Point point && !point.isEmpty()) points.add(point.getCoordinate());
        });
        return points;
    }

    private int[] steps(Coordinate[] corners, int count) {
        int scale = scale();
        int[] steps = new int[2 * count];
        int size = 0;
        int x = 0;
        int y = 0;
        for (int i = 0; i < count; i++) {
            int toX = (int) Math.round(corners[i].x * scale);
            int toY = (int) Math.round(corners[i].y * scale);
            if (i > 0 && toX == x && toY == y) continue;
            steps[size++] = toX - x;
            steps[size++] = toY - y;
            x = toX;
            y = toY;
        }
        return Arrays.copyOf(steps, size);
    }
}
