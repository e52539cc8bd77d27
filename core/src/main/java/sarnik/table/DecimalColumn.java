package sarnik.table;

/** Decimal numbers (IEEE 754 binary64, always finite); NaN where the value is missing. */
public final class DecimalColumn extends KnownColumn {

    private final double[] values;

    public DecimalColumn(double[] values) {
        this.values = values;
    }

    public double[] values() {
        return values;
    }

    @Override
    public ColumnType type() {
        return ColumnType.DECIMAL;
    }

    @Override
    public int size() {
        return values.length;
    }

    @Override
    public boolean isMissing(int row) {
        return Double.isNaN(values[row]);
    }

    @Override
    public String text(int row) {
        return isMissing(row) ? null : Double.toString(values[row]);
    }

    @Override
    public long bytes() {
        return 8L * values.length;
    }
}
