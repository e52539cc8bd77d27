package sarnik.visual.grid;

import sarnik.data.Format;
import sarnik.data.Rule;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.TimeStep;
import sarnik.visual.Box;
import sarnik.visual.Colour;
import sarnik.visual.Visual;

/**
 * A grid: two categories or steps of time crossed, coloured by a measure.
 *
 * @param across what its columns are
 * @param down what its rows are
 * @param measure what colours stand for
 * @param colour the scale; null for five natural classes
 * @param format how figures are written; null for the usual
 * @param rule a standing rule; null for none
 */
public record Grid(
        String page,
        Box at,
        String title,
        long dataset,
        Edge across,
        Edge down,
        Measure measure,
        Colour colour,
        Format format,
        Rule rule)
        implements Visual {

    /**
     * @param column whose values there are
     * @param step the step of time they are put together by; null for the values as they are
     * @param zone the time zone whose clock is read, where the column holds times of UTC; null to read them as they are
     */
    public record Edge(String column, TimeStep step, String zone) {

        boolean isOfTime() {
            return step != null;
        }
    }

    /** The zone whose clock one side is read by: two sides of one column have one clock. */
    String zone(Edge edge) {
        if (edge.zone() != null || !across.column().equals(down.column())) return edge.zone();
        return edge == across ? down.zone() : across.zone();
    }

    GroupKey key(Edge edge) {
        return edge.isOfTime()
                ? new GroupKey.Step(edge.column(), edge.step(), zone(edge))
                : new GroupKey.Of(edge.column());
    }
}
