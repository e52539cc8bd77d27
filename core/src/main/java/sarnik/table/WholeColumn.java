package sarnik.table;

/** Whole numbers; {@link Long#MIN_VALUE} where the value is missing. */
public final class WholeColumn extends KnownColumn {

    public static final long MISSING = Wholes.MISSING;

    private final Wholes values;

    /** @param values {@link #MISSING} for missing */
    public WholeColumn(long[] values) {
        this(Wholes.of(values), null);
    }

    private WholeColumn(Wholes values, int[] weights) {
        super(weights);
        this.values = values;
    }

    @Override
    public WholeColumn weighted(int[] weights) {
        return new WholeColumn(values, weights);
    }

    public Wholes values() {
        return values;
    }

    /** The value of a row, or {@link #MISSING}. */
    public long get(int row) {
        return values.get(row);
    }

    public Zones zones() {
        return zones(values);
    }

    @Override
    public ColumnType type() {
        return ColumnType.WHOLE;
    }

    @Override
    public int size() {
        return values.size();
    }

    @Override
    public boolean isMissing(int row) {
        return values.get(row) == MISSING;
    }

    @Override
    public String text(int row) {
        return isMissing(row) ? null : Long.toString(values.get(row));
    }

    @Override
    public long bytes() {
        return values.bytes();
    }
}
