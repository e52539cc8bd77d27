package sarnik.visual.unlikely;

import sarnik.data.ColumnWords;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.query.TimeStep;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * Values that stand out, with why: of a category in each step of time or beside its neighbours, or of single rows
 * beside the other rows of the same category.
 *
 * @param category column whose values are looked at one by one
 * @param measure what is looked at; of single rows its column
 * @param time column of dates or times by whose steps each has a history, null for those beside their neighbours; of
 *     single rows what they are dated by
 * @param step how long a step is; null for what suits the span of the data
 * @param nearest so many of the nearest are neighbours; null for those that touch, or the nearest six
 * @param count how many lines at most; null for twenty
 * @param rule a standing rule; null for none
 * @param rows whether single rows are looked at; null for no
 */
public record UnlikelyList(
        String page,
        Box at,
        String title,
        long dataset,
        String category,
        Measure measure,
        String time,
        TimeStep step,
        Integer nearest,
        Integer count,
        Rule rule,
        Boolean rows)
        implements Visual {

    /** What is looked at, in words. */
    String words() {
        return isOfRows() && measure.column() != null ? measure.column() : ColumnWords.of(measure);
    }

    /** Whether single rows are looked at. */
    boolean isOfRows() {
        return Boolean.TRUE.equals(rows);
    }
}
