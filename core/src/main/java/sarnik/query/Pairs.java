package sarnik.query;

/**
 * The sums of two columns about their means (ISO/IEC 9075-2, 10.9: the binary set functions).
 *
 * @param count how many pairs there are
 * @param x the mean of what the other depends on
 * @param y the mean of what depends
 * @param xx the squares of x about its mean
 * @param yy those of y
 * @param xy their products
 */
record Pairs(int count, double x, double y, double xx, double yy, double xy) {

    /**
     * @param rows numbers of the rows that take part
     * @param columns what depends, then what it depends on
     */
    static Pairs of(double[] rows, double[][] columns) {
        double x = 0;
        double y = 0;
        for (double row : rows) {
            y += columns[0][(int) row];
            x += columns[1][(int) row];
        }
        x /= rows.length;
        y /= rows.length;
        double xx = 0;
        double yy = 0;
        double xy = 0;
        for (double row : rows) {
            double dy = columns[0][(int) row] - y;
            double dx = columns[1][(int) row] - x;
            xx += dx * dx;
            yy += dy * dy;
            xy += dx * dy;
        }
        return new Pairs(rows.length, x, y, xx, yy, xy);
    }

    /** @return NaN where there is none: of one pair, or where x does not vary */
    double result(String function) {
        if (xx == 0) return Double.NaN;
        return switch (function) {
            case "CORR" -> yy == 0 ? Double.NaN : xy / Math.sqrt(xx * yy);
            case "REGR_SLOPE" -> xy / xx;
            case "REGR_INTERCEPT" -> y - x * (xy / xx);
            case "REGR_R2" -> yy == 0 ? 1 : xy * xy / (xx * yy);
            default -> throw new IllegalArgumentException(function);
        };
    }
}
