package sarnik.table;

/**
 * The smallest and the largest number of each block of rows of a column: blocks whose numbers all lie outside of a range
 * need not be looked at, and those whose numbers all lie within need not either. Pays where rows stand in the order of
 * the numbers, as they do where they came in day by day.
 */
public final class Zones {

    /** Rows of a block, a power of two. */
    public static final int ROWS = 1 << 10;

    private static final int SHIFT = 10;

    private final long[] least;
    private final long[] most;
    private final boolean[] gaps;

    Zones(Wholes numbers) {
        int blocks = (numbers.size() + ROWS - 1) / ROWS;
        least = new long[blocks];
        most = new long[blocks];
        gaps = new boolean[blocks];
        for (int block = 0; block < blocks; block++) look(numbers, block);
    }

    private void look(Wholes numbers, int block) {
        long low = Long.MAX_VALUE;
        long high = Long.MIN_VALUE;
        int end = Math.min(numbers.size(), (block + 1) * ROWS);
        for (int row = block * ROWS; row < end; row++) {
            long number = numbers.get(row);
            if (number == Wholes.MISSING) {
                gaps[block] = true;
                continue;
            }
            low = Math.min(low, number);
            high = Math.max(high, number);
        }
        least[block] = low;
        most[block] = high;
    }

    /** Whether no row from {@code from} to before {@code to} has a number within a range. */
    public boolean areOutside(int from, int to, long low, long high) {
        for (int block = from >> SHIFT; block <= to - 1 >> SHIFT; block++)
            if (most[block] >= low && least[block] <= high) return false;
        return true;
    }

    /** Whether every row from {@code from} to before {@code to} has a number within a range. */
    public boolean areWithin(int from, int to, long low, long high) {
        for (int block = from >> SHIFT; block <= to - 1 >> SHIFT; block++)
            if (gaps[block] || least[block] < low || most[block] > high) return false;
        return true;
    }
}
