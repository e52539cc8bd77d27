package sarnik.place;

import sarnik.geo.AreaFinder;

/** Tells land from sea, so that rows which lie in the sea are pointed out. */
@FunctionalInterface
public interface Land {

    /** Where nothing is known of the sea. */
    Land EVERYWHERE = (lon, lat) -> true;

    /**
     * Whether a point lies on land or close to a coast.
     *
     * @param lon degrees east
     * @param lat degrees north
     */
    boolean isNear(double lon, double lat);

    /**
     * Land by the areas of a boundary set, such as the countries of the world.
     *
     * @param finder finds the area that holds a point
     * @param margin how far off a coast still counts, degrees; shapes for small scales cut bays and islands off
     */
    static Land of(AreaFinder finder, double margin) {
        double[][] around = {
            {0, 0}, {1, 0}, {-1, 0}, {0, 1}, {0, -1}, {0.7, 0.7}, {0.7, -0.7}, {-0.7, 0.7}, {-0.7, -0.7}
        };
        return (lon, lat) -> {
            for (double[] step : around)
                if (finder.at(lon + margin * step[0], lat + margin * step[1]) >= 0) return true;
            return false;
        };
    }
}
