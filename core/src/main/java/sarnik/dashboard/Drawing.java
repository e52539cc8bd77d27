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

    @JsonTypeName("map")
    record OfMap(String title, List<SymbolsDrawn> layers, Trail trail) implements Drawing {}

    /**
     * A layer's symbols, largest first.
     *
     * @param ids places
     * @param names their names
     * @param areas the province or country they lie in
     * @param lon degrees east
     * @param lat degrees north
     * @param radii pixels
     * @param classes class of colour, -1 for no data
     * @param sizes the size measure in words
     * @param tints the colour measure in words; empty where there is none
     * @param key what sizes and colours mean
     * @param opacity 0 to 1
     */
    record SymbolsDrawn(
            String id,
            List<String> ids,
            List<String> names,
            List<String> areas,
            double[] lon,
            double[] lat,
            double[] radii,
            int[] classes,
            List<String> sizes,
            List<String> tints,
            Key key,
            double opacity) {}

    /**
     * @param sizeWords what the size stands for; null for one size
     * @param circles nested example circles, largest first
     * @param colourWords what the colour stands for; null for one colour
     * @param colours the classes, lowest first
     * @param missing how many symbols have no data for the colour
     */
    record Key(String sizeWords, List<Circle> circles, String colourWords, List<Swatch> colours, int missing) {}

    record Circle(double radius, String text) {}

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
