package sarnik.table;

import java.util.Optional;

/**
 * What the numbers of a column come to where rows were put together: their sum, how many there are, the smallest and
 * the largest. The numbers themselves are not known any more.
 */
public final class SummedColumn extends KnownColumn {

    private final ColumnType type;
    private final double[] sums;
    private final double unit;
    private final int[] filled;
    private final double[] lows;
    private final double[] highs;

    /**
     * @param type of the numbers: whole or decimal
     * @param sums in whole steps, so that they add up exactly
     * @param unit so many steps are one, see {@link DecimalColumn#unit}
     * @param filled how many of the rows that a row stands for have a value; null where all have
     * @param lows the smallest value, NaN where there is none; null where nobody asks for it
     * @param highs the largest, NaN where there is none; null where nobody asks for it
     * @param weights how many rows each row stands for
     */
    public SummedColumn(
            ColumnType type, double[] sums, double unit, int[] filled, double[] lows, double[] highs, int[] weights) {
        super(weights);
        this.type = type;
        this.sums = sums;
        this.unit = unit;
        this.filled = filled;
        this.lows = lows;
        this.highs = highs;
    }

    @Override
    public SummedColumn weighted(int[] weights) {
        return new SummedColumn(type, sums, unit, filled, lows, highs, weights);
    }

    /** In whole steps, see {@link #unit}. */
    public double[] sums() {
        return sums;
    }

    public double unit() {
        return unit;
    }

    /** How many of the rows that a row stands for have a value. */
    public int filled(int row) {
        return filled == null ? weight(row) : filled[row];
    }

    /** Null where all rows have a value. */
    public int[] filled() {
        return filled;
    }

    /** Null where nobody asks for it. */
    public double[] lows() {
        return lows;
    }

    /** Null where nobody asks for it. */
    public double[] highs() {
        return highs;
    }

    @Override
    public ColumnType type() {
        return type;
    }

    @Override
    public int size() {
        return sums.length;
    }

    @Override
    public boolean isMissing(int row) {
        return filled(row) == 0;
    }

    @Override
    public boolean isComplete() {
        return filled == null;
    }

    @Override
    public Optional<Extremes> extremes() {
        throw new IllegalStateException("Of these numbers only the sums are known");
    }

    @Override
    public String text(int row) {
        throw new IllegalStateException("Of these numbers only the sums are known");
    }

    @Override
    public long bytes() {
        return 8L * sums.length * (lows == null ? 1 : 3) + (filled == null ? 0 : 4L * filled.length);
    }
}
