package sarnik.app.web;

/**
 * A text that holds what no text may: the character NUL, which the database cannot keep, or half of a surrogate pair.
 */
public final class UnfitTextException extends RuntimeException {

    private static final long serialVersionUID = 1L;

    UnfitTextException() {
        super("A text holds a character that cannot be kept");
    }

    String sentence() {
        return "A text in the request holds a character that cannot be kept (NUL, or half of a pair of "
                + "surrogates). Leave it out.";
    }

    /**
     * @return the text as it is
     * @throws UnfitTextException when it cannot be kept
     */
    public static String checked(String text) {
        for (int i = 0; text != null && i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == 0) throw new UnfitTextException();
            if (!Character.isSurrogate(c)) continue;
            if (!Character.isHighSurrogate(c)
                    || i + 1 == text.length()
                    || !Character.isLowSurrogate(text.charAt(i + 1))) throw new UnfitTextException();
            i++;
        }
        return text;
    }
}
