package sarnik.table;

/**
 * Whole numbers, one a row, kept in the narrowest array that holds them; the smallest number of the array's type marks
 * where one is missing. Scans are written once for each width, so that they read as few bytes as there are.
 *
 * <p>The arrays are not written to once they are handed in.
 */
public sealed interface Wholes {

    /** What {@link #get} gives for a missing number. */
    long MISSING = Long.MIN_VALUE;

    int size();

    /** The number of a row, or {@link #MISSING}. */
    long get(int row);

    /** The number of a row of which all are days: {@link Integer#MIN_VALUE} where it is missing. */
    int day(int row);

    long bytes();

    /**
     * Reads the numbers of some rows.
     *
     * @param into gets one for each of the first {@code count} rows, NaN for missing
     */
    void read(int[] rows, int count, double[] into);

    /**
     * Keeps the rows whose number lies within bounds; none that is missing.
     *
     * @param selection row numbers; the kept ones are moved to the front
     * @param low the smallest that is kept
     * @param high the largest that is kept
     * @return how many are kept
     */
    int keep(int[] selection, int count, long low, long high);

    /** The same for the rows from {@code from} to before {@code to}, whose numbers are written into the selection. */
    int keepRange(int from, int to, int[] selection, long low, long high);

    /** All numbers in an array of their own, {@link #MISSING} for missing. */
    default long[] all() {
        long[] all = new long[size()];
        for (int row = 0; row < all.length; row++) all[row] = get(row);
        return all;
    }

    /**
     * @param values {@link #MISSING} for missing; kept as they are where no narrower array holds them
     */
    static Wholes of(long[] values) {
        long least = Long.MAX_VALUE;
        long most = Long.MIN_VALUE;
        for (long value : values) {
            if (value == MISSING) continue;
            least = Math.min(least, value);
            most = Math.max(most, value);
        }
        if (least > most) least = most = 0;
        if (least > Byte.MIN_VALUE && most <= Byte.MAX_VALUE) {
            byte[] bytes = new byte[values.length];
            for (int i = 0; i < bytes.length; i++) bytes[i] = values[i] == MISSING ? Byte.MIN_VALUE : (byte) values[i];
            return new Bytes(bytes);
        }
        if (least > Short.MIN_VALUE && most <= Short.MAX_VALUE) {
            short[] shorts = new short[values.length];
            for (int i = 0; i < shorts.length; i++)
                shorts[i] = values[i] == MISSING ? Short.MIN_VALUE : (short) values[i];
            return new Shorts(shorts);
        }
        if (least > Integer.MIN_VALUE && most <= Integer.MAX_VALUE) {
            int[] ints = new int[values.length];
            for (int i = 0; i < ints.length; i++) ints[i] = values[i] == MISSING ? Integer.MIN_VALUE : (int) values[i];
            return new Ints(ints);
        }
        return new Longs(values);
    }

    /**
     * @param values {@link Integer#MIN_VALUE} for missing; kept as they are where no narrower array holds them
     */
    static Wholes of(int[] values) {
        int least = Integer.MAX_VALUE;
        int most = Integer.MIN_VALUE;
        for (int value : values) {
            if (value == Integer.MIN_VALUE) continue;
            least = Math.min(least, value);
            most = Math.max(most, value);
        }
        if (least <= most && (least <= Short.MIN_VALUE || most > Short.MAX_VALUE)) return new Ints(values);
        short[] shorts = new short[values.length];
        for (int i = 0; i < shorts.length; i++)
            shorts[i] = values[i] == Integer.MIN_VALUE ? Short.MIN_VALUE : (short) values[i];
        return new Shorts(shorts);
    }

    /** A bound that no number of a width lies on the other side of, where it lies outside of that width itself. */
    private static int within(long bound, int least, int most) {
        return (int) Math.max(least, Math.min(most, bound));
    }

    record Bytes(byte[] values) implements Wholes {
        @Override
        public int size() {
            return values.length;
        }

        @Override
        public long get(int row) {
            return values[row] == Byte.MIN_VALUE ? MISSING : values[row];
        }

        @Override
        public int day(int row) {
            return values[row] == Byte.MIN_VALUE ? Integer.MIN_VALUE : values[row];
        }

        @Override
        public long bytes() {
            return values.length;
        }

        @Override
        public void read(int[] rows, int count, double[] into) {
            for (int i = 0; i < count; i++) {
                int value = values[rows[i]];
                into[i] = value == Byte.MIN_VALUE ? Double.NaN : value;
            }
        }

        @Override
        public int keep(int[] selection, int count, long low, long high) {
            int from = within(low, Byte.MIN_VALUE + 1, Byte.MAX_VALUE + 1);
            int to = within(high, Byte.MIN_VALUE, Byte.MAX_VALUE);
            int kept = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                int value = values[row];
                selection[kept] = row;
                kept += value >= from & value <= to ? 1 : 0;
            }
            return kept;
        }

