package sarnik.format;

import java.io.IOException;
import java.util.List;

/** The sheets of a workbook, whatever its format. They can be gone through more than once. */
interface Sheets {

    /** Columns and rows that a sheet has at most, of any of the formats. */
    int MOST_COLUMNS = 16_384;

    int MOST_ROWS = 1_048_576;

    /** What is said of a workbook that only a password opens. */
    String PROTECTED =
            "The workbook is protected by a password, so its rows cannot be read. Save it without one and bring "
                    + "that in.";

    /**
     * Cells that are merged over several rows, whose value stands in the first.
     *
     * @param first row, from 1
     * @param last row, from 1
     * @param column from 1
     */
    record Merged(int first, int last, int column) {}

    /** Is shown a sheet's rows one by one. */
    interface Rows {

        /**
         * @param number of the row, from 1
         * @param cells from the first column on, as far as the row has some; empty where there is none
         * @param hidden whether the sheet does not show it
         * @return whether more are wanted
         */
        boolean row(int number, List<String> cells, boolean hidden);
    }

    /** The name of the format, for people. */
    String format();

    /** Names of the sheets that are not hidden; empty where all are. */
    List<String> names() throws IOException;

    /** The cells of a sheet that are merged over several rows. */
    List<Merged> merged(String sheet) throws IOException;

    /**
     * Shows a sheet's rows that have cells, in their order.
     *
     * @throws sarnik.table.UnreadableTableException when the file breaks its format's rules
     */
    void each(String sheet, Rows rows) throws IOException;
}
