package sarnik.table;

import java.time.LocalDate;

/** Dates as days since 1970-01-01; {@link Integer#MIN_VALUE} where the value is missing. */
public final class DateColumn extends KnownColumn {

    public static final int MISSING = Integer.MIN_VALUE;

    private final Wholes days;

    /** @param days since 1970-01-01, {@link #MISSING} for missing */
    public DateColumn(int[] days) {
        this(Wholes.of(days), null);
    }

    private DateColumn(Wholes days, int[] weights) {
        super(weights);
        this.days = days;
    }

    @Override
    public DateColumn weighted(int[] weights) {
        return new DateColumn(days, weights);
    }

    public Wholes days() {
        return days;
    }

    /** The day of a row, or {@link #MISSING}. */
    public int day(int row) {
        return days.day(row);
    }

    public Zones zones() {
        return zones(days);
    }

    @Override
    public ColumnType type() {
        return ColumnType.DATE;
    }

    @Override
    public int size() {
        return days.size();
    }

    @Override
    public boolean isMissing(int row) {
        return days.day(row) == MISSING;
    }

    @Override
    public String text(int row) {
        return isMissing(row) ? null : LocalDate.ofEpochDay(days.day(row)).toString();
    }

    @Override
    public long bytes() {
        return days.bytes();
    }
}
