package sarnik.narrow.newest;

import sarnik.narrow.Filter;
import sarnik.narrow.Terms;

/**
 * A switch between all rows and the newest.
 *
 * @param column of dates or times
 * @param by column that tells devices apart, of each of which the newest is kept; null for the newest of all
 */
public record Newest(String page, int order, long dataset, String column, String title, Terms terms, String by)
        implements Filter {}
