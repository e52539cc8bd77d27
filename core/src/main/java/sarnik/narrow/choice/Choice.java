package sarnik.narrow.choice;

import sarnik.narrow.Filter;

/** Any of the values of a text or yes/no column. */
public record Choice(String page, int order, long dataset, String column, String title) implements Filter {}
