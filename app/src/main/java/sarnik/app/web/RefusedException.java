package sarnik.app.web;

import static sarnik.language.Language.phrase;

import org.springframework.http.HttpStatus;

/** Something that is not done. The message is a sentence that says what, where and how to mend it. */
public class RefusedException extends RuntimeException {

    private static final long serialVersionUID = 1L;

    private final HttpStatus status;

    public RefusedException(String message) {
        this(HttpStatus.BAD_REQUEST, message);
    }

    public RefusedException(HttpStatus status, String message) {
        super(message);
        this.status = status;
    }

    /** Something that is not there, or that this person may not see: the answer is the same. */
    public static RefusedException gone(String what) {
        return new RefusedException(
                HttpStatus.NOT_FOUND,
                phrase(
                        "{0, select, dashboard {There is no such dashboard. It may have been removed, or it is not open to you.} edition {There is no such edition. It may have been removed, or it is not open to you.} dataset {There is no such dataset. It may have been removed, or it is not open to you.} other {There is no such {0}. It may have been removed, or it is not open to you.}}",
                        what));
    }

    public HttpStatus status() {
        return status;
    }
}
