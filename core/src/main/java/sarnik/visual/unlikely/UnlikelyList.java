package sarnik.visual.unlikely;

import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.query.TimeStep;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * Values that stand out, with why.
 *
 * @param category column whose values are looked at one by one
 * @param measure what is looked at
 * @param time column of dates or times by whose steps each has a history; null for those beside their neighbours
 * @param step how long a step is; null for what suits the span of the data
 * @param nearest so many of the nearest are neighbours; null for those that touch, or the nearest six
 * @param count how many lines at most; null for twenty
 * @param rule a standing rule; null for none
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
        Rule rule)
        implements Visual {}
