package sarnik.query;

import java.util.Arrays;
import java.util.Optional;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Extremes;
import sarnik.table.WholeColumn;
import sarnik.table.Wholes;

/**
 * The sum of a column and the number of rows of each group, both in one number of 64 bits, so that a row costs one look
 * at memory. For up to {@link #ROWS} rows that follow each other, and for groups that are the codes of a column.
 */
final class PackedSums {

    /** The sum takes the lower bits, the number of rows those above. */
    private static final int SUM_BITS = 44;

    private static final long ROW = 1L << SUM_BITS;

    /** More rows are not added before {@link #clear}: their number would not fit the bits above the sum. */
    static final int ROWS = 1 << 18;

    /** So many numbers below this fit the bits of a sum. */
    private static final long MOST = (1L << SUM_BITS - 1) / ROWS;

    private final Codes keys;
    private final Wholes values;
    /** By code; rows without one are at 0, the others one behind. */
    private final long[] packed;

    private PackedSums(Codes keys, Wholes values, int codes) {
        this.keys = keys;
        this.values = values;
        packed = new long[codes];
    }

    /**
     * @param column every row of which has a number
     * @param unit how many steps are one, of decimals; 0 where they are not added up in steps
     * @param codes how many codes there are, that of rows without one included
     * @return null where its numbers are too large, or not held in steps
     */
    static PackedSums of(Codes keys, Column column, double unit, int codes) {
        Wholes values = column instanceof WholeColumn whole
                ? whole.values()
                : column instanceof DecimalColumn decimals && unit > 0 ? decimals.steps() : null;
        if (values == null || values instanceof Wholes.Longs) return null;
        Optional<Extremes> ends = column.extremes();
        if (ends.isEmpty()
                || values.get(ends.get().lowest()) <= -MOST
                || values.get(ends.get().highest()) >= MOST) return null;
        return new PackedSums(keys, values, codes);
    }

    /** Adds the rows from {@code from} to before {@code to}. */
    void add(int from, int to) {
        if (keys instanceof Codes.Bytes bytes) add(bytes.values(), from, to);
        else if (keys instanceof Codes.Shorts shorts) add(shorts.values(), from, to);
        else add(((Codes.Ints) keys).values(), from, to);
    }

    private void add(byte[] keys, int from, int to) {
        long[] into = packed;
        if (values instanceof Wholes.Bytes numbers) {
            byte[] of = numbers.values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        } else if (values instanceof Wholes.Shorts numbers) {
            short[] of = numbers.values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        } else {
            int[] of = ((Wholes.Ints) values).values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        }
    }

    private void add(short[] keys, int from, int to) {
        long[] into = packed;
        if (values instanceof Wholes.Bytes numbers) {
            byte[] of = numbers.values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        } else if (values instanceof Wholes.Shorts numbers) {
            short[] of = numbers.values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        } else {
            int[] of = ((Wholes.Ints) values).values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        }
    }

    private void add(int[] keys, int from, int to) {
        long[] into = packed;
        if (values instanceof Wholes.Bytes numbers) {
            byte[] of = numbers.values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        } else if (values instanceof Wholes.Shorts numbers) {
            short[] of = numbers.values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        } else {
            int[] of = ((Wholes.Ints) values).values();
            for (int row = from; row < to; row++) into[keys[row] + 1] += of[row] + ROW;
        }
    }

    /** Begins anew. */
    void clear() {
        Arrays.fill(packed, 0);
    }

    /** The sum of a group, in steps; the last group is that of the rows without a code. */
    long sum(int group) {
        return at(group) << Long.SIZE - SUM_BITS >> Long.SIZE - SUM_BITS;
    }

    /** How many rows of a group were added. */
    int rows(int group) {
        return (int) (at(group) - sum(group) >> SUM_BITS);
    }

    private long at(int group) {
        return packed[group == packed.length - 1 ? 0 : group + 1];
    }
}
