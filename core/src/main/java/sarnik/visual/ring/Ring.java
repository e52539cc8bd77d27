package sarnik.visual.ring;

import sarnik.data.Format;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Colour;
import sarnik.visual.Visual;

/**
 * A ring: parts of a whole, with the whole in the middle.
 *
 * @param category column whose values are the parts
 * @param measure what is measured; it has to add up
 * @param parts how many parts stand for themselves, the rest are others; null for eight
 * @param colour the colours of the parts; null for the usual
 * @param format how figures are written; null for the usual
 * @param rule a standing rule; null for none
 */
public record Ring(
        String page,
        Box at,
        String title,
        long dataset,
        String category,
        Measure measure,
        Integer parts,
        Colour colour,
        Format format,
        Rule rule)
        implements Visual {}
