package sarnik.table;

/** Decimal numbers (IEEE 754 binary64, always finite); NaN where the value is missing. */
public final class DecimalColumn extends KnownColumn {

    private static final double[] TENS = {1, 10, 100, 1000, 10_000};
    private static final double UNKNOWN = -1;

    /**
     * Added and taken away again, it rounds to the nearest whole number: there is no room for more digits beside it.
     */
    private static final double ROUND = 0x1.8p52;

    private static final double MOST_ROUNDED = 0x1p51;

    private final double[] values;
    private volatile double unit;

    public DecimalColumn(double[] values) {
        this(values, UNKNOWN, null);
    }

    /** @param unit see {@link #unit} */
    public DecimalColumn(double[] values, double unit) {
        this(values, unit, null);
    }

    private DecimalColumn(double[] values, double unit, int[] weights) {
        super(weights);
        this.values = values;
        this.unit = unit;
    }

    @Override
    public DecimalColumn weighted(int[] weights) {
        return new DecimalColumn(values, unit, weights);
    }

    public double[] values() {
        return values;
    }

    /**
     * How many of the smallest written step are one: 100 where all values have two digits behind the point at most. A
     * whole number of steps divided by it gives each value back bit for bit. Looked for when it is first asked for.
     *
     * @return 1, 10 and so on to 10,000; 0 where there is none
     */
    public double unit() {
        double known = unit;
        if (known == UNKNOWN) {
            known = 0;
            for (int tens = TENS.length - 1; tens >= 0 && fits(TENS[tens]); tens--) known = TENS[tens];
            unit = known;
        }
        return known;
    }

    /** What fits a coarser unit fits each finer one too. */
    private boolean fits(double of) {
        for (double value : values) {
            if (Double.isNaN(value)) continue;
            double steps = value * of;
            if (Math.abs(steps) >= MOST_ROUNDED || whole(steps) / of != value || value == 0 && 1 / value < 0)
                return false;
        }
        return true;
    }

    /**
     * The nearest whole number, of two the even one.
     *
     * @param number nearer to 0 than 2 to the 51st
     */
    public static double whole(double number) {
        return number + ROUND - ROUND;
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
