package sarnik.query;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneId;
import java.time.zone.ZoneOffsetTransition;
import java.time.zone.ZoneRules;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import sarnik.table.TimeColumn;

/** What the clock of a time zone shows at moments of UTC. */
final class ZoneShift {

    private final ZoneRules rules;

    private ZoneShift(ZoneRules rules) {
        this.rules = rules;
    }

    /** @throws QueryException when there is no such zone */
    static ZoneShift of(String zone) {
        try {
            return new ZoneShift(ZoneId.of(zone).getRules());
        } catch (DateTimeException unknown) {
            throw new QueryException("There is no time zone “" + zone + "”; one is called Europe/Madrid");
        }
    }

    /**
     * @param seconds moments of UTC since 1970-01-01, {@link TimeColumn#MISSING} for none
     * @return what the clock shows, in the same way
     */
    long[] local(long[] seconds) {
        var range = Arrays.stream(seconds).filter(s -> s != TimeColumn.MISSING).summaryStatistics();
        if (range.getCount() == 0) return seconds;
        // The changes of the clock within the span, so that a row needs a search among a few numbers only.
        List<Long> changes = new ArrayList<>();
        List<Integer> offsets = new ArrayList<>();
        Instant at = Instant.ofEpochSecond(range.getMin());
        offsets.add(rules.getOffset(at).getTotalSeconds());
        for (ZoneOffsetTransition next = rules.nextTransition(at);
                next != null && next.toEpochSecond() <= range.getMax();
                next = rules.nextTransition(next.getInstant())) {
            changes.add(next.toEpochSecond());
            offsets.add(next.getOffsetAfter().getTotalSeconds());
        }
        long[] from = changes.stream().mapToLong(c -> c).toArray();
        int[] offset = offsets.stream().mapToInt(o -> o).toArray();
        long[] local = new long[seconds.length];
        for (int row = 0; row < local.length; row++) {
            int found = Arrays.binarySearch(from, seconds[row]);
            local[row] = seconds[row] == TimeColumn.MISSING
                    ? TimeColumn.MISSING
                    : seconds[row] + offset[found >= 0 ? found + 1 : -found - 1];
        }
        return local;
    }
}
