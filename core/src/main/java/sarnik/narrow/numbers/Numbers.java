package sarnik.narrow.numbers;

import sarnik.narrow.Filter;

/** A range of a column of numbers. */
public record Numbers(String page, int order, long dataset, String column, String title) implements Filter {}
