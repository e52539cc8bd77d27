package sarnik.picture;

import java.awt.Shape;
import java.awt.geom.Path2D;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import sarnik.dashboard.Sight;

/**
 * Where degrees lie in a picture, in Web Mercator with the width of the world as 1.
 *
 * @param left of the map, in widths of the world from the west
 * @param top of the map, from the north
 * @param scale pixels for the width of the world
 * @param width of the map, pixels
 * @param height of the map, pixels
 * @param above pixels of the picture above the map
 */
record View(double left, double top, double scale, int width, int height, int above) {

    /** Corners nearer than this to the last say nothing, pixels. */
    private static final double TELLING = 0.5;
    private static final double MARGIN = 50;

    /** The view that has all in sight, as large as fits. */
    static View of(Sight sight, int width, int height, int above) {
        double west = x(sight.west());
        double east = x(sight.east());
        double north = y(sight.north());
        double south = y(sight.south());
        double scale = Math.min(width / Math.max(1e-9, east - west), height / Math.max(1e-9, south - north));
        return new View((west + east) / 2 - width / scale / 2, (north + south) / 2 - height / scale / 2, scale, width, height, above);
    }

    private static double x(double lon) {
        return lon / 360 + 0.5;
    }

    private static double y(double lat) {
        return 0.5 - Math.log(Math.tan(Math.PI / 4 + Math.toRadians(Math.max(-85, Math.min(85, lat))) / 2)) / (2 * Math.PI);
    }

    double px(double lon) {
        return (x(lon) - left) * scale;
    }

    double py(double lat) {
        return above + (y(lat) - top) * scale;
    }

    double lonOf(double pixel) {
        return (pixel / scale + left - 0.5) * 360;
    }

    /** @param pixel from the top of the map */
    double latOf(double pixel) {
        return Math.toDegrees(Math.atan(Math.sinh((0.5 - (pixel / scale + top)) * 2 * Math.PI)));
    }

    /** Metres on the ground at the equator for a pixel. */
    double metres() {
        return 40_075_016.7 / scale;
    }

    boolean holds(double x, double y) {
        return x >= 0 && x <= width && y >= above && y <= above + height;
    }

    /** The polygons of a shape in pixels; those far outside are left out. */
    Shape path(Geometry shape) {
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        for (int g = 0; g < shape.getNumGeometries(); g++) {
            if (!(shape.getGeometryN(g) instanceof Polygon polygon) || !isNear(polygon.getEnvelopeInternal())) continue;
            ring(path, polygon.getExteriorRing());
            for (int h = 0; h < polygon.getNumInteriorRing(); h++) ring(path, polygon.getInteriorRingN(h));
        }
        return path;
    }

    /** Lines in pixels; those far outside are left out. */
    Shape path(List<LineString> lines) {
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        for (LineString line : lines) if (isNear(line.getEnvelopeInternal())) follow(path, line);
        return path;
    }

    private boolean isNear(Envelope box) {
        return px(box.getMaxX()) >= -MARGIN && px(box.getMinX()) <= width + MARGIN && py(box.getMinY()) >= above - MARGIN && py(box.getMaxY()) <= above + height + MARGIN;
    }

    private void ring(Path2D path, LineString ring) {
        follow(path, ring);
        path.closePath();
    }

    private void follow(Path2D path, LineString line) {
        double lastX = Double.NaN;
        double lastY = Double.NaN;
        for (int i = 0; i < line.getNumPoints(); i++) {
            Coordinate c = line.getCoordinateN(i);
            double x = px(c.x);
            double y = py(c.y);
            if (i > 0 && i < line.getNumPoints() - 1 && Math.abs(x - lastX) < TELLING && Math.abs(y - lastY) < TELLING) continue;
            if (i == 0) path.moveTo(x, y);
            else path.lineTo(x, y);
            lastX = x;
            lastY = y;
        }
    }
}
