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
            case PlacedTable.ZONE -> "time zone";
            case PlacedTable.ORIGIN -> "origin";
            default -> column;
        };
    }

    public static String of(Measure measure) {
        String plain = measure.column() == null || measure.summary() == Summary.FORMULA
                ? measure.plain().words()
                : measure.summary().words(measure.at()) + " of " + of(measure.column());
        return measure.over() == null ? plain : measure.over().kind().words() + " " + plain;
    }

    /** The measure where its summary goes without saying: sums are just "litres". */
    public static String brief(Measure measure) {
        if (measure.over() != null) return of(measure);
        if (measure.column() == null) return "rows";
        return measure.summary() == Summary.SUM ? of(measure.column()) : of(measure);
    }
}