        @Override
        public int keepRange(int first, int end, int[] selection, long low, long high) {
            int from = within(low, Byte.MIN_VALUE + 1, Byte.MAX_VALUE + 1);
            int to = within(high, Byte.MIN_VALUE, Byte.MAX_VALUE);
            int kept = 0;
            for (int row = first; row < end; row++) {
                int value = values[row];
                selection[kept] = row;
                kept += value >= from & value <= to ? 1 : 0;
            }
            return kept;
        }
    }

    record Shorts(short[] values) implements Wholes {
        @Override
        public int size() {
            return values.length;
        }

        @Override
        public long get(int row) {
            return values[row] == Short.MIN_VALUE ? MISSING : values[row];
        }

        @Override
        public int day(int row) {
            return values[row] == Short.MIN_VALUE ? Integer.MIN_VALUE : values[row];
        }

        @Override
        public long bytes() {
            return 2L * values.length;
        }

        @Override
        public void read(int[] rows, int count, double[] into) {
            for (int i = 0; i < count; i++) {
                int value = values[rows[i]];
                into[i] = value == Short.MIN_VALUE ? Double.NaN : value;
            }
        }

        @Override
        public int keep(int[] selection, int count, long low, long high) {
            int from = within(low, Short.MIN_VALUE + 1, Short.MAX_VALUE + 1);
            int to = within(high, Short.MIN_VALUE, Short.MAX_VALUE);
            int kept = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                int value = values[row];
                selection[kept] = row;
                kept += value >= from & value <= to ? 1 : 0;
            }
            return kept;
        }

        @Override
        public int keepRange(int first, int end, int[] selection, long low, long high) {
            int from = within(low, Short.MIN_VALUE + 1, Short.MAX_VALUE + 1);
            int to = within(high, Short.MIN_VALUE, Short.MAX_VALUE);
            int kept = 0;
            for (int row = first; row < end; row++) {
                int value = values[row];
                selection[kept] = row;
                kept += value >= from & value <= to ? 1 : 0;
            }
            return kept;
        }
    }

    record Ints(int[] values) implements Wholes {
        @Override
        public int size() {
            return values.length;
        }

        @Override
        public long get(int row) {
            return values[row] == Integer.MIN_VALUE ? MISSING : values[row];
        }

        @Override
        public int day(int row) {
            return values[row];
        }

        @Override
        public long bytes() {
            return 4L * values.length;
        }

        @Override
        public void read(int[] rows, int count, double[] into) {
            for (int i = 0; i < count; i++) {
                int value = values[rows[i]];
                into[i] = value == Integer.MIN_VALUE ? Double.NaN : value;
            }
        }

        @Override
        public int keep(int[] selection, int count, long low, long high) {
            if (low > Integer.MAX_VALUE) return 0;
            int from = within(low, Integer.MIN_VALUE + 1, Integer.MAX_VALUE);
            int to = within(high, Integer.MIN_VALUE, Integer.MAX_VALUE);
            int kept = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                int value = values[row];
                selection[kept] = row;
                kept += value >= from & value <= to ? 1 : 0;
            }
            return kept;
        }

        @Override
        public int keepRange(int first, int end, int[] selection, long low, long high) {
            if (low > Integer.MAX_VALUE) return 0;
            int from = within(low, Integer.MIN_VALUE + 1, Integer.MAX_VALUE);
            int to = within(high, Integer.MIN_VALUE, Integer.MAX_VALUE);
            int kept = 0;
            for (int row = first; row < end; row++) {
                int value = values[row];
                selection[kept] = row;
                kept += value >= from & value <= to ? 1 : 0;
            }
            return kept;
        }
    }

    record Longs(long[] values) implements Wholes {
        @Override
        public int size() {
            return values.length;
        }

        @Override
        public long get(int row) {
            return values[row];
        }

        @Override
        public int day(int row) {
            return values[row] == MISSING ? Integer.MIN_VALUE : (int) values[row];
        }

        @Override
        public long bytes() {
            return 8L * values.length;
        }

        @Override
        public void read(int[] rows, int count, double[] into) {
            for (int i = 0; i < count; i++) {
                long value = values[rows[i]];
                into[i] = value == MISSING ? Double.NaN : value;
            }
        }

        @Override
        public int keep(int[] selection, int count, long low, long high) {
            long from = Math.max(low, MISSING + 1);
            int kept = 0;
            for (int i = 0; i < count; i++) {
                int row = selection[i];
                long value = values[row];
                selection[kept] = row;
                kept += value >= from & value <= high ? 1 : 0;
            }
            return kept;
        }

        @Override
        public int keepRange(int first, int end, int[] selection, long low, long high) {
            long from = Math.max(low, MISSING + 1);
            int kept = 0;
            for (int row = first; row < end; row++) {
                long value = values[row];
                selection[kept] = row;
                kept += value >= from & value <= high ? 1 : 0;
            }
            return kept;
        }

        @Override
        public long[] all() {
            return values;
        }
    }
}
