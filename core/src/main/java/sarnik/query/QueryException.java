package sarnik.query;

import static sarnik.language.Language.phrase;

/** A query that does not fit its table; the message says which column or value and why. */
public final class QueryException extends RuntimeException {

    private static final long serialVersionUID = 1L;

    public QueryException(String message) {
        super(message);
    }

    /** Says that the numbers of a column are not known any more, only what they come to. */
    static QueryException onlySums(String column) {
        return new QueryException(phrase("Only sums of “{0}” were taken along, not its values", column));
    }

    /** Says that rows are not known any more, only what they come to. */
    public static QueryException noRows() {
        return new QueryException(phrase("Only sums were taken along, not single rows"));
    }
}
