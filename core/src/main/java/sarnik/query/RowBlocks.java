package sarnik.query;

import java.util.List;
import sarnik.formula.BlockNumbers;
import sarnik.table.Table;

/** The rows of a segment that are left after the stages of queries, block by block. */
final class RowBlocks {

    /** Rows looked at together: the selection and keys of a block stay in the processor's nearest cache. */
    static final int BLOCK = BlockNumbers.MOST;

    private final List<RowFilter[]> stages;

    private final int[] weights;

    /** Rows left after each stage. */
    final long[] counts;

    /** Takes the rows of a block that are left. */
    interface Taker {
        void take(int[] selection, int count);
    }

    private RowBlocks(List<RowFilter[]> stages, int[] weights) {
        this.stages = stages;
        this.weights = weights;
        counts = new long[stages.size()];
    }

    /**
     * @throws QueryException when a condition does not fit the table
     */
    static List<RowFilter[]> filters(Table table, List<Stage> stages) {
        return stages.stream()
                .map(stage -> stage.conditions().stream()
                        .map(c -> RowFilter.of(table, c))
                        .toArray(RowFilter[]::new))
                .toList();
    }

    /** @param weights how many rows each row stands for; null where each stands for itself */
    static RowBlocks of(List<RowFilter[]> filters, int[] weights) {
        return new RowBlocks(filters, weights);
    }

    void scan(int from, int to, Taker taker) {
        int[] selection = new int[BLOCK + 1];
        for (int start = from; start < to; start += BLOCK) {
            int count = select(start, Math.min(start + BLOCK, to), selection);
            if (count > 0) taker.take(selection, count);
        }
    }

    private int select(int from, int to, int[] selection) {
        int all = to - from;
        int count = -1;
        for (int s = 0; s < counts.length; s++) {
            // As long as no row is left out, rows are read one after the other.
            for (RowFilter filter : stages.get(s))
                count = count < 0 || count == all
                        ? filter.keepRange(from, to, selection)
                        : filter.keep(selection, count);
            if (weights == null) counts[s] += count < 0 ? all : count;
            else counts[s] += count < 0 ? rows(weights, from, to) : rows(weights, selection, count);
        }
        if (count >= 0) return count;
        for (int i = 0; i < all; i++) selection[i] = from + i;
        return all;
    }

    /** How many rows those of a block stand for, in whole numbers of 32 bits, as a table has no more rows. */
    private static int rows(int[] weights, int from, int to) {
        int rows = 0;
        for (int row = from; row < to; row++) rows += weights[row];
        return rows;
    }

    static int rows(int[] weights, int[] selection, int count) {
        int rows = 0;
        for (int i = 0; i < count; i++) rows += weights[selection[i]];
        return rows;
    }
}
