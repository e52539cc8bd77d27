package sarnik.query;

import java.util.Arrays;
import java.util.Map;

/**
 * Counts the distinct values of one column by group. Where groups times values fit {@link #MOST_BITS} bits, each pair
 * is
 * a bit; else the pairs are gathered and sorted. Missing values are not counted.
 */
final class DistinctTally {

    private static final long MOST_BITS = 1L << 26;

    private final KeyCoder values;
    private final boolean dense;
    private final long[] bits;
    private int[] codes = new int[RowBlocks.BLOCK];
    private long[] pairs = {};
    private int size;

    /**
     * @param groups number of groups, or -1 where it is not known beforehand
     */
    DistinctTally(KeyCoder values, int groups) {
        this.values = values;
        this.dense = groups >= 0 && (long) groups * values.size() <= MOST_BITS;
        this.bits = dense ? new long[(int) (((long) groups * values.size() + 63) >>> 6)] : null;
    }

    void add(int[] selection, int[] groups, int count) {
        int width = values.size();
        int missing = width - 1;
        if (!dense && pairs.length < size + count)
            pairs = Arrays.copyOf(pairs, Math.max(size + count, pairs.length * 2));
        if (codes.length < count) codes = new int[count];
        values.groups(codes, selection, count);
        for (int i = 0; i < count; i++) {
            if (codes[i] == missing) continue;
            long pair = (long) groups[i] * width + codes[i];
            if (dense) bits[(int) (pair >>> 6)] |= 1L << pair;
            else pairs[size++] = pair;
        }
        if (!dense && size > 1 << 16 && size > pairs.length / 2) compact();
    }

    private void compact() {
        Arrays.sort(pairs, 0, size);
        int kept = 0;
        for (int i = 0; i < size; i++) if (i == 0 || pairs[i] != pairs[i - 1]) pairs[kept++] = pairs[i];
        size = kept;
    }

    /**
     * Adds what another tally of the same column holds.
     *
     * @param groupOf the group here of each group over there, or null where they are the same
     */
    void merge(DistinctTally other, int[] groupOf) {
        if (dense) {
            for (int i = 0; i < bits.length; i++) bits[i] |= other.bits[i];
            return;
        }
        if (pairs.length < size + other.size) pairs = Arrays.copyOf(pairs, size + other.size);
        int width = values.size();
        for (int i = 0; i < other.size; i++) {
            long pair = other.pairs[i];
            pairs[size++] = groupOf == null ? pair : (long) groupOf[(int) (pair / width)] * width + pair % width;
        }
        compact();
    }

    /** Distinct values of each of the groups. */
    double[] results(int groups) {
        double[] counts = new double[groups];
        int width = values.size();
        if (dense) {
            for (int g = 0; g < groups; g++) counts[g] = bitsBetween((long) g * width, (long) (g + 1) * width);
        } else {
            compact();
            for (int i = 0; i < size; i++) counts[(int) (pairs[i] / width)]++;
        }
        return counts;
    }

    /**
     * The sum of what is known of the distinct values of each of the groups; NaN where nothing is.
     *
     * @param figures by value
     */
    double[] results(int groups, Map<String, Double> figures) {
        double[] sums = new double[groups];
        boolean[] found = new boolean[groups];
        int width = values.size();
        double[] known = new double[width];
        for (int code = 0; code < width - 1; code++) known[code] = figures.getOrDefault(values.text(code), Double.NaN);
        known[width - 1] = Double.NaN;
        compact();
        for (int g = 0, i = 0; g < groups; g++) {
            long end = (long) (g + 1) * width;
            for (long pair = (long) g * width; pair < end; pair++) {
                if (!dense) {
                    while (i < size && pairs[i] < pair) i++;
                    if (i == size || pairs[i] >= end) break;
                    pair = pairs[i];
                } else if ((bits[(int) (pair >>> 6)] & 1L << pair) == 0) continue;
                double figure = known[(int) (pair % width)];
                if (Double.isNaN(figure)) continue;
                sums[g] += figure;
                found[g] = true;
            }
        }
        for (int g = 0; g < groups; g++) if (!found[g]) sums[g] = Double.NaN;
        return sums;
    }

    private long bitsBetween(long from, long to) {
        int first = (int) (from >>> 6);
        int last = (int) (to - 1 >>> 6);
        long head = -1L << from;
        long tail = -1L >>> -to;
        if (first == last) return Long.bitCount(bits[first] & head & tail);
        long count = Long.bitCount(bits[first] & head) + Long.bitCount(bits[last] & tail);
        for (int i = first + 1; i < last; i++) count += Long.bitCount(bits[i]);
        return count;
    }
}
