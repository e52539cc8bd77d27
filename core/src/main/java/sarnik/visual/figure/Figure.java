package sarnik.visual.figure;

import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * A key figure.
 *
 * @param rule a standing rule; null for none
 */
public record Figure(String page, Box at, String title, long dataset, Measure measure, Rule rule) implements Visual {}
