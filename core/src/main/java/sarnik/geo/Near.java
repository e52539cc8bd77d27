package sarnik.geo;

/** Whether points lie near one, or within an extent. */
public final class Near {

    private static final int TURN = 360;

    private Near() {}

    /** Whether a point lies within so many metres of another; degrees. */
    public static boolean within(double metres, double lon1, double lat1, double lon2, double lat2) {
        return GreatCircle.metres(lon1, lat1, lon2, lat2) <= metres;
    }

    /** Whether a point lies within an extent, whose longitudes may go around the Earth; degrees. */
    public static boolean inBox(double lon, double lat, double west, double south, double east, double north) {
        if (lat < south || lat > north) return false;
        for (int turn = -TURN; turn <= TURN; turn += TURN) if (lon + turn >= west && lon + turn <= east) return true;
        return false;
    }
}
