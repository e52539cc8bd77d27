package sarnik.table;

/**
 * Decimal numbers (IEEE 754 binary64, always finite); NaN where the value is missing. Held as they are, or as whole steps
 * (cents) that give each value back bit for bit.
 */
public final class DecimalColumn extends KnownColumn {

    private static final double[] TENS = {1, 10, 100, 1000, 10_000};
    private static final double UNKNOWN = -1;

    /**
     * Added and taken away again, it rounds to the nearest whole number: there is no room for more digits beside it.
     */
    private static final double ROUND = 0x1.8p52;

    private static final double MOST_ROUNDED = 0x1p51;

    /** Null where the steps are held. */
    private final double[] values;

    /** Null where the values are held. */
    private final Wholes steps;

    private volatile double unit;

    public DecimalColumn(double[] values) {
        this(values, null, UNKNOWN, null);
    }

    /** @param unit see {@link #unit} */
    public DecimalColumn(double[] values, double unit) {
        this(values, null, unit, null);
    }

    private DecimalColumn(double[] values, Wholes steps, double unit, int[] weights) {
        super(weights);
        this.values = values;
        this.steps = steps;
        this.unit = unit;
    }

    /**
     * The same values, held as whole steps where that is exact and takes less room: cents in two or four bytes. For
     * columns that are kept for long; it takes a look at all values.
     */
    public DecimalColumn narrow() {
        double of = unit();
        if (of == 0 || steps != null) return this;
        long[] whole = new long[values.length];
        for (int row = 0; row < whole.length; row++)
            whole[row] = Double.isNaN(values[row]) ? Wholes.MISSING : (long) whole(values[row] * of);
        Wholes narrow = Wholes.of(whole);
        return narrow instanceof Wholes.Longs ? this : new DecimalColumn(null, narrow, of, weights());
    }

    @Override
    public DecimalColumn weighted(int[] weights) {
        return new DecimalColumn(values, steps, unit, weights);
    }

    /** The whole steps, see {@link #unit}; null where the values are held as they are. */
    public Wholes steps() {
        return steps;
    }

    /** Those of its steps. */
    public Zones zones() {
        return zones(steps);
    }

    /** The value of a row; NaN for missing. */
    public double get(int row) {
        return steps == null ? values[row] : value(steps.get(row));
    }

    private double value(long step) {
        return step == Wholes.MISSING ? Double.NaN : step / unit;
    }

    /** All values in an array of their own. */
    public double[] all() {
        if (steps == null) return values.clone();
        double[] all = new double[size()];
        for (int row = 0; row < all.length; row++) all[row] = value(steps.get(row));
        return all;
    }

    /**
     * Reads the values of some rows.
     *
     * @param into gets one for each of the first {@code count} rows, NaN for missing
     */
    public void read(int[] rows, int count, double[] into) {
        if (steps == null) {
            for (int i = 0; i < count; i++) into[i] = values[rows[i]];
            return;
        }
        steps.read(rows, count, into);
        for (int i = 0; i < count; i++) into[i] /= unit;
    }

    /** The same in whole steps of a column that has a {@link #unit}. */
    public void readSteps(int[] rows, int count, double[] into) {
        if (steps != null) steps.read(rows, count, into);
        else for (int i = 0; i < count; i++) into[i] = whole(values[rows[i]] * unit);
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
        return steps == null ? values.length : steps.size();
    }

    @Override
    public boolean isMissing(int row) {
        return steps == null ? Double.isNaN(values[row]) : steps.get(row) == Wholes.MISSING;
    }

    @Override
    public String text(int row) {
        return isMissing(row) ? null : Double.toString(get(row));
    }

    @Override
    public long bytes() {
        return steps == null ? 8L * values.length : steps.bytes();
    }
}
