package sarnik.app.dataset;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnProfile;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.Reading;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/**
 * A column as a page shows it.
 *
 * @param source its name in the file
 * @param set whether a person has set its type
 * @param filled how much of it is filled, in words
 * @param holds how many distinct values or which range, in words; empty where it has no value
 * @param bars heights of a tiny histogram in pixels; empty for text and yes/no
 * @param commonest the commonest values with how often they occur, in words; empty where none occurs twice
 * @param said how it is written; null where that goes without saying
 * @param unread how many of its cells did not fit its type and are missing
 */
public record ColumnLine(
        String name,
        String source,
        ColumnType type,
        boolean set,
        String filled,
        String holds,
        List<Integer> bars,
        String commonest,
        Reading.Said said,
        long unread) {

    private static final int TALLEST = 18;

    /** A column of a dataset. */
    static ColumnLine of(Table table, String name) {
        return of(table, name, name, false, null, 0);
    }

    /**
     * A column of rows that stay elsewhere, of which only the face is known.
     *
     * @param open whether there are more texts than are listed
     */
    static ColumnLine ofFace(Table table, String name, boolean open) {
        Column column = table.column(name);
        ColumnProfile profile = ColumnProfile.of(column);
        return new ColumnLine(
                name,
                name,
                column.type(),
                false,
                "",
                open ? "more than %,d distinct".formatted(profile.distinct()) : holds(column, profile),
                List.of(),
                "",
                null,
                0);
    }

    /**
     * A column of a file that has been read.
     *
     * @param set types that a person has set, by the column's name in the file
     */
    static ColumnLine of(Reading reading, String name, Map<String, ColumnType> set) {
        String source = reading.source().get(name);
        return of(
                reading.table(),
                name,
                source,
                set.containsKey(source),
                reading.said().get(name),
                reading.troubles().unread().getOrDefault(name, 0L));
    }

    private static ColumnLine of(Table table, String name, String source, boolean set, Reading.Said said, long unread) {
        Column column = table.column(name);
        ColumnProfile profile = ColumnProfile.of(column);
        return new ColumnLine(
                name,
                source,
                column.type(),
                set,
                filled(column, profile.filled()),
                holds(column, profile),
                bars(profile),
                commonest(profile),
                said,
                unread);
    }

    /** Heights in pixels; what occurs at all has at least one. */
    private static List<Integer> bars(ColumnProfile profile) {
        long most = profile.bins().stream().mapToLong(n -> n).max().orElse(0);
        return profile.bins().stream()
                .map(n -> n == 0 ? 0 : Math.max(1, (int) Math.round((double) TALLEST * n / most)))
                .toList();
    }

    private static String commonest(ColumnProfile profile) {
        // A column whose values all differ has no commonest one.
        if (profile.commonest().isEmpty() || profile.commonest().get(0).rows() < 2) return "";
        return profile.commonest().stream()
                .filter(c -> c.rows() > 1)
                .map(c -> "%s %,d".formatted(c.value(), c.rows()))
                .collect(Collectors.joining(", "));
    }

    private static String filled(Column column, long filled) {
        if (filled == column.size()) return "all filled";
        if (filled == 0) return "no value";
        // Neither 0 nor 100 for what is not quite that.
        return Math.max(1, Math.min(99, Math.round(100.0 * filled / column.size()))) + " % filled";
    }

    private static String holds(Column column, ColumnProfile profile) {
        if (column instanceof CodedColumn) return "%,d distinct".formatted(profile.distinct());
        return column.extremes()
                .map(e -> words(column, e.lowest()) + " to " + words(column, e.highest()))
                .orElse("");
    }

    private static String words(Column column, int row) {
        if (column instanceof WholeColumn whole) return NumberWords.full(whole.get(row));
        if (column instanceof DecimalColumn decimal) return NumberWords.full(decimal.get(row));
        return column.text(row);
    }
}
