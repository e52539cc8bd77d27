package sarnik.formula;

import java.util.Locale;

/** Text functions of SQL; positions count characters (code points) from 1. */
final class Texts {

    private static final int LONGEST = 100_000;

    private Texts() {}

    /** Whether the text is not too long to be kept. */
    static String bounded(String text) {
        if (text.length() > LONGEST) throw new RowError("a text of more than 100,000 characters");
        return text;
    }

    static int length(String text) {
        return text.codePointCount(0, text.length());
    }

    /**
     * @param from may lie before the text; what lies there counts but gives nothing
     * @param count null for all that follow
     */
    static String substring(String text, long from, Long count) {
        if (count != null && count < 0) throw new RowError("a negative length");
        int length = length(text);
        long end = count == null ? length + 1L : from + count;
        long first = Math.max(1, from);
        long last = Math.min(length + 1L, end);
        if (last <= first) return "";
        return text.substring(text.offsetByCodePoints(0, (int) first - 1), text.offsetByCodePoints(0, (int) last - 1));
    }

    static long position(String part, String whole) {
        int at = whole.indexOf(part);
        return at < 0 ? 0 : whole.codePointCount(0, at) + 1L;
    }

    static String trim(String side, String characters, String text) {
        int from = 0;
        int to = text.length();
        if (!side.equals("TRAILING"))
            while (from < to && has(characters, text.codePointAt(from)))
                from += Character.charCount(text.codePointAt(from));
        if (!side.equals("LEADING"))
            while (to > from && has(characters, text.codePointBefore(to)))
                to -= Character.charCount(text.codePointBefore(to));
        return text.substring(from, to);
    }

    private static boolean has(String characters, int codePoint) {
        return characters.indexOf(codePoint) >= 0;
    }

    static String replace(String text, String from, String to) {
        if (from.isEmpty()) return text;
        // Looked at before it is made: a short text can grow beyond all memory.
        long times = 0;
        for (int at = text.indexOf(from); at >= 0; at = text.indexOf(from, at + from.length())) times++;
        if (text.length() + times * (to.length() - from.length()) > LONGEST)
            throw new RowError("a text of more than 100,000 characters");
        return text.replace(from, to);
    }

    /** The order of code points, as in PostgreSQL's collation "C" over UTF-8. */
    static int compare(String a, String b) {
        int i = 0;
        while (i < a.length() && i < b.length()) {
            int x = a.codePointAt(i);
            int y = b.codePointAt(i);
            if (x != y) return Integer.compare(x, y);
            i += Character.charCount(x);
        }
        return Integer.compare(a.length(), b.length());
    }

    /**
     * SQL's LIKE: % stands for any characters, _ for one. Takes at most length of text times length of pattern steps.
     *
     * @param escape the character before a % or _ that is meant as it stands; -1 for none
     */
    static boolean like(String text, String pattern, int escape) {
        int[] t = text.codePoints().toArray();
        int[] p = pattern.codePoints().toArray();
        int i = 0;
        int j = 0;
        int starPattern = -1;
        int starText = -1;
        while (i < t.length) {
            boolean literal = j < p.length && p[j] == escape;
            if (literal && j + 1 == p.length) throw new RowError("a pattern that ends with its escape character");
            int wanted = j < p.length ? literal ? p[j + 1] : p[j] : -1;
            if (j < p.length && !literal && wanted == '%') {
                starPattern = j++;
                starText = i;
            } else if (j < p.length && ((!literal && wanted == '_') || wanted == t[i])) {
                i++;
                j += literal ? 2 : 1;
            } else if (starPattern >= 0) {
                j = starPattern + 1;
                i = ++starText;
            } else {
                return false;
            }
        }
        while (j < p.length && p[j] == '%') j++;
        return j == p.length;
    }

    /** 1 for yes, 0 for no: the words that PostgreSQL takes, or the beginnings of them. */
    static boolean yesNo(String text) {
        String word = text.strip().toLowerCase(Locale.ROOT);
        boolean yes = word.equals("1")
                || word.equals("on")
                || (!word.isEmpty() && ("true".startsWith(word) || "yes".startsWith(word)));
        boolean no = word.equals("0")
                || word.equals("of")
                || word.equals("off")
                || (!word.isEmpty() && ("false".startsWith(word) || "no".startsWith(word)));
        if (yes == no) throw new RowError("a text that is neither yes nor no");
        return yes;
    }
}
