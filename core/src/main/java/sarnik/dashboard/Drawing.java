package sarnik.dashboard;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import sarnik.query.RowTrail;

/**
 * What the browser draws of a visual: every figure in it is ready, with its words.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({
    @JsonSubTypes.Type(Drawing.OfMap.class),
    @JsonSubTypes.Type(Drawing.OfBars.class),
    @JsonSubTypes.Type(Drawing.OfFigure.class),
    @JsonSubTypes.Type(Drawing.Misfit.class)
})
public sealed interface Drawing {

    /**
     * @param layers the lowest first
     * @param summary what the map shows, for those who cannot see it
     * @param credits what licences ask to be said
     */
    @JsonTypeName("map")
    record OfMap(String title, List<LayerDrawn> layers, String summary, List<String> credits, Trail trail)
            implements Drawing {}

    /** An example of a size, radius in pixels. */
    record Circle(double radius, String text) {}

    /** A colour, what it stands for and how many marks wear it. */
    record Swatch(String colour, String text, int count) {}

    /**
     * @param words what is measured
     * @param bars in their order
     * @param others how many bars are not shown, 0 for none
     */
    @JsonTypeName("bars")
    record OfBars(String title, String words, List<Bar> bars, int others, Trail trail) implements Drawing {}

    /**
     * @param key the category's value, null for missing
     * @param start where the bar starts, 0 to 1 of the width
     * @param end where it ends
     */
    record Bar(String key, String label, double start, double end, String text, String full) {}

    @JsonTypeName("figure")
    record OfFigure(String title, String words, String text, String full, Trail trail) implements Drawing {}

    /**
     * A visual that cannot be drawn.
     *
     * @param why a sentence: what is wrong and where to mend it
     */
    @JsonTypeName("misfit")
    record Misfit(String title, String why) implements Drawing {}

    /**
     * @param steps the row trail
     * @param empty a sentence that says why nothing is left, null where something is
     */
    record Trail(List<RowTrail.Step> steps, String empty) {

        static Trail of(RowTrail trail) {
            return new Trail(trail.steps(), trail.rows() > 0 ? null : whatTookTheLast(trail));
        }

        private static String whatTookTheLast(RowTrail trail) {
            for (RowTrail.Step step : trail.steps()) {
                if (step.left() == 0) return "No row is left after this step: " + step.words() + ".";
            }
            return "There is no row.";
        }
    }
}
