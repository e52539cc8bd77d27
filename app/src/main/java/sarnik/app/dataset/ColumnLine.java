package sarnik.app.dataset;

import java.util.Map;
import java.util.stream.IntStream;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.Extremes;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/**
 * A column as a page shows it.
 *
 * @param set whether a person has set its type
 * @param filled how much of it is filled, in words
 * @param holds how many distinct values or which range, in words; empty where it has no value
 */
public record ColumnLine(String name, ColumnType type, boolean set, String filled, String holds) {

    static ColumnLine of(Table table, String name, Map<String, ColumnType> set) {
        Column column = table.column(name);
        return new ColumnLine(name, column.type(), set.containsKey(name), filled(column), holds(column));
    }

    private static String filled(Column column) {
        long filled = IntStream.range(0, column.size()).filter(r -> !column.isMissing(r)).count();
        if (filled == column.size()) return "all filled";
        if (filled == 0) return "no value";
        // Neither 0 nor 100 for what is not quite that.
        return Math.max(1, Math.min(99, Math.round(100.0 * filled / column.size()))) + " % filled";
    }

    private static String holds(Column column) {
        if (column instanceof CodedColumn coded) return "%,d distinct".formatted(coded.dictionary().size());
        return Extremes.of(column).map(e -> words(column, e.lowest()) + " to " + words(column, e.highest())).orElse("");
    }

    private static String words(Column column, int row) {
        if (column instanceof WholeColumn whole) return NumberWords.full(whole.values()[row]);
        if (column instanceof DecimalColumn decimal) return NumberWords.full(decimal.values()[row]);
        return column.text(row);
    }
}
