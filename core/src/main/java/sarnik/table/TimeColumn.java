package sarnik.table;

import java.time.LocalDateTime;
import java.time.ZoneOffset;

/**
 * Local date-times, without a zone, as seconds since 1970-01-01T00:00; {@link Long#MIN_VALUE} where the value is
 * missing.
 */
public final class TimeColumn extends KnownColumn {

    private final long[] seconds;

    public TimeColumn(long[] seconds) {
        this(seconds, null);
    }

    private TimeColumn(long[] seconds, int[] weights) {
        super(weights);
        this.seconds = seconds;
    }

    @Override
    public TimeColumn weighted(int[] weights) {
        return new TimeColumn(seconds, weights);
    }

    public long[] seconds() {
        return seconds;
    }

    public static final long MISSING = Long.MIN_VALUE;

    @Override
    public ColumnType type() {
        return ColumnType.TIME;
    }

    @Override
    public int size() {
        return seconds.length;
    }

    @Override
    public boolean isMissing(int row) {
        return seconds[row] == MISSING;
    }

    @Override
    public String text(int row) {
        return isMissing(row)
                ? null
                : LocalDateTime.ofEpochSecond(seconds[row], 0, ZoneOffset.UTC).toString();
    }

    @Override
    public long bytes() {
        return 8L * seconds.length;
    }
}
