package sarnik.geo;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.geom.util.GeometryFixer;

/**
 * Cuts areas at the meridian of 180 degrees, as RFC 7946 (3.1.9) asks for. Files that do not cut them have rings that
 * leap from
 * one edge of the map to the other; taken as they stand, such a ring encloses a strip right around the earth, and
 * points in
 * Canada lie in Russia. A ring that goes once around a pole is closed along it.
 */
public final class Antimeridian {

    private static final double HALF = 180;
    private static final double WHOLE = 360;
    private static final double POLE = 90;

    /** So near a pole, in degrees, a corner lies on it: a kilometre. */
    private static final double ON = 0.01;

    /** Corners of a box, its first twice. */
    private static final int BOX = 5;

    private Antimeridian() {}

    /** Whether a ring of the areas leaps over the meridian. */
    static boolean isCrossed(Geometry areas) {
        for (Polygon polygon : ShapeBand.polygons(areas))
            if (leaps(rings(polygon).get(0))) return true;
        return false;
    }

    /**
     * The rings of a polygon, the outer one first. One that only runs around a pole is left away: what it holds is the
     * pole.
     */
    private static List<Coordinate[]> rings(Polygon polygon) {
        List<Coordinate[]> rings = new ArrayList<>();
        Coordinate[] outer = polygon.getExteriorRing().getCoordinates();
        boolean aroundPole =
                polygon.getNumInteriorRing() > 0 && Arrays.stream(outer).allMatch(c -> POLE - Math.abs(c.y) < ON);
        if (!aroundPole) rings.add(outer);
        for (int h = 0; h < polygon.getNumInteriorRing(); h++)
            rings.add(polygon.getInteriorRingN(h).getCoordinates());
        return rings;
    }

    /**
     * A leap of more than half the earth. Edges along a pole are none, nor are those of a box, which may be as wide as
     * the map.
     */
    private static boolean leaps(Coordinate[] ring) {
        if (ring.length <= BOX
                && Arrays.stream(ring).mapToDouble(c -> c.x).distinct().count() == 2) return false;
        for (int i = 1; i < ring.length; i++) {
            boolean alongPole = POLE - Math.abs(ring[i].y) < ON && POLE - Math.abs(ring[i - 1].y) < ON;
            if (Math.abs(ring[i].x - ring[i - 1].x) > HALF && !alongPole) return true;
        }
        return false;
    }

    /**
     * The same areas, none of which leaps.
     *
     * @param areas a polygon or several, in degrees
     * @return the areas as they are where none of them does
     */
    public static Geometry cut(Geometry areas) {
        if (!isCrossed(areas)) return areas;
        GeometryFactory factory = areas.getFactory();
        List<Polygon> parts = new ArrayList<>();
        for (Polygon polygon : ShapeBand.polygons(areas)) {
            List<Coordinate[]> rings = rings(polygon);
            if (leaps(rings.get(0))) parts.addAll(cut(rings, factory));
            else parts.add(polygon);
        }
        return factory.createMultiPolygon(parts.toArray(Polygon[]::new));
    }

    private static List<Polygon> cut(List<Coordinate[]> rings, GeometryFactory factory) {
        LinearRing shell = factory.createLinearRing(unrolled(rings.get(0)));
        LinearRing[] holes = new LinearRing[rings.size() - 1];
        for (int h = 0; h < holes.length; h++) {
            Coordinate[] hole = unrolled(rings.get(h + 1));
            double turns = Math.round(
                    (shell.getEnvelopeInternal().centre().x - new Envelope(hole[0], hole[hole.length / 2]).centre().x)
                            / WHOLE);
            for (Coordinate corner : hole) corner.x += turns * WHOLE;
            holes[h] = factory.createLinearRing(hole);
        }
        Geometry whole = GeometryFixer.fix(factory.createPolygon(shell, holes));
        List<Polygon> parts = new ArrayList<>();
        for (int turn = -2; turn <= 2; turn++) {
            Geometry map = factory.toGeometry(new Envelope(turn * WHOLE - HALF, turn * WHOLE + HALF, -POLE, POLE));
            if (!map.getEnvelopeInternal().intersects(whole.getEnvelopeInternal())) continue;
            Geometry part =
                    AffineTransformation.translationInstance(-turn * WHOLE, 0).transform(map.intersection(whole));
            parts.addAll(ShapeBand.polygons(part));
        }
        return parts;
    }

    /** The corners with longitudes that run on beyond 180 degrees; a ring around a pole is closed along it. */
    private static Coordinate[] unrolled(Coordinate[] ring) {
        List<Coordinate> corners = new ArrayList<>();
        double turned = 0;
        double lat = 0;
        for (int i = 0; i < ring.length; i++) {
            if (i > 0 && ring[i].x - ring[i - 1].x > HALF) turned -= WHOLE;
            if (i > 0 && ring[i].x - ring[i - 1].x < -HALF) turned += WHOLE;
            corners.add(new Coordinate(ring[i].x + turned, ring[i].y));
            lat += ring[i].y;
        }
        Coordinate first = corners.get(0);
        Coordinate last = corners.get(corners.size() - 1);
        if (last.x != first.x) {
            double pole = Math.copySign(POLE, lat);
            corners.add(new Coordinate(last.x, pole));
            corners.add(new Coordinate(first.x, pole));
            corners.add(first.copy());
        }
        return corners.toArray(Coordinate[]::new);
    }
}
