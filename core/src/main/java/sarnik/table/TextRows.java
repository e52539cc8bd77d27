package sarnik.table;

import java.util.Arrays;
import java.util.List;

/**
 * Rows of a file that has been read as text already, so that it need not be cut into cells again: all of them, or as
 * many as are wanted, spread evenly over the file.
 */
public final class TextRows extends RowsOver {

    private final Table table;
    private final int most;

    /**
     * @param table all its columns as text
     * @param file where it came from
     * @param most how many rows are shown at most
     */
    public TextRows(Table table, RowSource file, int most) {
        super(file);
        this.table = table;
        this.most = most;
    }

    @Override
    public List<String> header() {
        return table.names();
    }

    @Override
    public void each(Visitor visitor) {
        Column[] columns = table.names().stream().map(table::column).toArray(Column[]::new);
        String[] cells = new String[columns.length];
        Cells view = RowSource.cells(Arrays.asList(cells));
        int step = Math.max(1, (int) Math.ceil(table.rows() / (double) most));
        for (int row = 0; row < table.rows(); row += step) {
            for (int c = 0; c < cells.length; c++) {
                String text = columns[c].text(row);
                cells[c] = text == null ? "" : text;
            }
            visitor.row(row + 1L, view);
        }
    }
}
