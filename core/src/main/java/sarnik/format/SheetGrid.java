package sarnik.format;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.table.FileChoices;
import sarnik.table.Grid;
import sarnik.table.GridSource;
import sarnik.table.RowSource;
import sarnik.table.UnreadableTableException;

/**
 * A sheet of a workbook, or a range of it, as a grid: cells that are merged over several rows hold in each of them,
 * and columns
 * without any cell (formatted, or left blank between others) are left out.
 */
final class SheetGrid implements Grid {

    private static final Pattern RANGE =
            Pattern.compile("\\$?([A-Za-z]{1,3})\\$?(\\d{1,7})(?::\\$?([A-Za-z]{1,3})\\$?(\\d{1,7}))?");

    /** Rows of a sheet that are looked at to see whether it holds a table, and sheets that are looked at. */
    private static final int LOOK = 40;

    private static final int MOST_LOOKED_AT = 12;

    /** Cells of a sheet that are kept once they have been unpacked; a larger sheet is unpacked each time. */
    private static final long MOST_KEPT = 3_000_000;

    private final Sheets sheets;
    private final String sheet;

    /** First row, first column, last row, last column, from 1. */
    private final int[] range;

    /** The last row that a merged cell reaches, by the row and column where its value stands. */
    private final Map<Integer, NavigableMap<Integer, Integer>> merged = new TreeMap<>();

    /** Which columns of the range have a cell; null until that is known. */
    private int[] columns;

    private List<Kept> kept;

    /**
     * A row that was unpacked.
     *
     * @param merged which of its cells are merged with the one above
     * @param hidden whether the sheet does not show it
     */
    private record Kept(long line, String[] cells, BitSet merged, boolean hidden) {}

    /** Is shown the rows of the range. */
    private interface Visitor {

        /**
         * @param cells from the first column of the range on
         * @param merged which of them are merged with the one above, whose text they show
         * @param hidden whether the sheet does not show the row
         * @return whether more are wanted
         */
        boolean row(int number, List<String> cells, BitSet merged, boolean hidden);
    }

    private SheetGrid(Sheets sheets, String sheet, int[] range) {
        this.sheets = sheets;
        this.sheet = sheet;
        this.range = range;
    }

    static RowSource open(Sheets sheets, FileChoices choices) throws IOException {
        List<String> names = sheets.names();
        if (names.isEmpty()) throw new UnreadableTableException("The workbook has no sheet that can be seen.");
        String sheet = choices.sheet() == null ? likely(sheets, names) : choices.sheet();
        if (!names.contains(sheet))
            throw new UnreadableTableException(
                    "The workbook has no sheet “" + sheet + "”. It has: " + String.join(", ", names) + ".");
        SheetGrid grid = new SheetGrid(sheets, sheet, range(choices.range()));
        sheets.merged(sheet)
                .forEach(m -> grid.merged
                        .computeIfAbsent(m.column(), c -> new TreeMap<>())
                        .put(m.first(), m.last()));
        grid.measure();
        return new GridSource(
                grid,
                choices,
                sheets.format() + ", sheet “" + sheet + "”"
                        + (choices.range() == null
                                ? ""
                                : ", cells " + choices.range().toUpperCase(Locale.ROOT)));
    }

    /** The first sheet that holds a table: a cover has few cells in few rows. */
    private static String likely(Sheets sheets, List<String> names) throws IOException {
        if (names.size() == 1) return names.get(0);
        int most = 0;
        String best = names.get(0);
        for (String name : names.subList(0, Math.min(MOST_LOOKED_AT, names.size()))) {
            int[] seen = new int[2];
            sheets.each(name, (number, cells, hidden) -> {
                int filled = (int) cells.stream().filter(c -> !c.isBlank()).count();
                if (filled > 0) seen[0]++;
                if (filled > 1) seen[1]++;
                return seen[0] < LOOK;
            });
            // A later sheet has to have much more to be taken before an earlier one.
            if (seen[1] > 3 * most + 1) {
                most = seen[1];
                best = name;
            }
        }
        return best;
    }

    private static int[] range(String text) {
        if (text == null || text.isBlank()) return new int[] {1, 1, Integer.MAX_VALUE, Sheets.MOST_COLUMNS};
        Matcher cells = RANGE.matcher(text.strip());
        if (!cells.matches())
            throw new UnreadableTableException(
                    "“" + text + "” is no range of cells. Write it like B3:H200, or B3 for all from there.");
        int[] range = {
            Integer.parseInt(cells.group(2)),
            column(cells.group(1)),
            cells.group(4) == null ? Integer.MAX_VALUE : Integer.parseInt(cells.group(4)),
            cells.group(3) == null ? Sheets.MOST_COLUMNS : column(cells.group(3))
        };
        if (range[0] > range[2] || range[1] > range[3])
            throw new UnreadableTableException("The range “" + text + "” ends before it begins.");
        return range;
    }

