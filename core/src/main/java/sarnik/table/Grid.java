package sarnik.table;

import java.io.IOException;
import java.util.List;

/** Rows of cells of which some, at the top, may be names of columns: a text file or a sheet. */
public interface Grid {

    /** Shows all rows that are not empty, the header among them. */
    void each(RowSource.Visitor visitor) throws IOException;

    /**
     * Where a column stands among all of the grid, from 0: those that are left out leave the others their places.
     *
     * @param column from 0, among those that are shown
     */
    default int position(int column) {
        return column;
    }

    /** The mark before decimals that is usual in files that are written so; null where that tells nothing. */
    default Shaping.DecimalMark usualMark() {
        return null;
    }

    /** The first rows that are not empty. */
    List<List<String>> first(int rows) throws IOException;
}
