package sarnik.app.web;

import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;

/** Revisions as they travel: as an ETag with an answer, in the header If-Match with an edit (RFC 9110). */
public final class Revisions {

    private Revisions() {}

    /**
     * The revision that an edit was made on.
     *
     * @throws RefusedException with 428 when the header is missing, with 400 when it holds no revision
     */
    public static long of(String ifMatch) {
        if (ifMatch == null) {
            throw new RefusedException(
                    HttpStatus.PRECONDITION_REQUIRED,
                    "An edit has to name the revision it was made on, in the header If-Match.");
        }
        try {
            return Long.parseLong(ifMatch.strip().replaceFirst("^W/", "").replace("\"", ""));
        } catch (NumberFormatException unreadable) {
            throw new RefusedException("The header If-Match has to hold a revision, such as \"12\".");
        }
    }

    /** A revision as an ETag. */
    public static String tag(long revision) {
        return "\"" + revision + "\"";
    }

    /** An answer without content to an edit that was kept: the revision after it. */
    public static ResponseEntity<Void> kept(long revision) {
        return ResponseEntity.noContent().eTag(tag(revision)).build();
    }
}
