package sarnik.narrow.place;

import java.util.List;
import sarnik.narrow.Filter;
import sarnik.narrow.Terms;

/**
 * Rows by where they lie: in areas, around a place, in what a map shows.
 *
 * @param column where the rows are, or come from
 * @param sets names of the boundary sets whose areas are offered; null for none
 * @param map id of the map whose extent is offered; null for none
 */
public record InPlace(
        String page, int order, long dataset, String column, String title, Terms terms, List<String> sets, String map)
        implements Filter {}
