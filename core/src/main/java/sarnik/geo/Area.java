package sarnik.geo;

import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;

/**
 * An area of a boundary set.
 *
 * @param code what tells it from the others of its set
 * @param name what it is called
 * @param parent code of the area of a wider set that it belongs to; empty where none is told
 * @param shape its shape in degrees (WGS 84): a polygon or several
 */
public record Area(String code, String name, String parent, Geometry shape) {

    /** A point inside the area, longitude and latitude in degrees. */
    public double[] inside() {
        Coordinate at = shape.getInteriorPoint().getCoordinate();
        return new double[] {at.x, at.y};
    }
}
