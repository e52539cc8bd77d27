package sarnik.visual;

import java.util.List;
import sarnik.data.Ranking;
import sarnik.data.Rule;
import sarnik.query.Measure;

/**
 * What a visual holds that another kind could show.
 *
 * @param dataset id of the dataset; null for none
 * @param categories columns that group rows, the most telling first
 * @param measures what is measured
 * @param time column of dates or times; null for none
 * @param rule a standing rule; null for none
 * @param rank which groups are kept; null for all
 * @param colour how it is coloured; null for one colour
 */
public record Ingredients(
        Long dataset,
        List<String> categories,
        List<Measure> measures,
        String time,
        Rule rule,
        Ranking rank,
        Colour colour) {

    public static final Ingredients NONE = new Ingredients(null, List.of(), List.of(), null, null, null, null);
}
