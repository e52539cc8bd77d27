package sarnik.query;

import java.util.Arrays;
import sarnik.formula.BlockNumbers;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.SummedColumn;
import sarnik.table.WholeColumn;
import sarnik.table.Wholes;

/**
 * Running sums of one numeric column, by group: all that sum, average, count, minimum and maximum need. Decimals with
 * few digits are added up in whole steps (cents), so that their sums are exact and the same in whatever order they are
 * added.
 */
final class Tally {

    /** Null where numbers are worked out on the way. */
    private final Column column;

    private final DecimalColumn decimals;
    private final Wholes wholes;
    private final SummedColumn summed;
    /** How many steps are one; 0 where decimals are added up as they are. */
    private final double unit;
    /** How many rows each row stands for; null where each stands for itself. */
    private final int[] weights;
    /** What is worked out on the way; null where numbers are held. */
    private final BlockNumbers.Reading reading;

    private final double[] block;
    private final boolean extremes;
    /** How many numbers of {@link #sums} belong to a group. */
    private final int width;
    /**
     * The sum of each group and, beside it, the number of its values: one line of the cache serves both. Where every
     * row has a value, the number of rows is that of values and is not counted again.
     */
    private double[] sums;

    private double[] lows = {};
    private double[] highs = {};

    /**
     * @param extremes whether minimum and maximum are wanted too
     */
    Tally(Column column, int groups, boolean extremes) {
        this(column, null, column.weights(), groups, extremes);
    }

    /**
     * @param numbers work out what is summed up
     * @param weights how many rows each row stands for; null where each stands for itself
     * @param extremes whether minimum and maximum are wanted too
     */
    Tally(BlockNumbers numbers, int[] weights, int groups, boolean extremes) {
        this(null, numbers, weights, groups, extremes);
    }

    /** Whether every row has a value. */
    boolean isOfAll() {
        return width == 1;
    }

    /** How many rows have a value, where not all have. */
    long having() {
        double having = 0;
        for (int g = 1; g < sums.length; g += 2) having += sums[g];
        return (long) having;
    }

    /** Sums for rows that follow each other; null where they are added up as all are. */
    PackedSums packed(Codes keys, int codes) {
        return column == null || !isPlain() ? null : PackedSums.of(keys, column, unit, codes);
    }

    /** Adds what was summed up for each group. */
    void add(PackedSums packed) {
        for (int g = 0; g < sums.length; g++) sums[g] += packed.sum(g);
    }

    private Tally(Column column, BlockNumbers numbers, int[] weights, int groups, boolean extremes) {
        this.column = column;
        this.decimals = column instanceof DecimalColumn d ? d : null;
        this.wholes = column instanceof WholeColumn w ? w.values() : null;
        this.summed = column instanceof SummedColumn s ? s : null;
        this.unit = summed != null ? summed.unit() : decimals == null ? 1 : ExactSums.unit(column);
        this.weights = weights;
        this.reading = numbers == null ? null : numbers.open();
        this.block = new double[BlockNumbers.MOST];
        this.extremes = extremes;
        width = column != null && column.isComplete() ? 1 : 2;
        sums = new double[width * groups];
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
        int old = sums.length / width;
        if (groups <= old) return;
        int size = Math.max(groups, old * 2);
        sums = Arrays.copyOf(sums, width * size);
        if (extremes) {
            lows = Arrays.copyOf(lows, size);
            highs = Arrays.copyOf(highs, size);
            Arrays.fill(lows, old, size, Double.POSITIVE_INFINITY);
            Arrays.fill(highs, old, size, Double.NEGATIVE_INFINITY);
        }
    }

    void add(int[] selection, int[] groups, int count) {
        if (weights != null && reading == null) {
            addWeighted(selection, groups, count);
            return;
        }
        fill(selection, count);
        double[] to = sums;
        if (isPlain()) for (int i = 0; i < count; i++) to[groups[i]] += block[i];
        else addWhatIsThere(selection, groups, count);
    }

