package sarnik.data;

import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.query.Summary;

/** What columns and measures are called in sentences. */
public final class ColumnWords {

    private ColumnWords() {}

    public static String of(String column) {
        if (column.startsWith("@area "))
            return "area of " + column.substring("@area ".length()).replace(" from", ", origin");
        if (column.startsWith("@cell ")) return "group of places";
        if (column.startsWith("@provinces")) return column.endsWith("from") ? "origin's province" : "province";
        return switch (column) {
            case PlacedTable.PLACE -> "place";
            case PlacedTable.PROVINCE -> "province";
            case PlacedTable.COUNTRY -> "country";
            case PlacedTable.ORIGIN -> "origin";
            default -> column;
        };
    }

    public static String of(Measure measure) {
        return measure.column() == null || measure.summary() == Summary.FORMULA
                ? measure.words()
                : measure.summary().words() + " of " + of(measure.column());
    }

    /** The measure where its summary goes without saying: sums are just "litres". */
    public static String brief(Measure measure) {
        if (measure.column() == null) return "rows";
        return measure.summary() == Summary.SUM ? of(measure.column()) : of(measure);
    }
}
