package sarnik.visual.details;

import java.util.List;
import sarnik.data.Rule;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * The sheet of one value of a column, such as a place: that which is picked, or the first, and the others one by one.
 *
 * @param by column whose values have a sheet each
 * @param groups columns that are told, group by group; null for all in one group
 * @param figures what is measured; null for nothing
 * @param over column of time over which each figure has a tiny line; null for none
 * @param spot whether a small map shows where it lies among the others; null for no
 * @param tied ids of other datasets whose rows about it are listed; null for none
 * @param rule a standing rule; null for none
 */
public record Details(
        String page,
        Box at,
        String title,
        long dataset,
        String by,
        List<Group> groups,
        List<Measure> figures,
        String over,
        Boolean spot,
        List<Long> tied,
        Rule rule)
        implements Visual {

    /**
     * @param title what stands above; may be empty
     * @param columns the columns that are told
     */
    public record Group(String title, List<String> columns) {}
}
