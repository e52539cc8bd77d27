package sarnik.narrow.search;

import sarnik.narrow.Filter;
import sarnik.narrow.Terms;

/** Rows whose text holds words that the reader types. */
public record Search(String page, int order, long dataset, String column, String title, Terms terms)
        implements Filter {}
