package sarnik.table;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;

/**
 * Rows gathered into blocks whose columns are worked on at the same time, while the next rows are read. Each column sees
 * its cells in the order of the rows, and blocks end in their order, so that what comes out does not depend on how many
 * threads there are. The first block ends before any other is worked on.
 */
final class RowBlocks {

    /** Cells of the first block: enough to tell how the others are written. */
    private static final int FIRST_CELLS = 1 << 16;

    /** Cells of the others: enough that handing them on does not matter, few enough to stay near the processor. */
    private static final int CELLS = 1 << 13;

    private static final int FEWEST_ROWS = 16;

    /** Letters of a block at most, so that long texts do not add up. */
    private static final int MOST_LETTERS = 1 << 22;

    /** So many blocks may have been read and not be worked off: whoever reads more helps first. */
    private static final int AHEAD = 8;

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

    /** A cell with which something is amiss. */
    record Amiss(int row, int column, String text, boolean isNullByte) {}

    /** Some rows, one after the other. */
    static final class Block {

        private final long[] lines;
        private final String[][] cells;
        private final List<List<Amiss>> amiss = new ArrayList<>();
        private final long[] bytes;
        private int rows;
        private int letters;
        /** Columns that have not been worked on. */
        private CountDownLatch left;

        private Block(int most, int columns) {
            lines = new long[most];
            cells = new String[most][];
            bytes = new long[columns];
            for (int c = 0; c < columns; c++) amiss.add(new ArrayList<>());
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

        /** Takes what is amiss with cells of a column. */
        List<Amiss> amiss(int column) {
            return amiss.get(column);
        }

        /** Says how many bytes a column takes after its cells of this block. */
        void weigh(int column, long taken) {
            bytes[column] = taken;
        }

        /** Bytes that the columns take after this block, whatever has been added to them since. */
        long bytes() {
            return Arrays.stream(bytes).sum();
        }

        private void clear() {
            rows = 0;
            letters = 0;
            Arrays.fill(bytes, 0);
            amiss.forEach(List::clear);
        }
    }

    /** One column: its blocks are worked on one after the other. */
    private final class Lane {

        private final int column;
        private final Queue<Block> waiting = new ConcurrentLinkedQueue<>();
        /** Blocks that wait or are worked on: whoever raises it from none says that the lane is ready. */
        private final AtomicInteger open = new AtomicInteger();

        Lane(int column) {
            this.column = column;
        }

        void add(Block block) {
            waiting.add(block);
            if (open.getAndIncrement() == 0) ready.add(this);
        }

        /** Works on the next block, by one thread at a time. */
        void step() {
            Block block = waiting.remove();
            try {
                each.look(column, block);
            } catch (RuntimeException | Error failed) {
                broken.compareAndSet(null, failed);
            } finally {
                block.left.countDown();
                if (open.decrementAndGet() > 0) ready.add(this);
            }
        }
    }

    private final int columns;
    private final ColumnWork each;
    private final End end;
    private final List<Lane> lanes = new ArrayList<>();
    /** Lanes of which nobody works on a block that waits. */
    private final Queue<Lane> ready = new ConcurrentLinkedQueue<>();

    private final AtomicReference<Throwable> broken = new AtomicReference<>();

    /** Blocks that are worked on, in the order of their rows. */
    private final Deque<Block> handed = new ArrayDeque<>();

    private final Deque<Block> spare = new ArrayDeque<>();
    /** Rows after which a block is full. */
    private int most;

    private Block filling;
    private boolean isFirst = true;

    /**
     * @param columns how many columns are worked on
     * @param each called once for each column of each block, for a column never twice at a time
     * @param end called for each block in the order of the rows, by the thread that reads
     */
    RowBlocks(int columns, ColumnWork each, End end) {
        this.columns = columns;
        this.each = each;
        this.end = end;
        for (int column = 0; column < columns; column++) lanes.add(new Lane(column));
        most = Math.max(FEWEST_ROWS, FIRST_CELLS / Math.max(1, columns));
        filling = new Block(most, columns);
    }

    /** Takes a row in. */
    void add(long line, RowSource.Cells cells) {
        String[] row = new String[cells.count()];
        for (int cell = 0; cell < row.length; cell++) {
            row[cell] = cells.get(cell);
            filling.letters += row[cell].length();
        }
        filling.lines[filling.rows] = line;
        filling.cells[filling.rows++] = row;
        if (filling.rows == most || filling.letters > MOST_LETTERS) hand();
    }

    /** Hands the block on that has been read. */
    private void hand() {
        filling.left = new CountDownLatch(columns);
        handed.add(filling);
        for (Lane lane : lanes) lane.add(filling);
        ForkJoinPool.commonPool().execute(this::workOff);
        finish(isFirst ? 0 : AHEAD);
        isFirst = false;
        most = Math.max(FEWEST_ROWS, CELLS / Math.max(1, columns));
        filling = spare.isEmpty() ? new Block(most, columns) : spare.remove();
        filling.clear();
    }

    /** Works on whatever is ready. */
    private void workOff() {
        for (Lane lane = ready.poll(); lane != null; lane = ready.poll()) lane.step();
    }

    /** Ends blocks until so many are left that are worked on. */
    private void finish(int left) {
        while (handed.size() > left) {
            Block oldest = handed.remove();
            for (Lane lane; oldest.left.getCount() > 0 && (lane = ready.poll()) != null; ) lane.step();
            try {
                oldest.left.await();
            } catch (InterruptedException stopped) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("stopped while reading", stopped);
            }
            Throwable failed = broken.get();
            if (failed instanceof Error error) throw error;
            if (failed instanceof RuntimeException exception) throw exception;
            end.of(oldest);
            spare.add(oldest);
        }
    }

    /** Works off what has been read, so that all of it has ended. More rows may follow. */
    void flush() {
        hand();
        finish(0);
    }
}
