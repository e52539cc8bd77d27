package sarnik.table;

/**
 * Rounding that is the same on the server and in the compiled core, whose library rounds halves up and logarithms off.
 */
public final class Rounded {

    /** From here on every double is whole. */
    private static final double WHOLE = 0x1p52;

    private Rounded() {}

    /** The nearest whole number, of two as near the even one, as {@link Math#rint} has it. */
    public static double even(double value) {
        if (!(Math.abs(value) < WHOLE)) return value;
        double below = Math.floor(value);
        double over = value - below;
        if (over < 0.5) return Math.copySign(below, value);
        if (over > 0.5) return Math.copySign(below + 1, value);
        return Math.copySign(below % 2 == 0 ? below : below + 1, value);
    }

    /** The nearest whole number, of two as near the greater one, as {@link Math#round} has it. */
    public static long up(double value) {
        double below = Math.floor(value);
        return (long) (value - below >= 0.5 ? below + 1 : below);
    }

    /**
     * How often ten goes into a number by itself: the greatest whole exponent whose power of ten is not above it.
     *
     * @param value above 0, finite
     */
    public static int tens(double value) {
        int tens = (int) Math.floor(Math.log10(value));
        while (power(tens) > value) tens--;
        while (power(tens + 1) <= value) tens++;
        return tens;
    }

    /** Ten to a whole exponent, as it is written. */
    public static double power(int exponent) {
        return Double.parseDouble("1e" + exponent);
    }
}
