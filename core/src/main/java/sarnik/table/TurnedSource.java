package sarnik.table;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * The rows of a wide table made long, see {@link Shaping.Turn}. Rows without any value in the turned columns stay,
 * once.
 */
final class TurnedSource extends RowsOver {

    /** Stands between the parts of a name that was written over several rows of a header. */
    static final String PART = " · ";

    private final Set<String> missing;
    private final List<Integer> kept = new ArrayList<>();
    private final List<String> periods;
    private final List<String> values;
    private final List<String> header = new ArrayList<>();
    /** For each period and each column of values the column of the wide table; -1 where there is none. */
    private final int[][] columnOf;

    /** Periods of the file that were not known when it was said which are turned, and those that are not in it. */
    private final List<String> newer = new ArrayList<>();

    private final List<String> gone = new ArrayList<>();

    /** Of which year periods are that do not say so: the column that has it, else the year itself. */
    private final int yearAt;

    private final String year;

    /**
     * Turns the columns that the shaping names, as many of them as there are. Where rows of the table are kept already,
     * columns that they do not have are turned as well if they are named by a period of the same measure.
     *
     * @param names the wide table's columns, unique
     * @throws UnreadableTableException when no column is left of one of their measures, or a name is taken
     */
    TurnedSource(RowSource wide, List<String> names, Shaping shaping) {
        super(wide);
        Shaping.Turn turn = shaping.turn();
        missing = shaping.missing();
        Set<String> turned = new LinkedHashSet<>(turn.columns());
        Set<String> left = new HashSet<>();
        turned.stream().filter(names::contains).forEach(column -> left.add(valueName(column, turn)));
        for (String column : turned) {
            if (!left.contains(valueName(column, turn))) {
                throw new UnreadableTableException("The file has no column “" + column
                        + "” to turn into rows. Choose the columns of periods again.");
            }
            if (!names.contains(column)) gone.add(column);
        }
        gone.forEach(turned::remove);
        year = turn.year() == null ? "" : turn.year();
        yearAt = names.indexOf(year);
        if (yearAt < 0 && !year.isEmpty() && !CellForm.isYear(year))
            throw new UnreadableTableException("The file has no column “" + year
                    + "” that says of which year its periods are. Choose another, or write the year.");
        Set<List<String>> taken = new HashSet<>();
        turned.forEach(column -> taken.add(List.of(valueName(column, turn), periodName(column, turn))));
        if (!shaping.types().isEmpty())
            for (String name : names) {
                boolean isKnown =
                        shaping.types().containsKey(name) || shaping.dropped().contains(name);
                PeriodName parts = PeriodName.of(name);
                if (isKnown
                        || parts == null
                        || parts.isDated() == turn.isWithoutYear()
                        || !left.contains(valueName(name, turn))) continue;
                // One that says the same as another would stand for it.
                if (taken.add(List.of(valueName(name, turn), periodName(name, turn))) && turned.add(name))
                    newer.add(name);
            }
        Set<String> foundPeriods = new LinkedHashSet<>();
        Set<String> foundValues = new LinkedHashSet<>();
        for (int i = 0; i < names.size(); i++) {
            String name = names.get(i);
            if (!turned.contains(name)) {
                kept.add(i);
                header.add(name);
                continue;
            }
            foundPeriods.add(periodName(name, turn));
            foundValues.add(valueName(name, turn));
        }
        periods = List.copyOf(foundPeriods);
        values = List.copyOf(foundValues);
        columnOf = new int[periods.size()][values.size()];
        for (int[] row : columnOf) java.util.Arrays.fill(row, -1);
        for (String name : turned) {
            columnOf[periods.indexOf(periodName(name, turn))][values.indexOf(valueName(name, turn))] =
                    names.indexOf(name);
        }
        add(turn.period());
        values.forEach(value -> add(value.equals(turn.value()) ? value : free(value)));
    }

    /** Columns that have become rows though they were not named. */
    List<String> newer() {
        return newer;
    }

    /** Columns that were to become rows and are not there. */
    List<String> gone() {
        return gone;
    }

    /** A name that no other column has. */
    private String free(String name) {
        String free = name;
        for (int i = 2; header.contains(free); i++) free = name + " " + i;
        return free;
    }

    private void add(String name) {
        if (header.contains(name)) {
            throw new UnreadableTableException(
                    "The file has a column “" + name + "” already. Give the turned column another name.");
        }
        header.add(name);
    }

    /** The last part of a name: "2023" of "Litres · 2023". */
    static String lastPart(String name) {
        return name.substring(name.lastIndexOf(PART) < 0 ? 0 : name.lastIndexOf(PART) + PART.length());
    }

    private static String periodName(String name, Shaping.Turn turn) {
        PeriodName parts = turn.apart() ? PeriodName.of(name) : null;
        return parts == null ? lastPart(name) : parts.period();
    }

    private static String valueName(String name, Shaping.Turn turn) {
        PeriodName parts = turn.apart() ? PeriodName.of(name) : null;
        if (parts != null) return parts.measure().isEmpty() ? turn.value() : parts.measure();
        int at = name.lastIndexOf(PART);
        return at < 0 ? turn.value() : name.substring(0, at);
    }

    @Override
    public List<String> header() {
        return header;
    }

    /** Of the shapes of a file nothing is told any more: its columns stand elsewhere. */
    @Override
    public int positionAt() {
        return -1;
    }

    @Override
    public List<String> units() {
        List<String> written = file.units();
        List<String> units = new ArrayList<>();
        for (int column : kept) units.add(unit(written, column));
        units.add("");
        for (int value = 0; value < values.size(); value++) {
            Set<String> different = new LinkedHashSet<>();
            for (int[] period : columnOf) if (period[value] >= 0) different.add(unit(written, period[value]));
            units.add(different.size() == 1 ? different.iterator().next() : "");
        }
        return units;
    }

    private static String unit(List<String> units, int column) {
        return column < units.size() ? units.get(column) : "";
    }

    @Override
    public void each(Visitor visitor) throws IOException {
        file.each((line, cells) -> {
            List<String> own = new ArrayList<>();
            for (int column : kept) own.add(at(cells, column));
            String ofYear = yearAt < 0 ? year : CellText.strip(at(cells, yearAt));
            boolean any = false;
            for (int p = 0; p < periods.size(); p++) {
                List<String> row = new ArrayList<>(own);
                row.add(PeriodName.inYear(periods.get(p), ofYear));
                boolean filled = false;
                for (int column : columnOf[p]) {
                    String value = at(cells, column);
                    filled |= !CellText.isBlank(value) && !missing.contains(CellText.strip(value));
                    row.add(value);
                }
                if (!filled) continue;
                any = true;
                visitor.row(line, RowSource.cells(row));
            }
            if (!any) {
                while (own.size() < header.size()) own.add("");
                visitor.row(line, RowSource.cells(own));
            }
        });
    }

    private static String at(Cells cells, int column) {
        return column >= 0 && column < cells.count() ? cells.get(column) : "";
    }
}
