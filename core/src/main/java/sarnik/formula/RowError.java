package sarnik.formula;

/** What cannot be computed in one row: a division by zero, a number out of range. The row's value is then missing. */
final class RowError extends RuntimeException {

    private static final long serialVersionUID = 1L;

    RowError(String message) {
        // Without a stack: millions of rows may divide by zero.
        super(message, null, false, false);
    }
}
