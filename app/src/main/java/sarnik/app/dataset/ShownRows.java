package sarnik.app.dataset;

import java.util.ArrayList;
import java.util.List;
import sarnik.table.Table;

/** Rows as pages show them. */
final class ShownRows {

    /** Characters of a cell on a page; shapes as text have many more. */
    private static final int LONGEST_SHOWN = 400;

    private ShownRows() {}

    /** Values of a few rows for looking at, long ones cut short. */
    static List<List<String>> first(Table table, int most) {
        List<String> names =
                table.names().stream().filter(n -> !n.startsWith("@")).toList();
        List<List<String>> rows = new ArrayList<>();
        for (int row = 0; row < Math.min(most, table.rows()); row++) {
            List<String> cells = new ArrayList<>();
            for (String name : names) {
                String text = table.column(name).text(row);
                cells.add(
                        text == null
                                ? ""
                                : text.length() > LONGEST_SHOWN ? text.substring(0, LONGEST_SHOWN) + "…" : text);
            }
            rows.add(cells);
        }
        return rows;
    }
}
