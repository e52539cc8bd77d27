package sarnik.narrow.numbers;

import sarnik.narrow.Filter;
import sarnik.narrow.Terms;

/** A range of a column of numbers. */
public record Numbers(String page, int order, long dataset, String column, String title, Terms terms)
        implements Filter {}
