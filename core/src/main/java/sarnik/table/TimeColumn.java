package sarnik.table;

import java.time.LocalDateTime;
import java.time.ZoneOffset;

/**
 * Local date-times, without a zone, as seconds since 1970-01-01T00:00; {@link Long#MIN_VALUE} where the value is
 * missing.
 */
public final class TimeColumn extends KnownColumn {

    public static final long MISSING = Wholes.MISSING;

    private final Wholes seconds;

    /** @param seconds since 1970-01-01T00:00, {@link #MISSING} for missing */
    public TimeColumn(long[] seconds) {
        this(Wholes.of(seconds), null);
    }

    private TimeColumn(Wholes seconds, int[] weights) {
        super(weights);
        this.seconds = seconds;
    }

    @Override
    public TimeColumn weighted(int[] weights) {
        return new TimeColumn(seconds, weights);
    }

    public Wholes seconds() {
        return seconds;
    }

    /** The second of a row, or {@link #MISSING}. */
    public long second(int row) {
        return seconds.get(row);
    }

    public Zones zones() {
        return zones(seconds);
    }

    @Override
    public ColumnType type() {
        return ColumnType.TIME;
    }

    @Override
    public int size() {
        return seconds.size();
    }

    @Override
    public boolean isMissing(int row) {
        return seconds.get(row) == MISSING;
    }

    @Override
    public String text(int row) {
        return isMissing(row)
                ? null
                : LocalDateTime.ofEpochSecond(seconds.get(row), 0, ZoneOffset.UTC)
                        .toString();
    }

    @Override
    public long bytes() {
        return seconds.bytes();
    }
}
