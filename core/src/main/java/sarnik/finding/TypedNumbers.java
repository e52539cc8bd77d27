package sarnik.finding;

import java.util.Arrays;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import sarnik.language.Language;

/**
 * Numbers as people type them, before a text is taken apart at its commas and blanks: 1,000 and 1 000 are one number,
 * as is 1.000 where thousands stand apart by points; 1,5 is a number with a decimal.
 */
final class TypedNumbers {

    private static final String BLANKS = " \u00a0\u202f";
    private static final Pattern MARK = Pattern.compile("[,.\\s\u00a0\u202f]");
    private static final Pattern YEAR = Pattern.compile("(1[89]|20)\\d{2}");

    private final String text;
    /** Whether a word means something here: such a word, and a list of such words, is no number. */
    private final Predicate<String> known;

    private final String thousands = Language.spoken().decimal() == '.' ? "," : ".";
    private final StringBuilder joined = new StringBuilder();

    private TypedNumbers(String text, Predicate<String> known) {
        this.text = text;
        this.known = known;
    }

    /**
     * A text with its numbers in one word each, with a point before decimals.
     *
     * @param known whether a word means something here: a list of such words is no number
     */
    static String joined(String text, Predicate<String> known) {
        return new TypedNumbers(text, known).all();
    }

    private String all() {
        int at = 0;
        while (at < text.length()) {
            if (isDigit(at) && !(at > 0 && (isDigit(at - 1) || ",.".indexOf(text.charAt(at - 1)) >= 0)))
                at = number(at);
            else joined.append(text.charAt(at++));
        }
        return joined.toString();
    }

    /** @return where it ends */
    private int number(int from) {
        int end = thousands(from, BLANKS);
        if (end < 0) end = thousands(from, thousands);
        if (end < 0) end = digits(from);
        String whole = text.substring(from, end);
        boolean stays = end > digits(from) && isOfWords(whole);
        int decimals = end < text.length() && text.charAt(end) == ',' ? digits(end + 1) : end;
        if (!stays && decimals > end + 1 && !goesOn(decimals, ",.")) {
            String number = text.substring(from, decimals);
            if (!isOfWords(number) && !isOfYears(number)) {
                joined.append(MARK.matcher(whole).replaceAll("")).append('.').append(text, end + 1, decimals);
                return decimals;
            }
        }
        joined.append(stays ? whole : MARK.matcher(whole).replaceAll(""));
        return end;
    }

    /** Where a number with thousands apart ends; -1 where it is none. */
    private int thousands(int from, String marks) {
        int at = digits(from);
        if (at - from > 3) return -1;
        int end = -1;
        while (at < text.length() && marks.indexOf(text.charAt(at)) >= 0 && digits(at + 1) == at + 4) {
            at += 4;
            end = at;
        }
        return end >= 0 && !marks.equals(BLANKS) && goesOn(end, marks) ? -1 : end;
    }

    private boolean goesOn(int at, String marks) {
        return at < text.length() && marks.indexOf(text.charAt(at)) >= 0 && isDigit(at + 1);
    }

    private int digits(int from) {
        int end = from;
        while (isDigit(end)) end++;
        return end;
    }

    private boolean isDigit(int at) {
        return at < text.length() && text.charAt(at) >= '0' && text.charAt(at) <= '9';
    }

    private boolean isOfWords(String number) {
        return known.test(number) || Arrays.stream(MARK.split(number)).allMatch(known);
    }

    private static boolean isOfYears(String number) {
        return Arrays.stream(number.split(","))
                .allMatch(part -> YEAR.matcher(part).matches());
    }
}
