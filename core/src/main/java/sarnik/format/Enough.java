package sarnik.format;

/** Thrown by a visitor that has seen enough. */
final class Enough extends RuntimeException {

    private static final long serialVersionUID = 1L;

    Enough() {
        super(null, null, false, false);
    }
}
