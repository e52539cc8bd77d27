package sarnik.dashboard;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Map;
import sarnik.dashboard.Dashboard.Box;
import sarnik.dashboard.Dashboard.Ranking;
import sarnik.dashboard.Dashboard.Rule;
import sarnik.query.Measure;
import sarnik.scale.CircleSizes;
import sarnik.scale.Classes;

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
     */
    @JsonTypeName("map")
    record OfMap(String page, Box at, String title, Map<String, Symbols> layers) implements Visual {}

    /**
     * A layer of symbols, one for each place of a dataset.
     *
     * @param order its place in the pile of layers
     * @param dataset id of the dataset
     * @param size how large the circles are; null for one size
     * @param colour how they are coloured; null for one colour
     * @param opacity 0 to 1
     * @param rule a standing rule; null for none
     */
    record Symbols(int order, long dataset, Size size, Colour colour, double opacity, Rule rule) {}

    /**
     * @param radius the largest circle's radius, pixels
     */
    record Size(Measure measure, CircleSizes.Rule rule, double radius) {}

    /**
     * @param classes 2 to 11
     * @param palette name of a {@link sarnik.scale.Palette}
     */
    record Colour(Measure measure, Classes.Method method, int classes, String palette) {}

    /**
     * Bars, one for each value of a category.
     *
     * @param category column whose values make the bars
     * @param rank which bars are kept; null for all, up to a limit that is said
     * @param rule a standing rule; null for none
     */
    @JsonTypeName("bars")
    record OfBars(String page, Box at, String title, long dataset, String category, Measure measure, Ranking rank, Rule rule)
            implements Visual {}

    /** A key figure. */
    @JsonTypeName("figure")
    record OfFigure(String page, Box at, String title, long dataset, Measure measure, Rule rule) implements Visual {}
}
