package sarnik.table;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * The rows of a grid below its header. The header is found by looking: titles above it (rows with few cells) are passed
 * over, names written over several rows ("Litres" above "2023", "2024") are joined, and a grid whose first row is like
 * the
 * others has none.
 */
public final class GridSource implements RowSource {

    private static final int LOOK = 60;
    private static final int MOST_HEADER_ROWS = 3;
    private static final int LONGEST_UNIT = 20;

    private final Grid grid;
    private final String words;
    private final Header at;
    private final List<String> header;

    /** Units in the row below the header; empty where there is none. */
    private final List<String> units;

    /**
     * @param first the row of the header, from 1
     * @param rows over how many rows it is written, 0 for none
     */
    private record Header(int first, int rows) {

        int last() {
            return first + rows - 1;
        }
    }

    /**
     * @param words how the file is written, for people
     * @throws UnreadableTableException when the grid has no row
     */
    public GridSource(Grid grid, FileChoices choices, String words) throws IOException {
        this.grid = grid;
        List<List<String>> first = grid.first(LOOK);
        if (first.isEmpty()) {
            throw new UnreadableTableException("The file holds nothing but empty lines. Choose the file that holds the"
                    + " rows, with the column names in its first line.");
        }
        Header found = look(first, choices.headerRow());
        Header told = choices.headerRows() == null ? found : new Header(found.first, choices.headerRows());
        List<String> below = choices.headerRows() == null && told.rows > 0
                ? units(first.subList(Math.min(told.last(), first.size()), first.size()))
                : List.of();
        // Words below names that are the same tell those apart: "still" and "sparkling" below "litres" and "litres".
        boolean isLowerPart = told.rows == 1 && isShared(names(first, told), below);
        at = isLowerPart ? new Header(told.first, 2) : told;
        units = isLowerPart ? List.of() : below;
        header = names(first, at);
        // A column without a name goes by its place, whatever was left out before it.
        for (int i = 0; i < header.size(); i++)
            if (CellText.isBlank(header.get(i)) && grid.position(i) != i)
                header.set(i, "column " + (grid.position(i) + 1));
        this.words = words
                + (at.rows == 0
                        ? ", no names of columns"
                        : at.first > 1 || at.rows > 1
                                ? ", names of columns in row " + at.first + (at.rows > 1 ? " to " + at.last() : "")
                                : "")
                + (units.isEmpty() ? "" : ", units in the row below");
    }

    /**
     * The units in the first row below a header: it has words, and only where the rows below it have numbers, and is
     * empty where they have words.
     *
     * @param rows the first ones below the header
     * @return one for each column; none where the first row is one like the others
     */
    private static List<String> units(List<List<String>> rows) {
        if (rows.size() < 3) return List.of();
        List<String> first = rows.get(0);
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        int units = 0;
        int others = 0;
        for (int i = 0; i < width; i++) {
            int column = i;
            String unit = CellText.strip(cell(first, i));
            List<String> below = rows.subList(1, rows.size()).stream()
                    .filter(row -> filled(row) > 1 && !isNames(row))
                    .map(row -> cell(row, column))
                    .map(CellText::strip)
                    .filter(text -> !text.isEmpty())
                    .toList();
            long numbers = below.stream().filter(CellForm::isAnyNumber).count();
            if (unit.isEmpty()) {
                if (numbers < below.size()) others++;
                continue;
            }
            if (numbers < 2
                    || numbers < below.size() * FormGuess.ENOUGH
                    || unit.length() > LONGEST_UNIT
                    || isNumber(unit)
                    || TableReader.meansMissing(unit)) return List.of();
            units++;
        }
        if (units == 0 || others == 0 && units < 2) return List.of();
        return IntStream.range(0, width).mapToObj(i -> unit(cell(first, i))).toList();
    }

    /** Whether columns of one name have different words below it. */
    private static boolean isShared(List<String> names, List<String> below) {
        Map<String, String> first = new HashMap<>();
        for (int i = 0; i < Math.min(names.size(), below.size()); i++) {
            String other = below.get(i).isEmpty() || names.get(i).isBlank()
                    ? null
                    : first.putIfAbsent(names.get(i), below.get(i));
            if (other != null && !other.equals(below.get(i))) return true;
        }
        return false;
    }

    /** A unit without brackets around it. */
    static String unit(String written) {
        return CellText.strip(written).replaceFirst("^[(\\[](.*)[)\\]]$", "$1");
    }

    private static Header look(List<List<String>> rows, Integer chosen) {
        int widest = rows.stream().mapToInt(GridSource::filled).max().orElse(1);
        int first = chosen != null ? Math.min(chosen, rows.size()) : widest == 2 ? firstOfTwo(rows) : 1;
        // A title or a note above the table has few cells.
        while (chosen == null
                && first < rows.size()
                && widest > 2
                && filled(rows.get(first - 1)) * 5 <= widest * 2
                && filled(rows.get(first - 1)) < 3
                && !isUpperPart(rows.get(first - 1), rows.get(first))) first++;
        if (chosen == null && first < rows.size() && isLikeTheRowBelow(rows.get(first - 1), rows.get(first)))
            return new Header(first, 0);
        int count = 1;
        // Names over several rows: gaps above, and below them cells that are still names.
        while (count < MOST_HEADER_ROWS
                && first + count < rows.size()
                && gaps(rows.get(first + count - 2)) > 0
                && isNames(rows.get(first + count - 1))
                && fillsGaps(rows.get(first + count - 2), rows.get(first + count - 1))) {
            count++;
        }
        return new Header(first, count);
    }

