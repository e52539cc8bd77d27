package sarnik.visual.bars;

import sarnik.data.Ranking;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * Bars, one for each value of a category.
 *
 * @param category column whose values make the bars
 * @param rank which bars are kept; null for all, up to a limit that is said
 * @param rule a standing rule; null for none
 */
public record Bars(
        String page, Box at, String title, long dataset, String category, Measure measure, Ranking rank, Rule rule)
        implements Visual {}
