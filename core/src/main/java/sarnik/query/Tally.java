package sarnik.query;

import java.util.Arrays;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.WholeColumn;

/**
 * Running sums of one numeric column, by group: all that sum, average, count, minimum and maximum need.
 */
final class Tally {

    private final double[] decimals;
    private final long[] wholes;
    private final boolean extremes;
    double[] sums;
    long[] filled;
    double[] lows = {};
    double[] highs = {};

    /**
     * @param extremes whether minimum and maximum are wanted too
     */
    Tally(Column column, int groups, boolean extremes) {
        this.decimals = column instanceof DecimalColumn d ? d.values() : null;
        this.wholes = column instanceof WholeColumn w ? w.values() : null;
        this.extremes = extremes;
        sums = new double[groups];
        filled = new long[groups];
        if (extremes) {
            lows = filledWith(groups, Double.POSITIVE_INFINITY);
            highs = filledWith(groups, Double.NEGATIVE_INFINITY);
        }
    }

    private static double[] filledWith(int size, double value) {
        double[] array = new double[size];
        Arrays.fill(array, value);
        return array;
    }

    /** Makes room for this many groups. */
    void grow(int groups) {
        int old = sums.length;
        if (groups <= old) return;
        int size = Math.max(groups, old * 2);
        sums = Arrays.copyOf(sums, size);
        filled = Arrays.copyOf(filled, size);
        if (extremes) {
            lows = Arrays.copyOf(lows, size);
            highs = Arrays.copyOf(highs, size);
            Arrays.fill(lows, old, size, Double.POSITIVE_INFINITY);
            Arrays.fill(highs, old, size, Double.NEGATIVE_INFINITY);
        }
    }

    void add(int[] selection, int[] groups, int count) {
        if (decimals != null) {
            for (int i = 0; i < count; i++) {
                double value = decimals[selection[i]];
                if (value == value) take(groups[i], value);
            }
        } else {
            for (int i = 0; i < count; i++) {
                long value = wholes[selection[i]];
                if (value != WholeColumn.MISSING) take(groups[i], value);
            }
        }
    }

    private void take(int group, double value) {
        sums[group] += value;
        filled[group]++;
        if (extremes) {
            if (value < lows[group]) lows[group] = value;
            if (value > highs[group]) highs[group] = value;
        }
    }

    /** Adds what another tally of the same column holds in its group {@code from}. */
    void merge(int group, Tally other, int from) {
        sums[group] += other.sums[from];
        filled[group] += other.filled[from];
        if (extremes) {
            lows[group] = Math.min(lows[group], other.lows[from]);
            highs[group] = Math.max(highs[group], other.highs[from]);
        }
    }

    double result(Summary summary, int group) {
        if (summary == Summary.COUNT) return filled[group];
        if (filled[group] == 0) return Double.NaN;
        return switch (summary) {
            case SUM -> sums[group];
            case AVERAGE -> sums[group] / filled[group];
            case MINIMUM -> lows[group];
            case MAXIMUM -> highs[group];
            default -> throw new IllegalStateException(summary + " is not tallied");
        };
    }
}
