package sarnik.picture;

import java.awt.Shape;
import java.awt.geom.Path2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import sarnik.geo.ShapeBand;
import sarnik.visual.Sight;

/**
 * Where degrees lie in a picture.
 *
 * @param plane on which degrees are laid out
 * @param left of the map, on the plane
 * @param top of the map
 * @param scale pixels for a unit of the plane
 * @param width of the map, pixels
 * @param height of the map, pixels
 * @param above pixels of the picture above the map
 */
record View(Plane plane, double left, double top, double scale, int width, int height, int above) {

    /** Corners nearer than this to the last say nothing, pixels. */
    private static final double TELLING = 0.5;

    private static final double MARGIN = 50;
    /** Edges longer than this are bent with the meridians, degrees. */
    private static final double LONG = 1;

    /** The view that has all in sight, as large as fits. */
    static View of(Sight sight, Plane plane, int width, int height, int above) {
        Rectangle2D box = box(plane, new Envelope(sight.west(), sight.east(), sight.south(), sight.north()));
        double scale = Math.min(width / Math.max(1e-9, box.getWidth()), height / Math.max(1e-9, box.getHeight()));
        return new View(
                plane,
                box.getCenterX() - width / scale / 2,
                box.getCenterY() - height / scale / 2,
                scale,
                width,
                height,
                above);
    }

    /** The box on the plane about a box of degrees: its corners and the middles of its sides. */
    private static Rectangle2D box(Plane plane, Envelope degrees) {
        Rectangle2D box = null;
        for (double lon : new double[] {degrees.getMinX(), degrees.centre().x, degrees.getMaxX()}) {
            for (double lat : new double[] {degrees.getMinY(), degrees.centre().y, degrees.getMaxY()}) {
                Point2D at = plane.at(lon, lat);
                if (box == null) box = new Rectangle2D.Double(at.getX(), at.getY(), 0, 0);
                else box.add(at);
            }
        }
        return box;
    }

    boolean isMercator() {
        return plane instanceof Plane.Mercator;
    }

    /** Where degrees lie, in pixels of the picture. */
    Point2D at(double lon, double lat) {
        Point2D at = plane.at(lon, lat);
        return new Point2D.Double((at.getX() - left) * scale, above + (at.getY() - top) * scale);
    }

    /**
     * Longitude as x and latitude as y, degrees.
     *
     * @param x pixels from the left of the map
     * @param y pixels from its top
     */
    Point2D degrees(double x, double y) {
        return plane.degrees(x / scale + left, y / scale + top);
    }

    /** Metres for a pixel at the equator, or anywhere where areas are true. */
    double metres() {
        return Plane.EQUATOR_METRES / scale;
    }

    /** Metres on the ground for a pixel in the middle of the map. */
    double metresInTheMiddle() {
        return plane.metres(degrees(width / 2.0, height / 2.0).getY()) / scale;
    }

    Rectangle2D all() {
        return new Rectangle2D.Double(0, above, width, height);
    }

    /** The polygons of a shape in pixels; those far outside are left out. */
    Shape path(Geometry shape) {
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        for (Polygon polygon : ShapeBand.polygons(shape)) {
            if (!isNear(polygon.getEnvelopeInternal())) continue;
            ring(path, polygon.getExteriorRing());
            for (int h = 0; h < polygon.getNumInteriorRing(); h++) ring(path, polygon.getInteriorRingN(h));
        }
        return path;
    }

    /** Lines in pixels; those far outside are left out. */
    Shape path(List<LineString> lines) {
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        for (LineString line : lines) if (isNear(line.getEnvelopeInternal())) follow(path, line.getCoordinates());
        return path;
    }

    /** A box of degrees, whose sides may be bent. */
    Shape path(Envelope box) {
        Path2D path = new Path2D.Double(Path2D.WIND_EVEN_ODD);
        follow(path, new Coordinate[] {
            new Coordinate(box.getMinX(), box.getMinY()),
            new Coordinate(box.getMaxX(), box.getMinY()),
            new Coordinate(box.getMaxX(), box.getMaxY()),
            new Coordinate(box.getMinX(), box.getMaxY()),
            new Coordinate(box.getMinX(), box.getMinY())
        });
        path.closePath();
        return path;
    }

    private boolean isNear(Envelope degrees) {
        Rectangle2D box = box(plane, degrees);
        // The sides of a wide box bend beyond the box of its corners.
        double bent = isMercator() ? 0 : Math.max(box.getWidth(), box.getHeight()) / 2;
        return (box.getMaxX() + bent - left) * scale >= -MARGIN
                && (box.getMinX() - bent - left) * scale <= width + MARGIN
                && (box.getMaxY() + bent - top) * scale >= -MARGIN
                && (box.getMinY() - bent - top) * scale <= height + MARGIN;
    }

    private void ring(Path2D path, LineString ring) {
        follow(path, ring.getCoordinates());
        path.closePath();
    }

    private void follow(Path2D path, Coordinate[] corners) {
        Point2D last = null;
        for (int i = 0; i < corners.length; i++) {
            if (i > 0) last = between(path, corners[i - 1], corners[i], last);
            Point2D at = at(corners[i].x, corners[i].y);
            if (last != null
                    && i < corners.length - 1
                    && Math.abs(at.getX() - last.getX()) < TELLING
                    && Math.abs(at.getY() - last.getY()) < TELLING) continue;
            if (i == 0) path.moveTo(at.getX(), at.getY());
            else path.lineTo(at.getX(), at.getY());
            last = at;
        }
    }

    /** Points along an edge that is straight in degrees and bent on the plane. */
    private Point2D between(Path2D path, Coordinate a, Coordinate b, Point2D last) {
        if (isMercator()) return last;
        int parts = (int) Math.ceil(Math.max(Math.abs(b.x - a.x), Math.abs(b.y - a.y)) / LONG);
        Point2D at = last;
        for (int p = 1; p < parts; p++) {
            at = at(a.x + (b.x - a.x) * p / parts, a.y + (b.y - a.y) * p / parts);
            path.lineTo(at.getX(), at.getY());
        }
        return at;
    }
}
