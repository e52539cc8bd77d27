package sarnik.narrow.threshold;

import sarnik.narrow.Filter;
import sarnik.narrow.Terms;
import sarnik.query.Measure;

/**
 * A bound that the reader moves, under or over which rows fall away.
 *
 * @param column the numbers that are held against it; with a measure, what makes the groups that fall away as a whole
 * @param measure what is worked out of each group; null to hold the rows' own numbers against it
 * @param most whether what lies over it falls away; null for what lies under it
 */
public record Threshold(
        String page, int order, long dataset, String column, String title, Terms terms, Measure measure, Boolean most)
        implements Filter {

    boolean isMost() {
        return Boolean.TRUE.equals(most);
    }
}
