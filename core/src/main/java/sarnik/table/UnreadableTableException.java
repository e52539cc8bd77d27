package sarnik.table;

/** A file that cannot be brought in as a table. The message is a sentence for people: what, where, how to mend it. */
public final class UnreadableTableException extends RuntimeException {

    private static final long serialVersionUID = 1L;

    public UnreadableTableException(String message) {
        super(message);
    }
}
