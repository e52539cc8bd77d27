package sarnik.narrow.dates;

import sarnik.narrow.Filter;

/** A range of a date or time column. */
public record Dates(String page, int order, long dataset, String column, String title) implements Filter {}
