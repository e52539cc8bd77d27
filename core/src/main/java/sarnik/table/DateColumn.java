package sarnik.table;

import java.time.LocalDate;

/** Dates as days since 1970-01-01; {@link Integer#MIN_VALUE} where the value is missing. */
public final class DateColumn extends KnownColumn {

    private final int[] days;

    public DateColumn(int[] days) {
        this(days, null);
    }

    private DateColumn(int[] days, int[] weights) {
        super(weights);
        this.days = days;
    }

    @Override
    public DateColumn weighted(int[] weights) {
        return new DateColumn(days, weights);
    }

    public int[] days() {
        return days;
    }

    public static final int MISSING = Integer.MIN_VALUE;

    @Override
    public ColumnType type() {
        return ColumnType.DATE;
    }

    @Override
    public int size() {
        return days.length;
    }

    @Override
    public boolean isMissing(int row) {
        return days[row] == MISSING;
    }

    @Override
    public String text(int row) {
        return isMissing(row) ? null : LocalDate.ofEpochDay(days[row]).toString();
    }

    @Override
    public long bytes() {
        return 4L * days.length;
    }
}