    /**
     * The row of names of a table of two columns: titles above it have one cell. Where the first row with two is one like
     * those below it, only one of the columns has a name.
     */
    private static int firstOfTwo(List<List<String>> rows) {
        int first = 0;
        while (filled(rows.get(first)) < 2) first++;
        boolean below = first + 1 < rows.size() && filled(rows.get(first + 1)) == 2 && !isNames(rows.get(first + 1));
        return isNames(rows.get(first)) && below ? first + 1 : 1;
    }

    /** Whether a row of two cells is the upper part of names below it: one stands where those have a gap. */
    private static boolean isUpperPart(List<String> row, List<String> below) {
        return filled(row) == 2
                && isNames(below)
                && fillsGaps(row, below)
                && IntStream.range(0, row.size())
                        .anyMatch(i ->
                                !CellText.isBlank(row.get(i)) && cell(below, i).isEmpty());
    }

    private static int filled(List<String> row) {
        return (int) row.stream().filter(c -> !CellText.isBlank(c)).count();
    }

    private static int gaps(List<String> row) {
        return row.size() - filled(row);
    }

    private static boolean isNumber(String cell) {
        String text = CellText.strip(cell);
        return !text.isEmpty() && (CellForm.DECIMAL_POINT.fits(text) || CellForm.DECIMAL_COMMA.fits(text));
    }

    private static boolean isYear(String cell) {
        return CellForm.isYear(CellText.strip(cell));
    }

    /** Cells that can be names: no number but years, and at least two of them. */
    private static boolean isNames(List<String> row) {
        return filled(row) > 1
                && row.stream().noneMatch(c -> isNumber(c) && !isYear(c))
                && row.stream().anyMatch(c -> isYear(c) || !CellText.isBlank(c));
    }

    /** Whether the row below has cells where the row above has none, beside one that both have. */
    private static boolean fillsGaps(List<String> above, List<String> below) {
        for (int i = 1; i < below.size(); i++) {
            boolean gap = i >= above.size() || CellText.isBlank(above.get(i));
            if (gap
                    && !CellText.isBlank(below.get(i))
                    && i - 1 < above.size()
                    && below.get(i - 1) != null
                    && !CellText.isBlank(below.get(i - 1))) {
                int left = i - 1;
                while (left >= 0 && left < above.size() && CellText.isBlank(above.get(left))) left--;
                if (left >= 0) return true;
            }
        }
        return false;
    }

    private static boolean isLikeTheRowBelow(List<String> first, List<String> second) {
        int numbers = 0;
        for (int i = 0; i < Math.min(first.size(), second.size()); i++) {
            if (isNumber(first.get(i)) && !isYear(first.get(i)) && isNumber(second.get(i))) numbers++;
            String date = CellText.strip(first.get(i));
            if (CellForm.DATE_ISO.fits(date.isEmpty() ? "x" : date)
                    && CellForm.DATE_ISO.fits(CellText.isBlank(second.get(i)) ? "x" : CellText.strip(second.get(i))))
                numbers++;
        }
        return numbers > 0 && gaps(first) == 0;
    }

    private static List<String> names(List<List<String>> rows, Header at) {
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        List<String> names = new ArrayList<>();
        if (at.rows == 0) {
            for (int i = 1; i <= width; i++) names.add("column " + i);
            return names;
        }
        int own = rows.get(Math.min(at.last(), rows.size()) - 1).size();
        for (int i = 0; i < (at.rows == 1 ? own : width); i++) {
            List<String> parts = new ArrayList<>();
            for (int r = at.first; r <= Math.min(at.last(), rows.size()); r++) {
                String part = r == at.last()
                        ? cell(rows.get(r - 1), i)
                        : carried(rows.get(r - 1), i, cell(rows.get(Math.min(at.last(), rows.size()) - 1), i));
                if (!CellText.isBlank(part)
                        && (parts.isEmpty() || !parts.get(parts.size() - 1).equals(part))) parts.add(part);
            }
            names.add(String.join(TurnedSource.PART, parts));
        }
        return names;
    }

    /**
     * A name above several columns holds for those to its right that have none of their own, as far as names stand
     * below.
     */
    private static String carried(List<String> row, int column, String below) {
        if (!CellText.isBlank(cell(row, column)) || CellText.isBlank(below)) return cell(row, column);
        int i = Math.min(column, row.size() - 1);
        while (i >= 0 && CellText.isBlank(row.get(i))) i--;
        return i < 0 ? "" : cell(row, i);
    }

    private static String cell(List<String> row, int column) {
        return column < row.size() ? row.get(column).strip() : "";
    }

    @Override
    public List<String> header() {
        return header;
    }

    @Override
    public List<String> units() {
        return units;
    }

    @Override
    public void each(Visitor visitor) throws IOException {
        int[] row = {0};
        int skipped = at.first - 1 + at.rows + (units.isEmpty() ? 0 : 1);
        grid.each((line, cells) -> {
            if (++row[0] > skipped) visitor.row(line, cells);
        });
    }

    @Override
    public Shaping.DecimalMark usualMark() {
        return grid.usualMark();
    }

    @Override
    public String words() {
        return words;
    }
}
