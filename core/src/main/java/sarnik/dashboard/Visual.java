package sarnik.dashboard;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Map;
import java.util.Set;
import sarnik.dashboard.Dashboard.Box;
import sarnik.dashboard.Dashboard.Ranking;
import sarnik.dashboard.Dashboard.Rule;
import sarnik.query.Measure;

/** A map, bars or a key figure on a page. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({
    @JsonSubTypes.Type(Visual.OfMap.class),
    @JsonSubTypes.Type(Visual.OfBars.class),
    @JsonSubTypes.Type(Visual.OfFigure.class)
})
public sealed interface Visual {

    String page();

    Box at();

    /** The title above it; empty to let its brief speak. */
    String title();

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
     * @param rows what rows that readers take along hold: {@code all} columns, or {@code shown} for those that the map
     *     shows or
     *     tells; null for shown
     */
    @JsonTypeName("map")
    record OfMap(
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
            String rows)
            implements Visual {

        /** Whether rows that readers take along hold all columns. */
        boolean handsOutAll() {
            return "all".equals(rows);
        }
    }

    /**
     * @param mood {@code paper}, {@code outline}, {@code tinted}, {@code plain}, or {@code source:} and the name of a
     *     source of pictures
     * @param detail 1 for little, 2 for some, 3 for all there is
     */
    record Ground(String mood, int detail) {}

    /** Degrees. */
    record Extent(double west, double south, double east, double north) {}

    /** An extent with a name. */
    record SavedView(String name, Extent extent, int order) {}

    /** Zooms of the map: at 0 the world is 256 pixels wide, each step doubles it. */
    record Bounds(double farthest, double nearest) {}

    /** What readers can be given on a map. */
    enum Control {
        ZOOM,
        HOME,
        SEARCH,
        GROUND,
        LAYERS,
        SCALE,
        NORTH,
        COORDINATES,
        FULL,
        NEAR,
        PICTURE
    }

    /**
     * Bars, one for each value of a category.
     *
     * @param category column whose values make the bars
     * @param rank which bars are kept; null for all, up to a limit that is said
     * @param rule a standing rule; null for none
     */
    @JsonTypeName("bars")
    record OfBars(
            String page, Box at, String title, long dataset, String category, Measure measure, Ranking rank, Rule rule)
            implements Visual {}

    /** A key figure. */
    @JsonTypeName("figure")
    record OfFigure(String page, Box at, String title, long dataset, Measure measure, Rule rule) implements Visual {}
}
