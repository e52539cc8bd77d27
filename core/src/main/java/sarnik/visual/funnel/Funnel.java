package sarnik.visual.funnel;

import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.statistics.RateOf;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * A funnel: the rate of each value of a category against what it rests on, between the limits within which chance alone
 * would let it lie.
 *
 * @param category column whose values are the marks: places, or any other
 * @param events what is counted
 * @param over what it could happen to
 * @param of what the rate is of; null for what it is guessed to be
 * @param per for how many of those it is said; null for what suits
 * @param smooth whether rates are drawn toward the whole; null for no
 * @param rule a standing rule; null for none
 */
public record Funnel(
        String page,
        Box at,
        String title,
        long dataset,
        String category,
        Measure events,
        Measure over,
        RateOf of,
        Double per,
        Boolean smooth,
        Rule rule)
        implements Visual {}
