package sarnik.language;

/**
 * Sentences with what is put in: {@code {0}}, and of ICU's message syntax what forms of words need: {@code {0, plural,
 * one {# row} other {# rows}}} (also with {@code =0}), and {@code {1, select, month {this month} other {this {1}}}}.
 * The number sign stands for the number. There are no quotes: an apostrophe is one.
 */
final class Sentence {

    private final String text;
    private final Language language;
    private final Object[] with;
    private int at;

    private Sentence(String text, Language language, Object[] with) {
        this.text = text;
        this.language = language;
        this.with = with;
    }

    /** @throws IllegalArgumentException where the sentence is not of this form, or names what is not put in */
    static String filled(String text, Language language, Object... with) {
        if (text.indexOf('{') < 0) return text;
        return new Sentence(text, language, with).until(null, true);
    }

    /** What stands up to the closing brace, or the end. @param number for the number sign; null for none */
    private String until(String number, boolean isSaid) {
        StringBuilder said = new StringBuilder();
        while (at < text.length() && text.charAt(at) != '}') {
            char sign = text.charAt(at++);
            if (sign == '{') {
                String put = put(isSaid);
                if (isSaid) said.append(put);
            } else if (isSaid) {
                if (sign == '#' && number != null) said.append(number);
                else said.append(sign);
            }
        }
        return said.toString();
    }

    /** What is put in at a brace that has been read. */
    private String put(boolean isSaid) {
        int index = 0;
        int begin = at;
        while (at < text.length() && Character.isDigit(text.charAt(at))) index = index * 10 + text.charAt(at++) - '0';
        if (at == begin || index >= with.length)
            throw new IllegalArgumentException("Nothing is put in at " + begin + " of: " + text);
        String written = written(with[index]);
        if (text.charAt(at) == '}') {
            at++;
            return written;
        }
        String kind = word(",");
        String said = null;
        String other = "";
        String exact = "=" + with[index];
        String form = kind.equals("plural") ? language.form(((Number) with[index]).doubleValue()) : written;
        while (text.charAt(skip()) != '}') {
            String name = word("");
            boolean here = isSaid && (name.equals(form) && said == null || name.equals(exact));
            at = text.indexOf('{', at) + 1;
            int from = at;
            String words = until(kind.equals("plural") ? written : null, isSaid && (here || name.equals("other")));
            if (at >= text.length())
                throw new IllegalArgumentException("A brace is open from " + from + " in: " + text);
            at++;
            if (here) said = words;
            if (name.equals("other")) other = words;
        }
        at++;
        return said == null ? other : said;
    }

    private int skip() {
        while (at < text.length() && (text.charAt(at) == ' ' || text.charAt(at) == ',')) at++;
        if (at >= text.length()) throw new IllegalArgumentException("A brace is open in: " + text);
        return at;
    }

    private String word(String before) {
        if (!before.isEmpty() && !text.startsWith(before, at))
            throw new IllegalArgumentException("Not understood at " + at + ": " + text);
        int begin = skip();
        while (at < text.length() && " ,{}".indexOf(text.charAt(at)) < 0) at++;
        return text.substring(begin, at);
    }

    private String written(Object what) {
        return what instanceof Integer || what instanceof Long
                ? language.whole(((Number) what).longValue())
                : String.valueOf(what);
    }
}
