package sarnik.visual;

import java.util.ArrayList;
import java.util.List;
import sarnik.data.ColumnWords;
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

    /**
     * What a visual that holds one category and one measure does not take over, in words.
     *
     * @param withTime whether it takes the column of time over
     */
    public List<String> left(String category, Measure measure, boolean withTime) {
        List<String> left = new ArrayList<>();
        for (String one : categories) if (!one.equals(category)) left.add(ColumnWords.of(one));
        for (Measure one : measures) if (!one.plain().equals(measure.plain())) left.add(ColumnWords.of(one));
        if (time != null && !withTime) left.add("the time");
        return left;
    }

    /** What is measured; the number of rows where nothing is. */
    public List<Measure> measuresOrRows() {
        return measures.isEmpty() ? List.of(Measure.ROWS) : measures;
    }
}
