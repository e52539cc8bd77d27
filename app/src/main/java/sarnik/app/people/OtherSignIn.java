package sarnik.app.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;

/** Says by other means than a session who sends a request. */
public interface OtherSignIn {

    /** Whether a request says it by these means: then no cookie counts, and no form can have been forged. */
    boolean isMeant(HttpServletRequest request);

    /**
     * Takes a request in, as whoever it says.
     *
     * @return false where it has been answered already, with a refusal
     */
    boolean admit(HttpServletRequest request, HttpServletResponse response) throws IOException;
}
