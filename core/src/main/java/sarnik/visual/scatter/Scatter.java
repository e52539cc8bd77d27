package sarnik.visual.scatter;

import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Colour;
import sarnik.visual.Visual;

/**
 * A scatter: a mark for each value of a category, by two measures.
 *
 * @param category column whose values are the marks: places, or any other
 * @param across what is measured along
 * @param up what is measured upwards
 * @param size what sizes stand for; null for one size
 * @param colour colours by another category of the marks, or one; null for one colour
 * @param line whether the line of least squares is drawn; null for no
 * @param quarters where the quarters are cut; null for none
 * @param scale how the axes run; null for what suits
 * @param rule a standing rule; null for none
 * @param bounds where quarters are cut at bounds of one's own; null for the medians
 */
public record Scatter(
        String page,
        Box at,
        String title,
        long dataset,
        String category,
        Measure across,
        Measure up,
        Measure size,
        Colour colour,
        Boolean line,
        Quarters quarters,
        Scale scale,
        Rule rule,
        Bounds bounds)
        implements Visual {

    /**
     * Bounds of one's own.
     *
     * @param across of what runs across; null for its median
     * @param up of what runs up; null for its median
     */
    public record Bounds(Double across, Double up) {}

    Bounds cutAt() {
        return bounds == null ? new Bounds(null, null) : bounds;
    }

    /** How axes run. */
    public enum Scale {
        EVEN("even axes"),
        /** Each step a factor. */
        FACTORS("axes by factors");

        private final String words;

        Scale(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Where the four quarters are cut. */
    public enum Quarters {
        MEAN("at the means"),
        MEDIAN("at the medians"),
        OWN("at bounds of your own");

        private final String words;

        Quarters(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
