package sarnik.formula;

/** A formula that cannot be used. The message says which word, why, and what would fit. */
public final class FormulaException extends RuntimeException {

    private static final long serialVersionUID = 1L;

    private final int from;
    private final int to;

    /**
     * @param from the first character of the word that is meant, from 0
     * @param to the character after it
     */
    FormulaException(int from, int to, String message) {
        super(message);
        this.from = from;
        this.to = to;
    }

    FormulaException(Expression at, String message) {
        this(at.from(), at.to(), message);
    }

    public int from() {
        return from;
    }

    public int to() {
        return to;
    }
}
