package sarnik.dashboard;

/** A document or an edit that cannot be taken. The message is a sentence for people. */
public final class DashboardException extends RuntimeException {

    private static final long serialVersionUID = 1L;

    /** What kind of refusal it is. */
    public enum Kind {
        /** The document or the patch is not of the right form. */
        MALFORMED,
        /** The patch expected something that has been changed by somebody else. */
        OVERTAKEN
    }

    private final Kind kind;

    public DashboardException(Kind kind, String message) {
        super(message);
        this.kind = kind;
    }

    public Kind kind() {
        return kind;
    }
}
