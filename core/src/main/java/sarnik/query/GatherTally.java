package sarnik.query;

import java.util.Arrays;
import sarnik.formula.BlockNumbers;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Sums;
import sarnik.table.WholeColumn;

/**
 * Gathers the values of one numeric column by group, for summaries that need all of them at once: percentiles, the
 * commonest
 * value, the spread, and those over distinct values.
 */
final class GatherTally {

    private final Column column;
    private double[] block = new double[BlockNumbers.MOST];
    private final int[] weights;
    private int[] groups = {};
    private double[] values = {};
    private int size;

    /** @param weights how many rows each row stands for; null where each stands for itself */
    GatherTally(Column column, int[] weights) {
        this.weights = weights;
        this.column = column;
    }

    void add(int[] selection, int[] groupOf, int count) {
        grow(size + count);
        if (block.length < count) block = new double[count];
        if (column instanceof DecimalColumn decimals) decimals.read(selection, count, block);
        else ((WholeColumn) column).values().read(selection, count, block);
        for (int i = 0; i < count; i++) {
            int row = selection[i];
            double value = block[i];
            if (Double.isNaN(value)) continue;
            int times = weights == null ? 1 : weights[row];
            if (times > 1) grow(size + times + count - i);
            for (int time = 0; time < times; time++) {
                groups[size] = groupOf[i];
                // 0 and -0 are one value.
                values[size++] = value + 0.0;
            }
        }
    }

    /** How many values were gathered. */
    int size() {
        return size;
    }

    private void grow(int needed) {
        if (needed <= values.length) return;
        int length = Math.max(needed, values.length + (values.length >> 1) + 1024);
        groups = Arrays.copyOf(groups, length);
        values = Arrays.copyOf(values, length);
    }

    /**
     * Adds what another tally of the same column holds.
     *
     * @param groupOf the group here of each group over there, or null where they are the same
     */
    void merge(GatherTally other, int[] groupOf) {
        grow(size + other.size);
        for (int i = 0; i < other.size; i++) {
            groups[size] = groupOf == null ? other.groups[i] : groupOf[other.groups[i]];
            values[size++] = other.values[i];
        }
    }

    /** What is made of the sorted values of one group, of which there is at least one. */
    interface OfSorted {
        double of(double[] sorted);
    }

    /** A result for each of the groups; NaN for those without a value. */
    double[] results(int count, OfSorted summary) {
        int[] starts = new int[count + 1];
        for (int i = 0; i < size; i++) starts[groups[i] + 1]++;
        for (int g = 0; g < count; g++) starts[g + 1] += starts[g];
        double[] byGroup = new double[size];
        int[] at = Arrays.copyOf(starts, count);
        for (int i = 0; i < size; i++) byGroup[at[groups[i]]++] = values[i];
        double[] results = new double[count];
        for (int g = 0; g < count; g++) {
            double[] own = Arrays.copyOfRange(byGroup, starts[g], starts[g + 1]);
            Arrays.sort(own);
            results[g] = own.length == 0 ? Double.NaN : summary.of(own);
        }
        return results;
    }

    /**
     * The value below which a share of the values lies, between two where it falls between them (SQL's
     * PERCENTILE_CONT).
     */
    static double percentile(double[] sorted, double share) {
        double at = share * (sorted.length - 1);
        int low = (int) Math.floor(at);
        int high = Math.min(sorted.length - 1, low + 1);
        return sorted[low] + (at - low) * (sorted[high] - sorted[low]);
    }

    /** The first value that at least a share of the values does not exceed (SQL's PERCENTILE_DISC). */
    static double percentileOfValues(double[] sorted, double share) {
        return sorted[Math.max(0, (int) Math.ceil(share * sorted.length) - 1)];
    }

    /** The commonest value; of equally common ones the smallest. */
    static double mode(double[] sorted) {
        double best = sorted[0];
        int most = 0;
        for (int i = 0; i < sorted.length; ) {
            int j = i;
            while (j < sorted.length && sorted[j] == sorted[i]) j++;
            if (j - i > most) {
                most = j - i;
                best = sorted[i];
            }
            i = j;
        }
        return best;
    }

    /** The variance of a sample (divided by n - 1), about the mean; NaN for one value. */
    static double variance(double[] values) {
        if (values.length < 2) return Double.NaN;
        double mean = Sums.mean(values);
        double squares = 0;
        for (double value : values) squares += (value - mean) * (value - mean);
        return squares / (values.length - 1);
    }

    static double[] distinct(double[] sorted) {
        int kept = 0;
        double[] distinct = new double[sorted.length];
        for (double value : sorted) if (kept == 0 || distinct[kept - 1] != value) distinct[kept++] = value;
        return Arrays.copyOf(distinct, kept);
    }
}