    /** The number of a column, from 1, by its letters. */
    static int column(String letters) {
        int column = 0;
        for (char c : letters.toUpperCase(Locale.ROOT).toCharArray()) column = column * 26 + c - 'A' + 1;
        return column;
    }

    /**
     * Finds which columns have cells, and keeps the rows of a sheet that is not too large, which need not be unpacked
     * again.
     */
    private void measure() throws IOException {
        BitSet filled = new BitSet();
        List<Kept> rows = new ArrayList<>();
        long[] cells = {0};
        within((line, row, spanned, hidden) -> {
            for (int i = 0; i < row.size(); i++) if (!row.get(i).isBlank()) filled.set(i);
            cells[0] += row.size();
            if (cells[0] <= MOST_KEPT) rows.add(new Kept(line, row.toArray(String[]::new), spanned, hidden));
            else rows.clear();
            return true;
        });
        columns = filled.stream().toArray();
        if (cells[0] > MOST_KEPT) return;
        rows.replaceAll(r -> new Kept(r.line, chosen(Arrays.asList(r.cells)), chosen(r.merged), r.hidden));
        kept = rows;
    }

    /** The cells of the columns that have some. */
    private String[] chosen(List<String> cells) {
        String[] chosen = new String[columns.length];
        for (int i = 0; i < chosen.length; i++) chosen[i] = columns[i] < cells.size() ? cells.get(columns[i]) : "";
        return chosen;
    }

    private BitSet chosen(BitSet merged) {
        if (merged.isEmpty()) return RowSource.NONE;
        BitSet chosen = new BitSet();
        for (int i = 0; i < columns.length; i++) chosen.set(i, merged.get(columns[i]));
        return chosen;
    }

    /** Shows the rows of the range that are not empty, with merged cells filled down. */
    private void within(Visitor visitor) throws IOException {
        Map<Integer, String> above = new HashMap<>();
        sheets.each(sheet, (number, cells, hidden) -> {
            if (number > range[2]) return false;
            if (number < range[0] || cells.size() < range[1] && merged.isEmpty()) return true;
            List<String> own = cells.subList(Math.min(range[1] - 1, cells.size()), Math.min(range[3], cells.size()));
            BitSet spanned = merged.isEmpty() ? RowSource.NONE : new BitSet();
            List<String> row = filledDown(number, own, above, spanned);
            for (String cell : row) if (!cell.isBlank()) return visitor.row(number, row, spanned, hidden);
            return true;
        });
    }

    @Override
    public int position(int column) {
        return columns[column];
    }

    @Override
    public List<List<String>> first(int rows) {
        List<List<String>> first = new ArrayList<>();
        try {
            each((line, cells) -> {
                List<String> row = new ArrayList<>();
                for (int i = 0; i < cells.count(); i++) row.add(cells.get(i));
                first.add(row);
                if (first.size() == rows) throw new Enough();
            });
        } catch (Enough enough) {
            // As many as were asked for.
        } catch (IOException unread) {
            throw new UnreadableTableException("The workbook cannot be read any more. Bring it in again.");
        }
        return first;
    }

    @Override
    public void each(RowSource.Visitor visitor) throws IOException {
        if (kept != null) {
            for (Kept row : kept)
                visitor.row(row.line, RowSource.cells(Arrays.asList(row.cells), row.merged, row.hidden));
            return;
        }
        // What the visitor throws is its own matter and passes through as it is.
        RuntimeException[] theirs = new RuntimeException[1];
        within((line, cells, spanned, hidden) -> {
            try {
                visitor.row(line, RowSource.cells(Arrays.asList(chosen(cells)), chosen(spanned), hidden));
                return true;
            } catch (RuntimeException stopped) {
                theirs[0] = stopped;
                return false;
            }
        });
        if (theirs[0] != null) throw theirs[0];
    }

    /**
     * The cells with those that are merged over several rows in each of them.
     *
     * @param spanned is told which of them are merged with the one above
     */
    private List<String> filledDown(int row, List<String> cells, Map<Integer, String> above, BitSet spanned) {
        if (merged.isEmpty()) return cells;
        List<String> filled = cells;
        for (var column : merged.entrySet()) {
            int at = column.getKey() - range[1];
            var reach = column.getValue().floorEntry(row);
            if (at < 0 || reach == null || row > reach.getValue()) continue;
            if (row == reach.getKey()) {
                above.put(at, at < cells.size() ? cells.get(at) : "");
            } else if (at >= cells.size() || cells.get(at).isBlank()) {
                if (filled == cells) filled = new ArrayList<>(cells);
                while (filled.size() <= at) filled.add("");
                filled.set(at, above.getOrDefault(at, ""));
                spanned.set(at);
            }
        }
        return filled;
    }
}
