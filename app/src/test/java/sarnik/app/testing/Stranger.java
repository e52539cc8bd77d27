package sarnik.app.testing;

import java.io.Serializable;

/** A class that does something when it is read back, and that nobody has any business to read. */
public final class Stranger implements Serializable {

    private static final long serialVersionUID = 1L;
    private static boolean made;

    /** Whether one was made of bytes. */
    public static boolean isMade() {
        return made;
    }

    private Object readResolve() {
        made = true;
        return this;
    }
}
