package sarnik.visual.lines;

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
 * Lines over time.
 *
 * @param time column of dates or date-times
 * @param step the step of time that rows are summed up by; null for one that suits the span of the data
 * @param zone the clock that times of UTC are read by; null to read them as they are
 * @param measures what is measured, a line each; with a category only the first
 * @param category column whose values have a line each; null for none
 * @param rank which values have one; null for the eight that are the most
 * @param style how they are drawn; null for plain lines
 * @param before whether the same a year before is drawn as a ghost; null for no
 * @param references lines across
 * @param pinned notes pinned to it; null for none
 * @param colour the colours of the values of the category; null for the usual
 * @param format how figures are written; null for the usual
 * @param rule a standing rule; null for none
 */
public record Lines(
        String page,
        Box at,
        String title,
        long dataset,
        String time,
        TimeStep step,
        String zone,
        List<Measure> measures,
        String category,
        Ranking rank,
        Style style,
        Boolean before,
        List<Reference> references,
        List<Note> pinned,
        Colour colour,
        Format format,
        Rule rule)
        implements Visual {

    /** How lines are drawn. */
    public enum Style {
        LINES("lines"),
        /** With dots at each step. */
        DOTS("lines with dots"),
        STEPS("stairs"),
        /** Filled down to zero. */
        AREAS("areas"),
        /** One on top of the other. */
        STACKED("stacked areas");

        private final String words;

        Style(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
