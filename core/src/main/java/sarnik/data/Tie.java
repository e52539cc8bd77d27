package sarnik.data;

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
 */
public record Tie(String column, long dataset, String equals) {}
