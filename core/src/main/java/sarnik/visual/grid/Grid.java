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

        GroupKey key() {
            return step == null ? new GroupKey.Of(column) : new GroupKey.Step(column, step, zone);
        }
    }
}
