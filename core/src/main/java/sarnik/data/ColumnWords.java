package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.List;
import sarnik.language.Language;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.query.Summary;

/** What columns and measures are called in sentences. */
public final class ColumnWords {

    private ColumnWords() {}

    public static String of(String column) {
        if (column.startsWith("@area "))
            return column.endsWith(" from")
                    ? phrase(
                            "area of {0}, origin",
                            column.substring("@area ".length(), column.length() - " from".length()))
                    : phrase("area of {0}", column.substring("@area ".length()));
        if (column.startsWith("@cell ")) return phrase("group of places");
        if (column.startsWith("@provinces"))
            return column.endsWith("from") ? phrase("origin’s province") : phrase("province");
        return switch (column) {
            case PlacedTable.PLACE -> phrase("place");
            case PlacedTable.PROVINCE -> phrase("province");
            case PlacedTable.COUNTRY -> phrase("country");
            case PlacedTable.ZONE -> phrase("time zone");
            case PlacedTable.ORIGIN -> phrase("origin");
            default -> column;
        };
    }

    public static String of(Measure measure) {
        return measure.wordsOf(measure.column() == null ? null : of(measure.column()));
    }

    /** What a document calls a column: in English, whatever is spoken. */
    public static String kept(String column) {
        return Language.in(Language.ENGLISH, () -> of(column));
    }

    /** What a document calls a measure: in English, whatever is spoken. */
    public static String kept(Measure measure) {
        return Language.in(Language.ENGLISH, () -> of(measure));
    }

    /** All that a document may call a measure. */
    public static List<String> names(Measure measure) {
        return Language.in(Language.ENGLISH, () -> List.of(of(measure), brief(measure)));
    }

    /** The measure where its summary goes without saying: sums are just "litres". */
    public static String brief(Measure measure) {
        if (measure.over() != null) return of(measure);
        if (measure.column() == null) return phrase("rows");
        return measure.summary() == Summary.SUM ? of(measure.column()) : of(measure);
    }
}
