package sarnik.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Cuts a formula into words (ISO/IEC 9075-2, 5.2). */
final class Lexer {

    enum Sort {
        NAME,
        QUOTED_NAME,
        NUMBER,
        STRING,
        PARAMETER,
        SIGN,
        END
    }

    /**
     * @param text the word without its quotes; names and signs as they are written
     */
    record Word(Sort sort, String text, int from, int to) {

        /** Whether it is this key word or sign, in any case. */
        boolean is(String keyword) {
            return (sort == Sort.NAME || sort == Sort.SIGN) && text.equalsIgnoreCase(keyword);
        }

        String upper() {
            return text.toUpperCase(Locale.ROOT);
        }
    }

    private static final List<String> SIGNS = List.of(
            "!~*", "<>", "<=", ">=", "!=", "!~", "~*", "||", "~", "%", "+", "-", "*", "/", "(", ")", ",", "<", ">", "=",
            ".");

    private final String text;
    private int at;

    private Lexer(String text) {
        this.text = text;
    }

    static List<Word> words(String text) {
        Lexer lexer = new Lexer(text);
        List<Word> words = new ArrayList<>();
        while (true) {
            Word word = lexer.next();
            words.add(word);
            if (word.sort == Sort.END) return words;
        }
    }

    private Word next() {
        skip();
        if (at == text.length()) return new Word(Sort.END, "", at, at);
        int from = at;
        char c = text.charAt(at);
        if (c == '\'')
            return new Word(
                    Sort.STRING,
                    quoted(
                            '\'',
                            "A text is opened with ' and never closed. Put ' at its end; a ' inside is written ''."),
                    from,
                    at);
        if (c == '"')
            return new Word(
                    Sort.QUOTED_NAME,
                    quoted('"', "A name is opened with \" and never closed. Put \" at its end."),
                    from,
                    at);
        if (Character.isDigit(c) || (c == '.' && at + 1 < text.length() && Character.isDigit(text.charAt(at + 1))))
            return number();
        if (text.startsWith("::", at)) {
            at += 2;
            return new Word(Sort.SIGN, "::", from, at);
        }
        if (c == ':') {
            at++;
            String name = name();
            if (name.isEmpty())
                throw new FormulaException(from, at, "A parameter is written as a colon and its name, such as :year.");
            // What is known of whoever looks is a family of parameters.
            if (name.equals(Scope.VIEWER) && at < text.length() && text.charAt(at) == '.') {
                at++;
                name += "." + name();
            }
            return new Word(Sort.PARAMETER, name, from, at);
        }
        if (Character.isLetter(c) || c == '_' || c == '@') return new Word(Sort.NAME, name(), from, at);
        for (String sign : SIGNS) {
            if (text.startsWith(sign, at)) {
                at += sign.length();
                return new Word(Sort.SIGN, sign, from, at);
            }
        }
        int end = at + Character.charCount(text.codePointAt(at));
        throw new FormulaException(
                from,
                end,
                "“%s” has no meaning here. Texts stand in single quotes, names with blanks in double quotes."
                        .formatted(text.substring(at, end)));
    }

    /** Blanks and comments, which run from -- to the end of the line. */
    private void skip() {
        while (at < text.length()) {
            if (Character.isWhitespace(text.charAt(at)) || text.charAt(at) == '\u00A0') at++;
            else if (text.startsWith("--", at)) while (at < text.length() && text.charAt(at) != '\n') at++;
            else return;
        }
    }

    private String name() {
        int from = at;
        while (at < text.length()
                && (Character.isLetterOrDigit(text.charAt(at)) || text.charAt(at) == '_' || text.charAt(at) == '@'))
            at++;
        return text.substring(from, at);
    }

    private String quoted(char quote, String open) {
        int from = at++;
        StringBuilder content = new StringBuilder();
        while (at < text.length()) {
            char c = text.charAt(at++);
            if (c != quote) content.append(c);
            else if (at < text.length() && text.charAt(at) == quote) {
                content.append(quote);
                at++;
            } else return content.toString();
        }
        throw new FormulaException(from, text.length(), open);
    }

    private Word number() {
        int from = at;
        digits();
        if (at < text.length() && text.charAt(at) == '.') {
            at++;
            digits();
        }
        if (at < text.length() && (text.charAt(at) == 'e' || text.charAt(at) == 'E')) {
            at++;
            if (at < text.length() && (text.charAt(at) == '+' || text.charAt(at) == '-')) at++;
            int exponent = at;
            digits();
            if (at == exponent)
                throw new FormulaException(
                        from, at, "“" + text.substring(from, at) + "” is no number: digits are missing after its E.");
        }
        if (at < text.length() && (Character.isLetter(text.charAt(at)) || text.charAt(at) == '_')) {
            name();
            throw new FormulaException(
                    from,
                    at,
                    "“" + text.substring(from, at)
                            + "” is neither a number nor a name. A name that begins with a digit stands in "
                            + "double quotes.");
        }
        return new Word(Sort.NUMBER, text.substring(from, at), from, at);
    }

    private void digits() {
        while (at < text.length() && Character.isDigit(text.charAt(at))) at++;
    }
}
