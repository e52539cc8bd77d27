package sarnik.visual.bars;

import java.util.List;
import sarnik.data.Format;
import sarnik.data.Ranking;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.query.TimeStep;
import sarnik.visual.Box;
import sarnik.visual.Colour;
import sarnik.visual.Note;
import sarnik.visual.Reference;
import sarnik.visual.Visual;

/**
 * Bars, one for each value of a category, each class of a number, or each step of time.
 *
 * @param category column whose values make the bars
 * @param rank which bars are kept; null for all, up to a limit that is said
 * @param rule a standing rule; null for none
 * @param series column whose values make the parts of each bar; null for none
 * @param layout how the parts stand; null for stacked
 * @param upright whether bars stand upright; null for level ones
 * @param order what they are ordered by; null for the figure
 * @param step the step of time where the category is one; null for one that suits
 * @param classes how many classes, about, where the category is a number; null for twelve
 * @param references lines across
 * @param pinned notes pinned to it; null for none
 * @param colour the colours of the series; null for the usual
 * @param format how figures are written; null for the usual
 */
public record Bars(
        String page,
        Box at,
        String title,
        long dataset,
        String category,
        Measure measure,
        Ranking rank,
        Rule rule,
        String series,
        Layout layout,
        Boolean upright,
        Order order,
        TimeStep step,
        Integer classes,
        List<Reference> references,
        List<Note> pinned,
        Colour colour,
        Format format)
        implements Visual {

    /** These bars of another measure, their parts in another layout. */
    Bars of(Measure other, Layout stand) {
        return new Bars(
                page,
                at,
                title,
                dataset,
                category,
                other,
                rank,
                rule,
                series,
                stand,
                upright,
                order,
                step,
                classes,
                references,
                pinned,
                colour,
                format);
    }

    /** How their parts stand. */
    Layout stands() {
        return layout == null ? Layout.STACKED : layout;
    }

    /** How the parts of bars stand. */
    public enum Layout {
        STACKED("one behind the other"),
        GROUPED("side by side"),
        SHARES("as shares of 100 %"),
        /** The first value to one side, the second to the other. */
        BACK("back to back");

        private final String words;

        Layout(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What bars are ordered by. */
    public enum Order {
        FIGURE("by size"),
        NAME("by name");

        private final String words;

        Order(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
