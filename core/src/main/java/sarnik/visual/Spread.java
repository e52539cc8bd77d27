package sarnik.visual;

/** How far amounts are from being all alike: what is alike everywhere tells nothing. */
public final class Spread {

    private Spread() {}

    /**
     * The standard deviation over the mean, on a scale from 0 for amounts that are alike to 1.
     *
     * @param amounts of which those that are not there (NaN) do not count; fewer than two tell nothing
     */
    public static double of(double... amounts) {
        int count = 0;
        double sum = 0;
        for (double amount : amounts)
            if (!Double.isNaN(amount)) {
                count++;
                sum += Math.abs(amount);
            }
        if (count < 2 || sum == 0) return 0;
        double mean = sum / count;
        double squares = 0;
        for (double amount : amounts)
            if (!Double.isNaN(amount)) squares += (Math.abs(amount) - mean) * (Math.abs(amount) - mean);
        double varied = Math.sqrt(squares / count) / mean;
        return varied / (1 + varied);
    }

    /** How closely two series of numbers go together: the size of their correlation (Pearson), 0 to 1. */
    public static double together(int[] one, int[] other) {
        int count = Math.min(one.length, other.length);
        double a = 0;
        double b = 0;
        for (int i = 0; i < count; i++) {
            a += one[i];
            b += other[i];
        }
        double aa = 0;
        double bb = 0;
        double ab = 0;
        for (int i = 0; i < count; i++) {
            double x = one[i] - a / count;
            double y = other[i] - b / count;
            aa += x * x;
            bb += y * y;
            ab += x * y;
        }
        return aa == 0 || bb == 0 ? 0 : Math.abs(ab) / Math.sqrt(aa * bb);
    }
}
