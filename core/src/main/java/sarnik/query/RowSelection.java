package sarnik.query;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import sarnik.table.Table;

/** The rows that are left after the stages of a query. */
public final class RowSelection {

    private RowSelection() {}

    /**
     * @return row numbers, ascending
     * @throws QueryException when a column is missing or a condition does not fit its type
     */
    public static int[] of(Table table, List<Stage> stages) {
        int[] rows = IntStream.range(0, table.rows()).toArray();
        int count = rows.length;
        for (Stage stage : stages) {
            for (Condition condition : stage.conditions())
                count = RowFilter.of(table, condition).keep(rows, count);
        }
        return Arrays.copyOf(rows, count);
    }
}
