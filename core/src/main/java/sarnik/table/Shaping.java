package sarnik.table;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;

/**
 * What is made of a file's columns before they are kept. Kept with a dataset, so that it holds at every refresh.
 *
 * @param types types that are not to be guessed, by the column's name in the file
 * @param names other names for columns, by their name in the file
 * @param dropped columns that are left out, by their name in the file
 * @param missing words that mean "no value", such as "-" and "n/a"; compared without regard to case
 * @param totals whether rows of totals are kept; they are left out, and reported, where it is false
 * @param decimalMark the mark before the decimals of all numbers; null where it is found by looking
 * @param turn columns that are turned into rows; null for none
 * @param monthFirst whether dates that can be read either way have their month first; null where it is found by looking
 * @param subtotals whether rows that are likely to be subtotals are left out
 * @param categoryTotals whether rows are left out of which a cell says that they are the total of a category
 * @param eitherMark the mark before decimals in a file whose numbers can all be read with it and without ("1,204"); null
 *     where it is found by looking
 * @param rows what is made of rows before columns are looked at; null for nothing
 * @param units units that stood beside the numbers when rows were last taken, by the column's name in the table; empty
 *     where there was none. Columns of which that is not known are not there
 */
public record Shaping(
        Map<String, ColumnType> types,
        Map<String, String> names,
        Set<String> dropped,
        Set<String> missing,
        Boolean totals,
        DecimalMark decimalMark,
        Turn turn,
        Boolean monthFirst,
        Boolean subtotals,
        Boolean categoryTotals,
        DecimalMark eitherMark,
        Rows rows,
        Map<String, String> units) {

    /** A shaping that leaves it to the dates whether their day or their month comes first. */
    public Shaping(
            Map<String, ColumnType> types,
            Map<String, String> names,
            Set<String> dropped,
            Set<String> missing,
            Boolean totals,
            DecimalMark decimalMark,
            Turn turn) {
        this(
                types,
                names,
                dropped,
                missing,
                totals,
                decimalMark,
                turn,
                null,
                false,
                false,
                null,
                Rows.AS_THEY_ARE,
                null);
    }

    public static final Shaping NONE = ofTurn(null);

    /** Marks before decimals. */
    public enum DecimalMark {
        POINT,
        COMMA
    }

    /**
     * Columns whose names are periods (2023, 2024, 2025) become rows: one row for each of them, with its name in one
     * column
     * and its value in another. Where the names have parts ("Litres · 2023", "Takings · 2023") the last part is the
     * period
     * and what comes before names the column of values, in the order of the file.
     *
     * @param columns the columns that are turned, as the file names them
     * @param period name of the column that gets their names
     * @param value name of the column of values where the names have only one part
     * @param apart whether names such as "litres 2023" have parts too; null for not, as in tables that were brought in
     *     before that was asked
     * @param year of which year periods are whose names do not say so ("Jan"): that year, or the column that has it, as
     *     the file names it; null where that is not known
     */
    public record Turn(List<String> columns, String period, String value, Boolean apart, String year) {

        public Turn(List<String> columns, String period, String value) {
            this(columns, period, value, true, null);
        }

        public Turn {
            apart = Boolean.TRUE.equals(apart);
            year = year == null || year.isBlank() ? null : year.strip();
            columns = List.copyOf(columns);
            period = period == null || period.isBlank() ? "period" : period.strip();
            value = value == null || value.isBlank() ? "value" : value.strip();
        }

        /** Whether the columns do not say of which year their periods are. */
        public boolean isWithoutYear() {
            return columns.stream().map(PeriodName::of).allMatch(name -> name != null && !name.isDated());
        }
    }

    /** What rows become that have one cell only: headings of the rows below, or notes. */
    public enum Lone {
        KEPT,
        LEFT_OUT,
        /** A column of its own in the rows below. */
        HEADINGS
    }

    /**
     * What is made of rows before columns are looked at.
     *
     * @param filledDown columns whose empty cells hold what stands above, by their name in the file
     * @param once columns of whose merged cells only the first holds, by their name in the file
     * @param lone what becomes of rows of one cell; null for KEPT
     * @param names whether rows that repeat the names of the columns are kept; null for not
     * @param tidy whether texts are taken without what cannot be seen; null for not, as in tables that were brought in
     *     before that was asked
     * @param onlyShown whether rows that a sheet hides are left out; null for not
     * @param eachOnce whether rows that are the same as one above in every cell are left out; null for not
     * @param noStatistics whether rows of averages, greatest values and the like of the others are left out; null for
     *     not
     */
    public record Rows(
            Set<String> filledDown,
            Set<String> once,
            Lone lone,
            Boolean names,
            Boolean tidy,
            Boolean onlyShown,
            Boolean eachOnce,
            Boolean noStatistics) {

        /** Those of tables that were brought in before rows were mended: their texts stay as they are written. */
        static final Rows BEFORE = new Rows(null, null, null, null, false, null, null, null);

        public static final Rows AS_THEY_ARE = new Rows(null, null, null, null, true, null, null, null);

        public Rows {
            filledDown = filledDown == null ? Set.of() : Set.copyOf(filledDown);
            once = once == null ? Set.of() : Set.copyOf(once);
            lone = lone == null ? Lone.KEPT : lone;
            names = Boolean.TRUE.equals(names);
            tidy = Boolean.TRUE.equals(tidy);
            onlyShown = Boolean.TRUE.equals(onlyShown);
            eachOnce = Boolean.TRUE.equals(eachOnce);
            noStatistics = Boolean.TRUE.equals(noStatistics);
        }
    }

    public Shaping {
        rows = rows == null ? Rows.BEFORE : rows;
        units = units == null ? Map.of() : Map.copyOf(units);
        totals = Boolean.TRUE.equals(totals);
        subtotals = Boolean.TRUE.equals(subtotals);
        categoryTotals = Boolean.TRUE.equals(categoryTotals);
        types = types == null ? Map.of() : Map.copyOf(types);
        names = names == null ? Map.of() : Map.copyOf(names);
        dropped = dropped == null ? Set.of() : Set.copyOf(dropped);
        Set<String> words = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        if (missing != null)
            missing.stream().map(String::strip).filter(w -> !w.isEmpty()).forEach(words::add);
        missing = words;
    }

    /** A shaping that only sets types. */
    public static Shaping ofTypes(Map<String, ColumnType> types) {
        return new Shaping(types, null, null, null, false, null, null);
    }

    /** A shaping that only turns columns into rows. */
    public static Shaping ofTurn(Turn turn) {
        return new Shaping(null, null, null, null, false, null, turn);
    }

    /** This shaping with types for the kept columns, so that a refresh guesses none of them again. */
    public Shaping withTypesOf(Table kept) {
        Map<String, ColumnType> kinds = new LinkedHashMap<>();
        kept.names().stream()
                .filter(n -> !n.startsWith("@"))
                .forEach(n -> kinds.put(n, kept.column(n).type()));
        return withTypesOf(kinds);
    }

    /** The same with the types of columns that were kept, by the names they have there. */
    public Shaping withTypesOf(Map<String, ColumnType> kept) {
        Map<String, ColumnType> all = new LinkedHashMap<>(types);
        kept.forEach(all::put);
        // A column may have had several names in files: all of them are written alike.
        names.forEach((source, name) -> {
            if (kept.containsKey(name)) all.put(source, kept.get(name));
        });
        return with(p -> p.types = all);
    }

    /** This shaping with more names for columns, by their name in the file. */
    public Shaping withNames(Map<String, String> more) {
        Map<String, String> all = new LinkedHashMap<>(names);
        all.putAll(more);
        return with(p -> p.names = all);
    }

    /** This shaping with other things made of rows. */
    public Shaping withRows(Rows other) {
        return with(p -> p.rows = other);
    }

    /** This shaping with what another says of rows, words and marks, and more of its names for columns. */
    public Shaping withRowsOf(Shaping other) {
        return with(p -> {
                    p.missing = other.missing;
                    p.totals = other.totals;
                    p.monthFirst = other.monthFirst;
                    p.subtotals = other.subtotals;
                    p.categoryTotals = other.categoryTotals;
                    p.eitherMark = other.eitherMark;
                    p.rows = other.rows;
                })
                .withNames(other.names);
    }

    /** This shaping with dates that can be read either way read so. */
    public Shaping withMonthFirst(boolean first) {
        return with(p -> p.monthFirst = first);
    }

    /** This shaping with numbers that can be read either way read with this mark before decimals. */
    public Shaping withEitherMark(DecimalMark mark) {
        return with(p -> p.eitherMark = mark);
    }

    /** This shaping with the units that stood beside numbers, see {@link Reading#units}. */
    public Shaping withUnits(Map<String, List<String>> found) {
        Map<String, String> known = new LinkedHashMap<>(units);
        found.forEach((column, beside) -> {
            if (beside.size() < 2) known.put(column, beside.isEmpty() ? "" : beside.get(0));
        });
        return with(p -> p.units = known);
    }

    private Shaping with(Consumer<Parts> change) {
        Parts parts = new Parts(this);
        change.accept(parts);
        return parts.shaping();
    }

    /** The parts of a shaping while some of them change. */
    private static final class Parts {

        private final Shaping of;
        private Map<String, ColumnType> types;
        private Map<String, String> names;
        private Set<String> missing;
        private Boolean totals;
        private Boolean monthFirst;
        private Boolean subtotals;
        private Boolean categoryTotals;
        private DecimalMark eitherMark;
        private Rows rows;
        private Map<String, String> units;

        Parts(Shaping of) {
            this.of = of;
            types = of.types;
            names = of.names;
            missing = of.missing;
            totals = of.totals;
            monthFirst = of.monthFirst;
            subtotals = of.subtotals;
            categoryTotals = of.categoryTotals;
            eitherMark = of.eitherMark;
            rows = of.rows;
            units = of.units;
        }

        Shaping shaping() {
            return new Shaping(
                    types,
                    names,
                    of.dropped,
                    missing,
                    totals,
                    of.decimalMark,
                    of.turn,
                    monthFirst,
                    subtotals,
                    categoryTotals,
                    eitherMark,
                    rows,
                    units);
        }
    }
}
