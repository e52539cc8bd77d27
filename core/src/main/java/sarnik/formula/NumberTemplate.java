package sarnik.formula;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * A template by which TO_CHAR writes numbers, as PostgreSQL has them ("Template Patterns for Numeric Formatting"):
 * {@code 9} a
 * digit, {@code 0} a digit that is written even if it leads, {@code .} or {@code D} the point, {@code ,} or {@code G}
 * between
 * thousands, {@code S} the sign, {@code MI} a minus, {@code PR} brackets for negative numbers, {@code FM} without
 * filling.
 * Other signs, and words in double quotes, stay as they are.
 */
final class NumberTemplate {

    /** Digits that a double holds (DBL_DIG). */
    private static final int SURE_DIGITS = 15;

    private enum Sort {
        NINE,
        ZERO,
        POINT,
        COMMA,
        MINUS,
        LITERAL
    }

    private record Part(Sort sort, String text) {}

    private final List<Part> parts = new ArrayList<>();
    private boolean tight;
    private boolean brackets;
    private boolean minus;
    private int sign;
    private int before;
    private int after;
    private int firstZero;
    private int lastZero;
    private boolean point;

    private NumberTemplate() {}

    /**
     * @throws FormulaException when it is no such template
     */
    static NumberTemplate parse(Expression at, String text) {
        NumberTemplate made = new NumberTemplate();
        for (int i = 0; i < text.length(); ) i += made.take(at, text, i);
        if (made.before == 0)
            throw new FormulaException(
                    at, "A template for numbers has a digit before the point, such as 'FM999,990.00'.");
        return made;
    }

    private int take(Expression at, String text, int i) {
        String rest = text.substring(i).toUpperCase(Locale.ROOT);
        char c = rest.charAt(0);
        if (c == '9' || c == '0') {
            digit(c == '0');
            return 1;
        }
        if (c == '.' || c == 'D') {
            if (point) throw new FormulaException(at, "A template for numbers has one point.");
            point = true;
            parts.add(new Part(Sort.POINT, "."));
            return 1;
        }
        if (c == ',' || c == 'G') {
            parts.add(new Part(Sort.COMMA, ","));
            return 1;
        }
        if (rest.startsWith("FM")) tight = true;
        else if (rest.startsWith("MI")) {
            minus = true;
            parts.add(new Part(Sort.MINUS, "-"));
        } else if (rest.startsWith("PR")) brackets = true;
        else if (c == 'S') {
            if (sign != 0) throw new FormulaException(at, "A template for numbers has one S.");
            sign = before == 0 ? -1 : 1;
            return 1;
        } else if (c == '"') {
            int end = text.indexOf('"', i + 1);
            if (end < 0) throw new FormulaException(at, "The words in the template lack their closing double quote.");
            parts.add(new Part(Sort.LITERAL, text.substring(i + 1, end)));
            return end - i + 1;
        } else if (Character.isLetter(c)) {
            throw new FormulaException(
                    at,
                    ("“%s” has no meaning in a template for numbers. There is 9, 0, point, comma, D, G, S, MI, "
                                    + "PR and FM.")
                            .formatted(text.substring(i)));
        } else {
            parts.add(new Part(Sort.LITERAL, text.substring(i, i + Character.charCount(text.codePointAt(i)))));
            return Character.charCount(text.codePointAt(i));
        }
        return 2;
    }

    private void digit(boolean zero) {
        if (zero && !point && firstZero == 0) firstZero = before + 1;
        if (point) after++;
        else before++;
        if (zero) lastZero = before + after;
        parts.add(new Part(zero ? Sort.ZERO : Sort.NINE, ""));
    }

    /**
     * Writes a number.
     *
     * @param whole whether it is exact; of others fifteen digits are
     */
    String write(BigDecimal number, boolean whole) {
        int digits =
                number.abs().setScale(0, RoundingMode.HALF_EVEN).toPlainString().length();
        int decimals = whole ? after : digits >= SURE_DIGITS ? 0 : Math.min(after, SURE_DIGITS - digits);
        return new Writing(
                        number.signum() < 0,
                        number.abs().setScale(decimals, RoundingMode.HALF_EVEN).toPlainString())
                .run();
    }

    /** One number being written. */
    private final class Writing {

        private final StringBuilder out = new StringBuilder();
        private final boolean negative;
        private String integer;
        private String fraction;
        private final boolean fits;
        private int kept;
        private boolean signed;
        private boolean begun;

        Writing(boolean negative, String digits) {
            this.negative = negative;
            int dot = digits.indexOf('.');
            integer = dot < 0 ? digits : digits.substring(0, dot);
            fraction = dot < 0 ? "" : digits.substring(dot + 1);
            fits = integer.length() <= before;
            // What does not fit is told apart from a number.
            if (!fits) {
                integer = "#".repeat(before);
                fraction = "#".repeat(after);
            }
            kept = fraction.length();
            if (tight && fits) while (kept > 0 && fraction.charAt(kept - 1) == '0' && before + kept > lastZero) kept--;
            signed = minus;
        }

        String run() {
            int position = 0;
            int blank = before - integer.length();
            for (Part part : parts) {
                switch (part.sort) {
                    case NINE, ZERO -> {
                        position++;
                        if (position <= before) integerDigit(position, blank);
                        else if (position - before <= kept) out.append(fraction.charAt(position - before - 1));
                        if (position == before + (point ? kept : after)) ended();
                    }
                    case POINT -> {
                        sign();
                        out.append('.');
                        if (after == 0 || kept == 0) ended();
                    }
                    case COMMA -> {
                        if (begun) out.append(',');
                        else if (!tight) out.append(' ');
                    }
                    case MINUS -> {
                        if (negative) out.append('-');
                        else if (!tight) out.append(' ');
                    }
                    default -> out.append(part.text);
                }
            }
            return out.toString();
        }

        private void integerDigit(int position, int blank) {
            boolean zeros = firstZero > 0 && position >= firstZero;
            if (position <= blank && !zeros) {
                if (!tight) out.append(' ');
                return;
            }
            // A nought before the point is left away where the template does not ask for it.
            if (position > blank && firstZero == 0 && fits && integer.equals("0") && after > 0) {
                if (!tight) out.append(' ');
                else if (kept == 0) {
                    sign();
                    out.append('0');
                }
                return;
            }
            sign();
            out.append(position <= blank ? '0' : integer.charAt(position - blank - 1));
            begun = true;
        }

        private void sign() {
            if (signed) return;
            signed = true;
            if (sign < 0) out.append(negative ? '-' : '+');
            else if (sign > 0) return;
            else if (brackets) out.append(negative ? "<" : tight ? "" : " ");
            else if (negative) out.append('-');
            else if (!tight) out.append(' ');
        }

        private boolean ended;

        private void ended() {
            if (ended) return;
            ended = true;
            if (sign > 0) out.append(negative ? '-' : '+');
            else if (brackets && signed) out.append(negative ? ">" : tight ? "" : " ");
        }
    }
}
