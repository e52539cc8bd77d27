package sarnik.finding;

import java.util.Arrays;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.language.Language;

/**
 * Numbers as people type them, before a text is taken apart at its commas and blanks: 1,000 and 1 000 are one number,
 * as is 1.000 where thousands stand apart by points; 1,5 is a number with a decimal.
 */
final class TypedNumbers {

    private static final String NO_MORE_BEFORE = "(?<![\\d.,])";

    private static final Pattern BY_BLANKS =
            Pattern.compile(NO_MORE_BEFORE + "\\d{1,3}(?:[ \\u00a0\\u202f]\\d{3})+(?!\\d)");
    private static final Pattern BY_COMMAS = Pattern.compile(NO_MORE_BEFORE + "\\d{1,3}(?:,\\d{3})+(?!\\d|,\\d)");
    private static final Pattern BY_POINTS = Pattern.compile(NO_MORE_BEFORE + "\\d{1,3}(?:\\.\\d{3})+(?!\\d|\\.\\d)");
    private static final Pattern DECIMAL = Pattern.compile(NO_MORE_BEFORE + "\\d+,\\d+(?!\\d|[.,]\\d)");
    private static final Pattern YEARS = Pattern.compile("(?:1[89]|20)\\d\\d,(?:1[89]|20)\\d\\d");
    private static final Pattern MARK = Pattern.compile("[,. \\u00a0\\u202f]");

    private TypedNumbers() {}

    /**
     * A text with its numbers in one word each, with a point before decimals.
     *
     * @param known whether a word means something here: a list of such words is no number
     */
    static String joined(String text, Predicate<String> known) {
        Predicate<String> isWord = number -> known.test(number) || isList(number, known);
        UnaryOperator<String> bare = number -> isWord.test(number) ? number : without(number);
        String joined = each(BY_BLANKS, text, bare);
        joined = each(Language.spoken().decimal() == '.' ? BY_COMMAS : BY_POINTS, joined, bare);
        return each(
                DECIMAL,
                joined,
                number -> isWord.test(number) || YEARS.matcher(number).matches() ? number : number.replace(',', '.'));
    }

    /** A text with what a pattern finds in it as it is to be. */
    private static String each(Pattern pattern, String text, UnaryOperator<String> as) {
        StringBuilder made = new StringBuilder();
        int end = 0;
        for (Matcher found = pattern.matcher(text); found.find(); end = found.end())
            made.append(text, end, found.start()).append(as.apply(found.group()));
        return made.append(text, end, text.length()).toString();
    }

    private static String without(String number) {
        return MARK.matcher(number).replaceAll("");
    }

    private static boolean isList(String number, Predicate<String> known) {
        return Arrays.stream(MARK.split(number)).allMatch(known);
    }
}
