package sarnik.table;

/** Whole numbers; {@link Long#MIN_VALUE} where the value is missing. */
public final class WholeColumn extends KnownColumn {

    private final long[] values;

    public WholeColumn(long[] values) {
        this(values, null);
    }

    private WholeColumn(long[] values, int[] weights) {
        super(weights);
        this.values = values;
    }

    @Override
    public WholeColumn weighted(int[] weights) {
        return new WholeColumn(values, weights);
    }

    public long[] values() {
        return values;
    }

    public static final long MISSING = Long.MIN_VALUE;

    @Override
    public ColumnType type() {
        return ColumnType.WHOLE;
    }

    @Override
    public int size() {
        return values.length;
    }

    @Override
    public boolean isMissing(int row) {
        return values[row] == MISSING;
    }

    @Override
    public String text(int row) {
        return isMissing(row) ? null : Long.toString(values[row]);
    }

    @Override
    public long bytes() {
        return 8L * values.length;
    }
}
