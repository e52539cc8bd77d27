package sarnik.query;

import static sarnik.language.Language.phrase;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneId;
import java.time.zone.ZoneOffsetTransition;
import java.time.zone.ZoneRules;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntUnaryOperator;
import sarnik.table.CodedColumn;
import sarnik.table.TimeColumn;
import sarnik.table.Wholes;

/** What the clock of a time zone shows at moments of UTC within a span. */
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
            throw new QueryException(phrase("There is no time zone “{0}”; one is called Europe/Madrid", zone));
        }
    }

    /**
     * @param seconds moments of UTC since 1970-01-01, {@link TimeColumn#MISSING} for none
     * @return what the clock shows, in the same way
     */
    long[] local(Wholes seconds) {
        return shifted(seconds, List.of(this), row -> 0);
    }

    /**
     * The same with a zone for each row.
     *
     * @param zones its name; a row without one is missing
     */
    static long[] local(Wholes seconds, CodedColumn zones) {
        return shifted(seconds, zones.dictionary().stream().map(ZoneShift::of).toList(), zones.codes()::get);
    }

    private static long[] shifted(Wholes utc, List<ZoneShift> zones, IntUnaryOperator zone) {
        long[] seconds = utc.all();
        var range = Arrays.stream(seconds).filter(s -> s != TimeColumn.MISSING).summaryStatistics();
        if (range.getCount() == 0) return seconds;
        List<Offsets> offsets = zones.stream()
                .map(z -> z.between(range.getMin(), range.getMax()))
                .toList();
        long[] local = new long[seconds.length];
        for (int row = 0; row < local.length; row++) {
            int of = zone.applyAsInt(row);
            local[row] = of < 0 || seconds[row] == TimeColumn.MISSING
                    ? TimeColumn.MISSING
                    : seconds[row] + offsets.get(of).at(seconds[row]);
        }
        return local;
    }

    /** The changes of the clock within a span, so that a row needs a search among a few numbers only. */
    private Offsets between(long first, long last) {
        List<Long> changes = new ArrayList<>();
        List<Integer> offsets = new ArrayList<>();
        Instant at = Instant.ofEpochSecond(first);
        offsets.add(rules.getOffset(at).getTotalSeconds());
        for (ZoneOffsetTransition next = rules.nextTransition(at);
                next != null && next.toEpochSecond() <= last;
                next = rules.nextTransition(next.getInstant())) {
            changes.add(next.toEpochSecond());
            offsets.add(next.getOffsetAfter().getTotalSeconds());
        }
        return new Offsets(
                changes.stream().mapToLong(c -> c).toArray(),
                offsets.stream().mapToInt(o -> o).toArray());
    }

    /**
     * @param from when the clock changes
     * @param offset seconds from UTC before the first change, and after each
     */
    private record Offsets(long[] from, int[] offset) {
        int at(long second) {
            int found = Arrays.binarySearch(from, second);
            return offset[found >= 0 ? found + 1 : -found - 1];
        }
    }
}
