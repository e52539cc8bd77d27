package sarnik.visual.map;

import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.visual.Box;
import sarnik.visual.Note;
import sarnik.visual.Visual;

/**
 * A map.
 *
 * @param layers layers by id; the lowest order lies at the bottom
 * @param ground what lies under the layers; null for the usual one
 * @param start where the map starts; null to fit it to what it shows
 * @param views saved views by id; null for none
 * @param bounds how far it may be zoomed; null for no limit
 * @param together maps of one name move together; null for a map that moves alone
 * @param projection {@code mercator} or {@code equal-area}; null for mercator
 * @param keyAt where the keys stand: {@code in}, {@code beside} or {@code none}; null for in the map
 * @param withheld controls that readers are not given; null for none
 * @param locked whether the map stays where it starts; null for no
 * @param insets whether far-off parts stand in frames of their own on the map; null for no
 * @param pinned notes beside places; null for none
 * @param rows what rows that readers take along hold: {@code all} columns, or {@code shown} for those that the map
 *     shows or
 *     tells; null for shown
 */
public record MapVisual(
        String page,
        Box at,
        String title,
        Map<String, Layer> layers,
        Ground ground,
        Extent start,
        Map<String, SavedView> views,
        Bounds bounds,
        String together,
        String projection,
        String keyAt,
        Set<Control> withheld,
        Boolean locked,
        Boolean insets,
        List<Note> pinned,
        String rows)
        implements Visual {

    /** A map of layers of which nothing else is said yet. */
    static MapVisual of(Map<String, Layer> layers) {
        return new MapVisual(
                null, null, "", layers, null, null, null, null, null, null, null, null, null, null, null, null);
    }

    /** Whether rows that readers take along hold all columns. */
    public boolean handsOutAll() {
        return "all".equals(rows);
    }

    /**
     * @param mood {@code paper}, {@code outline}, {@code tinted}, {@code plain}, or {@code source:} and the name of a
     *     source of pictures
     * @param detail 1 for little, 2 for some, 3 for all there is
     */
    public record Ground(String mood, int detail) {}

    /** Degrees. */
    public record Extent(double west, double south, double east, double north) {}

    /** An extent with a name. */
    public record SavedView(String name, Extent extent, int order) {}

    /** Zooms of the map: at 0 the world is 256 pixels wide, each step doubles it. */
    public record Bounds(double farthest, double nearest) {}

    /** What readers can be given on a map. */
    public enum Control {
        ZOOM,
        HOME,
        SEARCH,
        GROUND,
        LAYERS,
        SCALE,
        NORTH,
        COORDINATES,
        FULL,
        FOLLOW,
        NEAR,
        HERE,
        PICTURE
    }
}
