package sarnik.geo;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;

/**
 * An area of a boundary set.
 *
 * @param code what tells it from the others of its set
 * @param name what it is called
 * @param parent code of the area of a wider set that it belongs to; empty where none is told
 * @param shape its shape in degrees (WGS 84): a polygon or several; of the shapes that rows brought along also lines
 *     and points
 */
public record Area(String code, String name, String parent, Geometry shape) {

    private static final double EARTH_KM = 6371;

    /** A point inside the area, longitude and latitude in degrees. */
    public double[] inside() {
        Coordinate at = shape.getInteriorPoint().getCoordinate();
        return new double[] {at.x, at.y};
    }

    /**
     * Its size in square kilometres, on a sphere of 6,371 km: measured in the sinusoidal projection, which keeps areas
     * (Snyder 1987, "Map projections: a working manual", ch. 30).
     */
    public double squareKilometres() {
        double sum = 0;
        for (Polygon polygon : ShapeBand.polygons(shape)) {
            sum += Math.abs(square(polygon.getExteriorRing()));
            for (int h = 0; h < polygon.getNumInteriorRing(); h++) sum -= Math.abs(square(polygon.getInteriorRingN(h)));
        }
        return sum * EARTH_KM * EARTH_KM;
    }

    /** The signed area within a ring by the shoelace formula, square radians. */
    private static double square(LineString ring) {
        double sum = 0;
        for (int i = 1; i < ring.getNumPoints(); i++) {
            double fromLat = Math.toRadians(ring.getCoordinateN(i - 1).y);
            double toLat = Math.toRadians(ring.getCoordinateN(i).y);
            double fromX = Math.toRadians(ring.getCoordinateN(i - 1).x) * Math.cos(fromLat);
            double toX = Math.toRadians(ring.getCoordinateN(i).x) * Math.cos(toLat);
            sum += fromX * toLat - toX * fromLat;
        }
        return sum / 2;
    }
}
