package sarnik.query;

import java.util.List;

/**
 * Rows as they are.
 *
 * @param rows their numbers in the table
 * @param cells for each row the texts of the columns wanted, null where one is missing
 * @param all how many rows are left in all
 * @param trail how they came about
 */
public record RowPage(List<Integer> rows, List<String[]> cells, int all, RowTrail trail) {

    public RowPage {
        rows = List.copyOf(rows);
        cells = List.copyOf(cells);
    }

    /** How many rows there are on the page. */
    public int size() {
        return rows.size();
    }

    public String cell(int row, int column) {
        return cells.get(row)[column];
    }
}
