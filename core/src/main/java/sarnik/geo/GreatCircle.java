package sarnik.geo;

/** Distances on a sphere of the Earth's mean radius. */
public final class GreatCircle {

    /** Mean radius of the Earth, metres (IUGG 1980). */
    private static final double EARTH = 6_371_008.8;

    private GreatCircle() {}

    /**
     * The length of the great circle between two points by the haversine formula (Sinnott 1984); at most 0.6 % off the
     * ellipsoid.
     *
     * @param lon1 degrees east of the one
     * @param lat1 degrees north of the one
     * @param lon2 degrees east of the other
     * @param lat2 degrees north of the other
     * @return metres
     */
    public static double metres(double lon1, double lat1, double lon2, double lat2) {
        double north = Math.sin(Math.toRadians(lat2 - lat1) / 2);
        double east = Math.sin(Math.toRadians(lon2 - lon1) / 2);
        double h = north * north + Math.cos(Math.toRadians(lat1)) * Math.cos(Math.toRadians(lat2)) * east * east;
        return 2 * EARTH * Math.asin(Math.min(1, Math.sqrt(h)));
    }
}
