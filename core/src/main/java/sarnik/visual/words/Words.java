package sarnik.visual.words;

import java.util.List;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * Words on the sheet: CommonMark, with figures inside sentences.
 *
 * @param text the text; {@code {sum of litres}} is a figure that follows what is narrowed
 * @param dataset id of the dataset that figures are of; null for none
 * @param figures the measures that can stand in braces; null for none
 */
public record Words(String page, Box at, String title, String text, Long dataset, List<Measure> figures)
        implements Visual {}
