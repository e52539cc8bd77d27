package sarnik.narrow.yesno;

import sarnik.narrow.Filter;
import sarnik.narrow.Terms;

/** A switch between the rows with yes, those with no, and both. */
public record YesNo(String page, int order, long dataset, String column, String title, Terms terms) implements Filter {}
