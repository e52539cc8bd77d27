package sarnik.query;

/** A query that does not fit its table; the message says which column or value and why. */
public final class QueryException extends RuntimeException {

    private static final long serialVersionUID = 1L;

    public QueryException(String message) {
        super(message);
    }
}
