package sarnik.data;

import sarnik.query.TimeStep;

/**
 * Says that a column of one dataset means the same as a column of another: what is picked or filtered on the one
 * narrows the
 * other. Text, dates and areas (a column that holds an area's name or code) are tied by equal values; the same place
 * needs no
 * tie.
 *
 * @param column column of this dataset
 * @param dataset the other dataset
 * @param equals column of the other dataset
 * @param step where both hold dates or times: the step that they share, such as the week; null where they are equal
 */
public record Tie(String column, long dataset, String equals, TimeStep step) {

    /** A tie of equal values. */
    public Tie(String column, long dataset, String equals) {
        this(column, dataset, equals, null);
    }
}
