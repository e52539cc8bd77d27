package sarnik.table;

import java.io.IOException;
import java.util.BitSet;
import java.util.List;

/**
 * Rows of cells as a file gives them, whatever its format. The rows can be gone through more than once; each time they
 * are
 * the same. A reader of a format is one of these; {@link TableReader} makes a table of it.
 */
public interface RowSource {

    /** No cell of a row. */
    BitSet NONE = new BitSet(0);

    /** One row's cells. Valid only while its visitor runs. */
    interface Cells {

        int count();

        /**
         * @param index from 0, below {@link #count()}
         * @return the cell's text, empty where there is none
         */
        String get(int index);

        /** Whether some cell is shown that is merged with the one above it. */
        default boolean isMerged() {
            return false;
        }

        /** Whether a cell is merged with the one above it, whose text it shows. */
        default boolean isMerged(int index) {
            return false;
        }

        /** Whether the sheet does not show the row: a filter, a folded group or a hand has hidden it. */
        default boolean isHidden() {
            return false;
        }
    }

    /** Is shown the rows one by one. */
    interface Visitor {

        /**
         * @param line the line of the file, or the row of the sheet or list, the first is 1
         */
        void row(long line, Cells cells);
    }

    /** Names of the columns as they are written; some may be empty or equal. */
    List<String> header();

    /** Units that stand between the header and the rows, one for each column; empty where there are none. */
    default List<String> units() {
        return List.of();
    }

    /**
     * Which column, from 0, holds the longitudes that the file's own shapes give, in degrees; latitudes stand in the
     * one behind it.
     * -1 where the file has no shapes.
     */
    default int positionAt() {
        return -1;
    }

    /** The mark before decimals that is usual in files that are written so; null where that tells nothing. */
    default Shaping.DecimalMark usualMark() {
        return null;
    }

    /**
     * Shows all rows below the header.
     *
     * @throws UnreadableTableException when the file breaks its format's rules
     */
    void each(Visitor visitor) throws IOException;

    /** How the file is written, for people: "CSV, UTF-8, commas between cells". */
    String words();

    /** Cells held as a list. */
    static Cells cells(List<String> cells) {
        return cells(cells, NONE, false);
    }

    /**
     * @param merged which of them are merged with the one above
     * @param hidden whether the sheet does not show the row
     */
    static Cells cells(List<String> cells, BitSet merged, boolean hidden) {
        return new Cells() {
            @Override
            public int count() {
                return cells.size();
            }

            @Override
            public String get(int index) {
                return cells.get(index);
            }

            @Override
            public boolean isMerged() {
                return !merged.isEmpty();
            }

            @Override
            public boolean isMerged(int index) {
                return merged.get(index);
            }

            @Override
            public boolean isHidden() {
                return hidden;
            }
        };
    }
}
