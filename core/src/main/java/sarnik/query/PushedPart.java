package sarnik.query;

import java.util.ArrayList;
import java.util.List;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Surroundings;

/**
 * A part of a measure formula as a database works it out that holds the rows.
 *
 * @param of what is summed up
 * @param only which rows take part, besides those that the query leaves
 */
public record PushedPart(Of of, List<Stage> only) {

    public PushedPart {
        only = List.copyOf(only);
    }

    /** What is summed up. */
    public sealed interface Of {

        /** A summary that is written in a formula. */
        record Written(MeasureFormula.Summed summed, Surroundings on) implements Of {}

        /** A plain measure of a column. */
        record Plain(Measure measure) implements Of {}

        /** What its variance rests on: of a column the sum of its squares. */
        record Squares(String column) implements Of {}

        /** The variance of a column's values, as of a sample. */
        record Variance(String column) implements Of {}

        /** Figures that are known by key, each once for each key that occurs. */
        record Known(MeasureFormula.Known known) implements Of {}
    }

    static PushedPart of(MeasureFormula.Summed summed, Surroundings on) {
        return new PushedPart(new Of.Written(summed, on), List.of());
    }

    static PushedPart of(Measure measure) {
        return new PushedPart(new Of.Plain(measure), List.of());
    }

    /** The same of fewer rows. */
    PushedPart only(List<Stage> stages) {
        List<Stage> all = new ArrayList<>(only);
        all.addAll(stages);
        return new PushedPart(of, all);
    }
}
