package sarnik.table;

import java.text.Normalizer;

/**
 * Texts of cells without what cannot be seen: "Soria" with a blank that does not break behind it, with a mark of no width
 * or with its letters and accents apart looks as "Soria" does, and would be another word.
 */
final class CellText {

    /** Letters and accents from here on may be written apart. */
    private static final char ACCENTS = '\u0300';

    private static final char JOINER = '\u200D';
    private static final char NON_JOINER = '\u200C';

    private CellText() {}

    /** A text without blanks, and marks that cannot be seen, at its ends. */
    static String strip(String text) {
        int end = text.length();
        if (end == 0 || isSeen(text.charAt(0)) && isSeen(text.charAt(end - 1))) return text;
        int from = 0;
        while (end > from && isUnseen(text.charAt(end - 1))) end--;
        while (from < end && isUnseen(text.charAt(from))) from++;
        return text.substring(from, end);
    }

    static boolean isBlank(String text) {
        return strip(text).isEmpty();
    }

    /**
     * A text that is stripped, without what cannot be seen within it: blanks of every kind are one plain blank, however many
     * there are; marks of no width are gone, but for those that join letters; letters and accents stand together (Unicode
     * Standard Annex 15, form C).
     */
    static String plain(String text) {
        if (isPlain(text)) return text;
        StringBuilder plain = new StringBuilder(text.length());
        boolean accents = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (isMark(c)) continue;
            boolean blank = c == '\t' || Character.isSpaceChar(c) && c != '\u2028' && c != '\u2029';
            if (blank && plain.length() > 0 && plain.charAt(plain.length() - 1) == ' ') continue;
            plain.append(blank ? ' ' : c);
            accents |= c >= ACCENTS && Character.getType(c) == Character.NON_SPACING_MARK;
        }
        return accents ? Normalizer.normalize(plain, Normalizer.Form.NFC) : plain.toString();
    }

    private static boolean isPlain(String text) {
        boolean blank = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c >= ACCENTS || c == '\u00A0' || c == '\u00AD' || c == '\t' || blank && c == ' ') return false;
            blank = c == ' ';
        }
        return true;
    }

    /** Whether a letter, digit or mark of the first 128 characters. */
    private static boolean isSeen(char c) {
        return c > ' ' && c < 0x7F;
    }

    private static boolean isUnseen(char c) {
        return Character.isWhitespace(c) || Character.isSpaceChar(c) || Character.getType(c) == Character.FORMAT;
    }

    /** Whether it has no width and no meaning for the letters beside it. */
    private static boolean isMark(char c) {
        return c != JOINER && c != NON_JOINER && Character.getType(c) == Character.FORMAT;
    }
}
