package sarnik.picture;

import java.awt.geom.Point2D;

/** How degrees are laid out on a plane: x from the west, y from the north, the length of the equator being 1. */
public sealed interface Plane {

    double EQUATOR_METRES = 40_075_016.7;

    /** The place of degrees on the plane. */
    Point2D at(double lon, double lat);

    /** Longitude as x and latitude as y of a place on the plane, degrees. */
    Point2D degrees(double x, double y);

    /** Metres on the ground for a unit of the plane, about a latitude. */
    double metres(double lat);

    /**
     * Web Mercator: directions are true, areas grow towards the poles. What lies beyond 85 degrees is taken to lie
     * there.
     */
    record Mercator() implements Plane {

        private static final double CLAMP = 85;

        @Override
        public Point2D at(double lon, double lat) {
            double y = 0.5
                    - Math.log(Math.tan(Math.PI / 4 + Math.toRadians(Math.max(-CLAMP, Math.min(CLAMP, lat))) / 2))
                            / (2 * Math.PI);
            return new Point2D.Double(lon / 360 + 0.5, y);
        }

        @Override
        public Point2D degrees(double x, double y) {
            return new Point2D.Double((x - 0.5) * 360, Math.toDegrees(Math.atan(Math.sinh((0.5 - y) * 2 * Math.PI))));
        }

        @Override
        public double metres(double lat) {
            return EQUATOR_METRES * Math.cos(Math.toRadians(lat));
        }
    }

    /**
     * Lambert's azimuthal equal-area projection on a sphere (Snyder 1987, "Map projections: a working manual", ch. 24).
     *
     * @param lon0 longitude of the middle, degrees
     * @param lat0 latitude of the middle, degrees
     */
    record EqualArea(double lon0, double lat0) implements Plane {

        /** The radius of the sphere where the equator is 1. */
        private static final double RADIUS = 1 / (2 * Math.PI);
        /** The point opposite the middle has no place; those near it are kept at the rim. */
        private static final double LEAST = 1e-3;

        @Override
        public Point2D at(double lon, double lat) {
            double l = Math.toRadians(lon - lon0);
            double p = Math.toRadians(lat);
            double middle = Math.toRadians(lat0);
            double toMiddle = Math.sin(middle) * Math.sin(p) + Math.cos(middle) * Math.cos(p) * Math.cos(l);
            double k = RADIUS * Math.sqrt(2 / Math.max(LEAST, 1 + toMiddle));
            return new Point2D.Double(
                    k * Math.cos(p) * Math.sin(l),
                    -k * (Math.cos(middle) * Math.sin(p) - Math.sin(middle) * Math.cos(p) * Math.cos(l)));
        }

        @Override
        public Point2D degrees(double x, double y) {
            double rho = Math.hypot(x, y);
            if (rho == 0) return new Point2D.Double(lon0, lat0);
            double middle = Math.toRadians(lat0);
            double c = 2 * Math.asin(Math.min(1, rho / (2 * RADIUS)));
            double lat = Math.asin(Math.max(
                    -1, Math.min(1, Math.cos(c) * Math.sin(middle) - y * Math.sin(c) * Math.cos(middle) / rho)));
            double lon = Math.atan2(
                    x * Math.sin(c), rho * Math.cos(middle) * Math.cos(c) + y * Math.sin(middle) * Math.sin(c));
            return new Point2D.Double(lon0 + Math.toDegrees(lon), Math.toDegrees(lat));
        }

        @Override
        public double metres(double lat) {
            return EQUATOR_METRES;
        }
    }
}
