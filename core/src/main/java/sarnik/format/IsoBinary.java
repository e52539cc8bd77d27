package sarnik.format;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryCollection;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.MultiLineString;
import org.locationtech.jts.geom.MultiPoint;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import sarnik.geo.WrittenShape;

/**
 * Writes shapes as well-known binary with the type numbers of ISO 19125 (OGC 06-103r4, 8.2.3), in which a third
 * coordinate adds
 * 1000: a GeoPackage asks for them, and the library's writer gives others.
 */
final class IsoBinary {

    private static final int HIGH = 1000;

    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private final boolean high;

    private IsoBinary(boolean high) {
        this.high = high;
    }

    static byte[] write(Geometry shape) {
        IsoBinary writer = new IsoBinary(WrittenShape.hasHeight(shape));
        writer.add(shape);
        return writer.bytes.toByteArray();
    }

    private static int type(Geometry shape) {
        if (shape instanceof Point) return 1;
        if (shape instanceof LineString) return 2;
        if (shape instanceof Polygon) return 3;
        if (shape instanceof MultiPoint) return 4;
        if (shape instanceof MultiLineString) return 5;
        return shape instanceof MultiPolygon ? 6 : 7;
    }

    private void add(Geometry shape) {
        bytes.write(1);
        number(type(shape) + (high ? HIGH : 0));
        if (shape instanceof Point point) {
            // An empty point has corners that are no numbers (OGC 12-128r18, 2.1.3).
            corner(point.isEmpty() ? new Coordinate(Double.NaN, Double.NaN) : point.getCoordinate());
        } else if (shape instanceof LineString line) {
            corners(line);
        } else if (shape instanceof Polygon polygon) {
            number(polygon.isEmpty() ? 0 : 1 + polygon.getNumInteriorRing());
            if (polygon.isEmpty()) return;
            corners(polygon.getExteriorRing());
            for (int h = 0; h < polygon.getNumInteriorRing(); h++) corners(polygon.getInteriorRingN(h));
        } else {
            number(((GeometryCollection) shape).getNumGeometries());
            for (int i = 0; i < shape.getNumGeometries(); i++) add(shape.getGeometryN(i));
        }
    }

    private void corners(LineString line) {
        number(line.getNumPoints());
        for (Coordinate corner : line.getCoordinates()) corner(corner);
    }

    private void corner(Coordinate corner) {
        number(corner.x);
        number(corner.y);
        if (high) number(corner.getZ());
    }

    private void number(int number) {
        bytes.writeBytes(ByteBuffer.allocate(4)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(number)
                .array());
    }

    private void number(double number) {
        bytes.writeBytes(ByteBuffer.allocate(8)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putDouble(number)
                .array());
    }
}
