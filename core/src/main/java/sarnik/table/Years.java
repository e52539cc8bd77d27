package sarnik.table;

import java.util.List;
import java.util.Map;

/** Finds the column that says of which year periods are whose names do not. */
final class Years {

    private Years() {}

    /**
     * The only column that has a year in each row.
     *
     * @param periods names of columns
     * @param sources the names in the file by those in the table
     * @return as the file names it; null where the periods say their year themselves, or there is none, or several
     */
    static String of(List<String> periods, Table table, Map<String, String> sources) {
        if (periods.isEmpty() || PeriodName.of(periods.get(0)).isDated()) return null;
        List<String> found = sources.entrySet().stream()
                .filter(column -> !periods.contains(column.getValue()) && isOfYears(table.column(column.getKey())))
                .map(Map.Entry::getValue)
                .toList();
        return found.size() == 1 ? found.get(0) : null;
    }

    private static boolean isOfYears(Column column) {
        if (!(column instanceof WholeColumn)) return false;
        for (int row = 0; row < column.size(); row++)
            if (column.isMissing(row) || !CellForm.isYear(column.text(row))) return false;
        return true;
    }
}
