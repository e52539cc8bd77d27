package sarnik.data;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.table.CodedColumn;
import sarnik.table.ColumnType;

/** Which columns of a dataset are likely to tell something. */
public final class Telling {

    private static final int MOST_CATEGORY_VALUES = 20_000;
    private static final String NO_AMOUNT =
            "(?:.*[ _])?(?:id|code|number|no|year|month|week|lat|lon|latitude|longitude|phone|postcode|zip)";

    private Telling() {}

    /** Measure formulas, then sums of the number columns that look like amounts, decimals first. */
    public static List<Measure> sums(LoadedDataset dataset) {
        Stream<Measure> formulas = dataset.measures().keySet().stream().map(name -> new Measure(Summary.FORMULA, name));
        return Stream.concat(formulas, amounts(dataset).stream().map(name -> new Measure(Summary.SUM, name)))
                .toList();
    }

    /** Number columns that look like amounts, decimals first: neither identifiers, years nor coordinates. */
    public static List<String> amounts(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> dataset.table().column(name).type().isNumber())
                .filter(name -> !name.toLowerCase(Locale.ROOT).matches(NO_AMOUNT))
                .sorted(Comparator.comparingInt(
                        name -> dataset.table().column(name).type() == ColumnType.DECIMAL ? 0 : 1))
                .toList();
    }

    /** Columns whose values make good bars: few distinct values first, places ahead. */
    public static List<String> categories(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> dataset.table().column(name) instanceof CodedColumn c
                        && c.dictionary().size() > 1
                        && c.dictionary().size() <= MOST_CATEGORY_VALUES
                        && !name.equals(PlacedTable.COUNTRY)
                        && !name.equals(PlacedTable.ZONE))
                .sorted(Comparator.comparingInt((String name) -> name.startsWith("@") ? 0 : 1)
                        .thenComparingInt(name -> distinct(dataset, name)))
                .toList();
    }

    /** How many distinct values a column of text has. */
    public static int distinct(LoadedDataset dataset, String column) {
        return dataset.table().column(column) instanceof CodedColumn c
                ? c.dictionary().size()
                : Integer.MAX_VALUE;
    }

    /** The first column of dates or date-times, those with a time of the day ahead if wanted. */
    public static Optional<String> time(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> {
                    ColumnType type = dataset.table().column(name).type();
                    return type == ColumnType.DATE || type == ColumnType.TIME;
                })
                .findFirst();
    }
}
