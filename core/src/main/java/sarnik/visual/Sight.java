package sarnik.visual;

import java.util.List;

/**
 * What a reader has in sight of a visual: an extent of a map, or a part of a long table.
 *
 * @param zoom of the map: at 0 the world is 256 pixels wide, each step doubles it
 * @param west degrees
 * @param south degrees
 * @param east degrees; beyond 180 where the map goes around
 * @param north degrees
 * @param from of a table, the number of its first row in sight, from 0; null for the first
 * @param order of a table, the number of the column it is ordered by, from 0; null for the author's order
 * @param down whether the largest come first; null for no
 * @param then of a table, by what else it is ordered, the more important first; null for nothing
 * @param find words that rows have to hold; null for all rows. Of a sheet of details the value whose sheet is seen
 * @param count how many rows are in sight at most; null for a page
 */
public record Sight(
        double zoom,
        double west,
        double south,
        double east,
        double north,
        Integer from,
        Integer order,
        Boolean down,
        List<Then> then,
        String find,
        Integer count) {

    /**
     * A column that rows are ordered by where those before it are equal.
     *
     * @param column its number, from 0
     * @param down whether the largest come first
     */
    public record Then(int column, boolean down) {}

    /** An extent of a map. */
    public Sight(double zoom, double west, double south, double east, double north) {
        this(zoom, west, south, east, north, null, null, null, null, null, null);
    }

    /** A country in view, before the reader has moved the map. */
    public static final Sight FIRST = new Sight(5, -180, -85, 180, 85);

    /** Rows that are given at once. */
    private static final int MOST_ROWS = 100_000;

    /** How many rows are in sight, where a page has so many. */
    public int rows(int page) {
        return count == null ? page : Math.max(1, Math.min(MOST_ROWS, count));
    }

    public boolean holds(double lon, double lat) {
        return lon >= west && lon <= east && lat >= south && lat <= north;
    }

    /** This sight with a share of its size more on each side. */
    public Sight wider(double share) {
        double x = (east - west) * share;
        double y = (north - south) * share;
        return new Sight(zoom, west - x, south - y, east + x, north + y, from, order, down, then, find, count);
    }
}