    /** Reads the numbers of a block: in whole steps where there is a unit. */
    private void fill(int[] selection, int count) {
        if (reading != null) reading.fill(selection, count, block);
        else if (decimals == null) wholes.read(selection, count, block);
        else if (unit == 0) decimals.read(selection, count, block);
        else decimals.readSteps(selection, count, block);
    }

    /** Adds rows that are all of one group. */
    void addToOne(int[] selection, int count) {
        fill(selection, count);
        double sum = sums[0];
        for (int i = 0; i < count; i++) sum += block[i];
        sums[0] = sum;
    }

    /** Whether {@link #addToOne} may be used: every row has a value, and nothing but their sum is wanted. */
    boolean isPlain() {
        return width == 1 && !extremes && weights == null;
    }

    private void addWhatIsThere(int[] selection, int[] groups, int count) {
        double[] to = sums;
        for (int i = 0; i < count; i++) {
            double value = block[i];
            if (Double.isNaN(value)) continue;
            int group = groups[i];
            int times = weights == null ? 1 : weights[selection[i]];
            to[width * group] += times == 1 ? value : value * times;
            if (width == 2) to[2 * group + 1] += times;
            if (!extremes) continue;
            if (value < lows[group]) lows[group] = value;
            if (value > highs[group]) highs[group] = value;
        }
    }

    private void addWeighted(int[] selection, int[] groups, int count) {
        for (int i = 0; i < count; i++) {
            int row = selection[i];
            int filled = summed == null ? weights[row] : summed.filled(row);
            double value = summed == null ? value(row) : filled == 0 ? Double.NaN : summed.sums()[row];
            if (Double.isNaN(value)) continue;
            int group = groups[i];
            double steps = summed != null || decimals == null || unit == 0 ? value : DecimalColumn.whole(value * unit);
            sums[width * group] += summed != null ? steps : filled * steps;
            if (width == 2) sums[2 * group + 1] += filled;
            if (!extremes) continue;
            lows[group] = Math.min(lows[group], summed == null ? steps : summed.lows()[row]);
            highs[group] = Math.max(highs[group], summed == null ? steps : summed.highs()[row]);
        }
    }

    /** NaN for missing. */
    private double value(int row) {
        if (decimals != null) return decimals.get(row);
        long whole = wholes.get(row);
        return whole == Wholes.MISSING ? Double.NaN : whole;
    }

    /**
     * Adds what another tally of the same column holds.
     *
     * @param to the groups here of those groups over there
     */
    void merge(int[] to, Tally other, int[] from) {
        double[] others = other.sums;
        if (width == 1) for (int i = 0; i < to.length; i++) sums[to[i]] += others[from[i]];
        else
            for (int i = 0; i < to.length; i++) {
                sums[2 * to[i]] += others[2 * from[i]];
                sums[2 * to[i] + 1] += others[2 * from[i] + 1];
            }
        if (!extremes) return;
        for (int i = 0; i < to.length; i++) {
            lows[to[i]] = Math.min(lows[to[i]], other.lows[from[i]]);
            highs[to[i]] = Math.max(highs[to[i]], other.highs[from[i]]);
        }
    }

    /**
     * @param rows number of rows of the group
     * @return NaN for missing
     */
    double result(Summary summary, int group, long rows) {
        double filled = width == 1 ? rows : sums[2 * group + 1];
        if (summary == Summary.COUNT) return filled;
        if (filled == 0) return Double.NaN;
        return switch (summary) {
            case SUM -> unit == 0 ? sums[width * group] : sums[width * group] / unit;
            case AVERAGE -> sums[width * group] / (unit == 0 ? filled : unit * filled);
            case MINIMUM -> ofSteps(lows[group]);
            case MAXIMUM -> ofSteps(highs[group]);
            default -> throw new IllegalStateException(summary + " is not tallied");
        };
    }

    /** What was added up in steps; the smallest and largest of what was put together are known as they are. */
    private double ofSteps(double number) {
        return unit == 0 || summed != null ? number : number / unit;
    }
}
