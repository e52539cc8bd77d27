package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;

/** A way in which readings are asked for: each begins the addresses of {@link ReadingApi} in its own way. */
public interface ReadingDoor {

    /** The variable of the address by which it is known. */
    String variable();

    /**
     * @param value of the variable
     * @throws sarnik.app.web.RefusedException when this asker is shown nothing
     */
    Reading open(String value, HttpServletRequest request);
}
