package sarnik.query;

import java.util.List;

/**
 * The answer to a query: one entry a group, by columns.
 *
 * @param keys for each grouping column the value of each group, null where it is missing
 * @param values for each measure the value of each group, NaN where it is missing
 * @param trail how the rows came about
 */
public record Frame(List<String[]> keys, List<double[]> values, RowTrail trail) {

    public Frame {
        keys = List.copyOf(keys);
        values = List.copyOf(values);
    }

    /** Number of groups. */
    public int size() {
        return values.get(0).length;
    }

    public String key(int column, int group) {
        return keys.get(column)[group];
    }

    public double value(int measure, int group) {
        return values.get(measure)[group];
    }
}
