package sarnik.scale;

import java.util.stream.IntStream;
import sarnik.table.Sums;

/**
 * The straight line that lies nearest to points, by the squares of the distances upwards.
 *
 * @param slope upwards by one along; NaN where all points stand above each other
 * @param intercept the height at zero
 * @param r the correlation of the two (Pearson 1895), -1 to 1; NaN where one of them does not vary
 * @param points how many points took part
 */
public record LeastSquares(double slope, double intercept, double r, int points) {

    /**
     * @param x along; a point with a missing coordinate takes no part
     * @param y upwards
     */
    public static LeastSquares of(double[] x, double[] y) {
        int[] known = IntStream.range(0, x.length)
                .filter(i -> Double.isFinite(x[i]) && Double.isFinite(y[i]))
                .toArray();
        double meanX = Sums.mean(IntStream.of(known).mapToDouble(i -> x[i]).toArray());
        double meanY = Sums.mean(IntStream.of(known).mapToDouble(i -> y[i]).toArray());
        double xx = 0;
        double xy = 0;
        double yy = 0;
        for (int i : known) {
            xx += (x[i] - meanX) * (x[i] - meanX);
            xy += (x[i] - meanX) * (y[i] - meanY);
            yy += (y[i] - meanY) * (y[i] - meanY);
        }
        double slope = xx == 0 ? Double.NaN : xy / xx;
        double r = xx == 0 || yy == 0 ? Double.NaN : xy / Math.sqrt(xx * yy);
        return new LeastSquares(slope, meanY - slope * meanX, r, known.length);
    }

    /** The height of the line. */
    public double at(double x) {
        return intercept + slope * x;
    }
}
