package sarnik.table;

import java.util.Arrays;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;

/**
 * Rows gathered into blocks whose columns are worked on at the same time, while the next rows are read. Each column sees
 * its cells in the order of the rows, and blocks end in their order, so that what comes out does not depend on how many
 * threads there are.
 */
final class RowBlocks {

    /** Cells of the first block: enough to tell how the others are written. */
    private static final int FIRST_CELLS = 1 << 16;

    /** Cells of the others: enough that starting threads does not matter, few enough to stay near the processor. */
    private static final int CELLS = 1 << 13;

    private static final int FEWEST_ROWS = 16;

    /** What is done with the cells of one column of a block. */
    interface ColumnWork {

        /**
         * @param column from 0
         * @param block its rows; only the first {@link Block#rows} are filled
         */
        void look(int column, Block block);
    }

    /** What is done once all columns of a block have been worked on. */
    interface End {

        void of(Block block);
    }

    /** Some rows, one after the other. */
    static final class Block {

        private final long[] lines;
        private final String[][] cells;
        private int rows;

        private Block(int most) {
            lines = new long[most];
            cells = new String[most][];
        }

        int rows() {
            return rows;
        }

        long line(int row) {
            return lines[row];
        }

        /** The cells of a row as they are written, which may be more or fewer than there are columns. */
        String[] cells(int row) {
            return cells[row];
        }
    }

    /** The work on a block: by whoever is free, the one that reads among them. */
    private final class Work implements Runnable {

        private final Block block;
        private final AtomicInteger next = new AtomicInteger();
        private final CountDownLatch left = new CountDownLatch(columns);
        private final AtomicReference<Throwable> broken = new AtomicReference<>();

        Work(Block block) {
            this.block = block;
        }

        @Override
        public void run() {
            for (int column = next.getAndIncrement(); column < columns; column = next.getAndIncrement()) {
                try {
                    each.look(column, block);
                } catch (RuntimeException | Error failed) {
                    broken.compareAndSet(null, failed);
                } finally {
                    left.countDown();
                }
            }
        }

        void finish() {
            run();
            try {
                left.await();
            } catch (InterruptedException stopped) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("stopped while reading", stopped);
            }
            Throwable failed = broken.get();
            if (failed instanceof Error error) throw error;
            if (failed instanceof RuntimeException exception) throw exception;
            end.of(block);
        }
    }

    private final int columns;
    private final ColumnWork each;
    private final End end;
    /** Rows after which a block is full. */
    private int most;

    private Block filling;
    private Block spare;
    private Work working;

    /**
     * @param columns how many columns are worked on
     * @param each called once for each column of each block, for a column never twice at a time
     * @param end called for each block in the order of the rows, by the thread that reads
     */
    RowBlocks(int columns, ColumnWork each, End end) {
        this.columns = columns;
        this.each = each;
        this.end = end;
        most = Math.max(FEWEST_ROWS, FIRST_CELLS / Math.max(1, columns));
        filling = new Block(most);
        spare = new Block(most);
    }

    /** Takes a row in. */
    void add(long line, RowSource.Cells cells) {
        String[] row = new String[cells.count()];
        Arrays.setAll(row, cells::get);
        filling.lines[filling.rows] = line;
        filling.cells[filling.rows++] = row;
        if (filling.rows == most) hand();
    }

    private void hand() {
        if (working != null) working.finish();
        Block full = filling;
        filling = spare;
        filling.rows = 0;
        spare = full;
        working = new Work(full);
        most = Math.max(FEWEST_ROWS, CELLS / Math.max(1, columns));
        ForkJoinPool.commonPool().execute(working);
    }

    /** Works off what is left. To be called once, after the last row. */
    void close() {
        hand();
        working.finish();
        working = null;
    }
}
