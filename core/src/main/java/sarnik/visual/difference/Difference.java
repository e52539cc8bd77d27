package sarnik.visual.difference;

import java.util.List;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * What makes the difference: which values of which columns part what is picked from the rest.
 *
 * @param measure what differs: a sum or a number of rows, whose shares are compared, or an average or a rate
 * @param columns whose values are looked at
 * @param count how many lines; null for twelve
 * @param rule a standing rule; null for none
 */
public record Difference(
        String page,
        Box at,
        String title,
        long dataset,
        Measure measure,
        List<String> columns,
        Integer count,
        Rule rule)
        implements Visual {

    public Difference {
        columns = columns == null ? List.of() : List.copyOf(columns);
    }
}
