package sarnik.table;

import java.io.IOException;

/** The rows of a table that may be too many to be held at once: they are shown in parts, one after the other. */
public interface TableParts {

    /** Is shown the parts. */
    @FunctionalInterface
    interface Taker {

        /**
         * @param part some of the rows; all parts have the same columns of the same types
         */
        void take(Table part) throws IOException;
    }

    /** All rows where they are held; where they are not, some of them, spread evenly, with the same columns. */
    Table sample();

    /** How many rows there are. */
    long rows();

    /** Bytes that all rows take where they are held, about. */
    long bytes();

    /**
     * Shows all rows in their order.
     *
     * @param progress is told how far it has come; what it throws stops it
     * @throws UnreadableTableException when the file that they stand in breaks its format's rules
     * @throws IOException when it cannot be read, or what takes the parts fails so
     */
    void each(TableReader.Progress progress, Taker taker) throws IOException;

    /** Whether {@link #sample} holds all rows. */
    default boolean areHeld() {
        return sample().rows() == rows();
    }

    /** The rows of a table that is held. */
    static TableParts of(Table table) {
        return new Held(table);
    }

    /** All rows at once. */
    record Held(Table sample) implements TableParts {

        @Override
        public long rows() {
            return sample.rows();
        }

        @Override
        public long bytes() {
            return sample.bytes();
        }

        @Override
        public void each(TableReader.Progress progress, Taker taker) throws IOException {
            taker.take(sample);
        }
    }
}
