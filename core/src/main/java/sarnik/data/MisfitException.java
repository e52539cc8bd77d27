package sarnik.data;

/** A part of a dashboard that no longer fits its data. The message is a sentence for people. */
public final class MisfitException extends RuntimeException {

    private static final long serialVersionUID = 1L;

    public MisfitException(String message) {
        super(message);
    }

    public MisfitException(String message, Throwable cause) {
        super(message, cause);
    }
}
