package sarnik.visual;

/**
 * What a reader has in sight on a map.
 *
 * @param zoom of the map: at 0 the world is 256 pixels wide, each step doubles it
 * @param west degrees
 * @param south degrees
 * @param east degrees; beyond 180 where the map goes around
 * @param north degrees
 */
public record Sight(double zoom, double west, double south, double east, double north) {

    /** A country in view, before the reader has moved the map. */
    public static final Sight FIRST = new Sight(5, -180, -85, 180, 85);

    public boolean holds(double lon, double lat) {
        return lon >= west && lon <= east && lat >= south && lat <= north;
    }

    /** This sight with a share of its size more on each side. */
    public Sight wider(double share) {
        double x = (east - west) * share;
        double y = (north - south) * share;
        return new Sight(zoom, west - x, south - y, east + x, north + y);
    }
}
