package sarnik.formula;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import sarnik.table.Rounded;

/** Arithmetic with the errors and roundings of SQL as PostgreSQL has them. */
final class Numbers {

    private Numbers() {}

    /**
     * SQL's WIDTH_BUCKET (ISO/IEC 9075-2, 6.29).
     *
     * @throws RowError when there is no step, or the ends are one
     */
    static long bucket(double value, double from, double to, long steps) {
        if (steps <= 0) throw new RowError("a number of steps that is not above zero");
        if (from == to) throw new RowError("steps between two ends that are one");
        boolean descends = from > to;
        if (descends ? value > from : value < from) return 0;
        if (descends ? value <= to : value >= to) return steps + 1;
        // The quotient may be rounded up to a whole step that is not reached.
        return Math.min(steps - 1, (long) (steps * ((value - from) / (to - from)))) + 1;
    }

    static long whole(String operator, long a, long b) {
        try {
            return switch (operator) {
                case "+" -> Math.addExact(a, b);
                case "-" -> Math.subtractExact(a, b);
                case "*" -> Math.multiplyExact(a, b);
                default -> {
                    if (b == 0) throw new RowError("division by zero");
                    if (b == -1) yield Math.negateExact(a);
                    yield a / b;
                }
            };
        } catch (ArithmeticException large) {
            throw new RowError("a whole number out of range");
        }
    }

    static double decimal(String operator, double a, double b) {
        double result = switch (operator) {
            case "+" -> a + b;
            case "-" -> a - b;
            case "*" -> a * b;
            default -> {
                if (b == 0) throw new RowError("division by zero");
                yield a / b;
            }
        };
        boolean shrinks = operator.equals("*") ? a != 0 && b != 0 : operator.equals("/") && a != 0;
        return inRange(result, shrinks);
    }

    /**
     * @param nonZero whether a result of zero can only mean that it was too small
     */
    static double inRange(double result, boolean nonZero) {
        if (!Double.isFinite(result) || (result == 0 && nonZero)) throw new RowError("a number out of range");
        return result;
    }

    static double power(double base, double exponent) {
        if (base == 0 && exponent < 0) throw new RowError("zero raised to a negative power");
        if (base < 0 && exponent != Rounded.even(exponent))
            throw new RowError("a negative number raised to a fraction");
        return inRange(Math.pow(base, exponent), base != 0);
    }

    /** Rounds to places after the point, halves away from zero, from the fifteen digits that a decimal surely has. */
    static double round(double value, int places) {
        int bounded = Math.max(-400, Math.min(400, places));
        return new BigDecimal(value)
                .round(new MathContext(15, RoundingMode.HALF_EVEN))
                .setScale(bounded, RoundingMode.HALF_UP)
                .doubleValue();
    }

    /** To the nearest whole number, halves to the even one. */
    static long toWhole(double value, long low, long high) {
        double rounded = Rounded.even(value);
        // 2^63 itself is no long though it compares as one.
        if (!(rounded >= low && rounded <= high) || rounded >= 0x1p63)
            throw new RowError("a whole number out of range");
        return (long) rounded;
    }

    /** The shortest digits that mean this number, written as PostgreSQL writes them: 12, 0.5, 1e+20. */
    static String text(double value) {
        if (value == 0) return 1 / value < 0 ? "-0" : "0";
        String digits = null;
        int exponent = 0;
        for (int precision = 1; precision <= 17; precision++) {
            BigDecimal rounded = new BigDecimal(value).round(new MathContext(precision, RoundingMode.HALF_EVEN));
            if (rounded.doubleValue() == value || precision == 17) {
                digits = rounded.abs().unscaledValue().toString();
                exponent = digits.length() - 1 - rounded.scale();
                break;
            }
        }
        digits = digits.replaceFirst("0+$", "");
        String sign = value < 0 ? "-" : "";
        if (exponent < -4 || exponent >= 15) {
            String fraction = digits.length() > 1 ? "." + digits.substring(1) : "";
            return "%s%s%se%s%02d"
                    .formatted(sign, digits.charAt(0), fraction, exponent < 0 ? "-" : "+", Math.abs(exponent));
        }
        return sign + new BigDecimal(new java.math.BigInteger(digits), digits.length() - 1 - exponent).toPlainString();
    }
}
