package sarnik.table;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Set;
import java.util.function.IntFunction;

/** The rows of a file of which it is known how its columns are written, read part by part. */
final class FileParts {

    private static final int REPORT_EVERY = 20_000;

    /** Bytes that the columns of a part take about while they are filled. */
    private static final long PART_BYTES = 64L << 20;

    private final RowSource source;
    private final List<String> names;
    private final IntFunction<List<ColumnBuilder>> builders;
    private final Set<String> missing;
    private final boolean tidy;
    private final TotalRows sums;
    private final int rows;
    private final long visited;

    /**
     * @param names of the columns in the table
     * @param builders new ones for the columns, given how many rows are to come; null for a column that is left out
     * @param missing words that stand for no value
     * @param tidy whether blanks and marks of every kind are taken from the ends of cells
     * @param sums says which rows are left out
     * @param rows how many there are but for those; 0 where that is not known
     * @param visited how many there are in all; 0 where that is not known
     */
    FileParts(
            RowSource source,
            List<String> names,
            IntFunction<List<ColumnBuilder>> builders,
            Set<String> missing,
            boolean tidy,
            TotalRows sums,
            int rows,
            long visited) {
        this.source = source;
        this.names = names;
        this.builders = builders;
        this.missing = missing;
        this.tidy = tidy;
        this.sums = sums;
        this.rows = rows;
        this.visited = visited;
    }

    /**
     * Reads all rows. Where their columns outgrow what they may take, some rows are held.
     *
     * @param begin bytes after which the rows so far are a part
     * @param most bytes that all columns may take
     */
    TableReader.Filled filled(TableReader.Progress progress, long begin, long most) throws IOException {
        SomeRows some = new SomeRows(most / 2);
        boolean fit = widths() <= begin;
        Filling filling = fill(progress, fit ? begin : Math.min(most, PART_BYTES), fit ? rows : 0, most, some::add);
        if (some.rows() == 0) return new TableReader.Filled(TableParts.of(filling.table()), filling.troubles());
        some.add(filling.table());
        return new TableReader.Filled(new Parts(some.table(), some.rows(), some.bytes(), most), filling.troubles());
    }

    /** Bytes that all rows take while columns are filled, but for the words of texts. */
    private double widths() {
        return builders.apply(1).stream()
                .mapToDouble(builder -> builder == null ? 0 : (double) builder.bytes() * rows)
                .sum();
    }

    /**
     * @param limit bytes of columns after which the rows so far are a part
     * @param size rows that are to come in the first part; 0 where that is not known
     * @param most the same as limit, for all parts but the first
     * @param taker takes all parts but the last
     * @return the last part, with the troubles of all
     */
    private Filling fill(TableReader.Progress progress, long limit, int size, long most, TableParts.Taker taker)
            throws IOException {
        Filling filling = new Filling(names, missing, tidy);
        filling.as(builders.apply(size));
        long[] seen = {0};
        long[] next = {limit};
        boolean[] full = {false};
        RowBlocks blocks = new RowBlocks(names.size(), filling::fill, block -> {
            filling.tell(block);
            full[0] |= block.bytes() > next[0];
        });
        source.each((line, cells) -> {
            if (++seen[0] % REPORT_EVERY == 0) progress.at(seen[0], visited);
            if (sums.leavesOut(cells)) {
                filling.total(line, cells);
                return;
            }
            if (full[0]) {
                blocks.flush();
                hand(filling, taker);
                full[0] = false;
                next[0] = Math.min(most, PART_BYTES);
            }
            filling.taken();
            blocks.add(line, cells);
        });
        blocks.flush();
        filling.close();
        return filling;
    }

    private void hand(Filling filling, TableParts.Taker taker) {
        try {
            taker.take(filling.table());
        } catch (IOException failed) {
            // Carried through the source.
            throw new UncheckedIOException(failed);
        }
        filling.as(builders.apply(0));
    }

    /** Rows of which some are held. */
    private final class Parts implements TableParts {

        private final Table sample;
        private final long rows;
        private final long bytes;
        private final long most;

        Parts(Table sample, long rows, long bytes, long most) {
            this.sample = sample;
            this.rows = rows;
            this.bytes = bytes;
            this.most = most;
        }

        @Override
        public Table sample() {
            return sample;
        }

        @Override
        public long rows() {
            return rows;
        }

        @Override
        public long bytes() {
            return bytes;
        }

        @Override
        public void each(TableReader.Progress progress, Taker taker) throws IOException {
            try {
                taker.take(fill(progress, Math.min(most, PART_BYTES), 0, most, taker)
                        .table());
            } catch (UncheckedIOException failed) {
                throw failed.getCause();
            }
        }
    }
}
