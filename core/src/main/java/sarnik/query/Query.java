package sarnik.query;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A question to a table.
 *
 * @param stages row conditions, applied in this order
 * @param groupBy what makes the groups; nothing makes one group of all rows
 * @param missing what becomes of rows whose grouping value is missing
 * @param measures what is summed up for each group, at least one
 * @param having conditions on groups, applied before the rank
 * @param rank which groups are kept, if not all
 * @param sort the order of the groups
 * @param limit the most groups returned after sorting
 * @param formulas measure formulas by name, for the measures that name one
 */
public record Query(
        List<Stage> stages,
        List<GroupKey> groupBy,
        Missing missing,
        List<Measure> measures,
        List<Having> having,
        Optional<Rank> rank,
        Sort sort,
        int limit,
        Map<String, FormulaMeasure> formulas) {

    /** What becomes of rows whose grouping value is missing. */
    public enum Missing {
        /** They make a group of their own. */
        KEPT,
        /** They are left out, as a step of the row trail. */
        LEFT_OUT
    }

    public Query {
        stages = List.copyOf(stages);
        groupBy = List.copyOf(groupBy);
        measures = List.copyOf(measures);
        having = List.copyOf(having);
        formulas = Map.copyOf(formulas);
        if (measures.isEmpty()) throw new IllegalArgumentException("A query needs a measure");
        if (rank.isPresent() && (rank.get().measure() < 0 || rank.get().measure() >= measures.size())) {
            throw new IllegalArgumentException(
                    "The rank's measure " + rank.get().measure() + " is not in the query");
        }
    }

    /** A query by columns as they are, without formulas. */
    public Query(
            List<Stage> stages,
            List<String> groupBy,
            Missing missing,
            List<Measure> measures,
            Optional<Rank> rank,
            Sort sort,
            int limit) {
        this(stages, GroupKey.of(groupBy), missing, measures, List.of(), rank, sort, limit, Map.of());
    }

    /** This query with those measure formulas that its measures name. */
    public Query with(Map<String, FormulaMeasure> known) {
        Map<String, FormulaMeasure> named = new HashMap<>();
        for (Measure measure : measures)
            if (measure.summary() == Summary.FORMULA && known.containsKey(measure.column()))
                named.put(measure.column(), known.get(measure.column()));
        return new Query(stages, groupBy, missing, measures, having, rank, sort, limit, named);
    }

    /** This query with other stages. */
    public Query narrowed(List<Stage> other) {
        return new Query(other, groupBy, missing, measures, having, rank, sort, limit, formulas);
    }

    /** This query with a condition on groups. */
    public Query having(Having condition) {
        return new Query(stages, groupBy, missing, measures, List.of(condition), rank, sort, limit, formulas);
    }

    /** This query with a rank. */
    public Query ranked(Rank kept) {
        return new Query(stages, groupBy, missing, measures, having, Optional.of(kept), sort, limit, formulas);
    }

    /** This query in another order, cut after so many groups. */
    public Query sorted(Sort order, int most) {
        return new Query(stages, groupBy, missing, measures, having, rank, order, most, formulas);
    }

    /** This query without the rows that lack a grouping value. */
    public Query filled() {
        return new Query(stages, groupBy, Missing.LEFT_OUT, measures, having, rank, sort, limit, formulas);
    }

    /** A query without rank or limit, ordered by key. */
    public static Query of(List<Stage> stages, List<String> groupBy, List<Measure> measures) {
        return by(stages, GroupKey.of(groupBy), measures);
    }

    /** A query without rank or limit, ordered by key. */
    public static Query by(List<Stage> stages, List<GroupKey> groupBy, List<Measure> measures) {
        return new Query(
                stages,
                groupBy,
                Missing.KEPT,
                measures,
                List.of(),
                Optional.empty(),
                Sort.BY_KEY,
                Integer.MAX_VALUE,
                Map.of());
    }
}
