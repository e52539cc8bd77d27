package sarnik.table;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BiPredicate;

/**
 * The rows of a file as {@link Shaping.Rows} says they are meant: without those that repeat the names of the columns, with
 * headings as a column, with cells filled down, with numbers of merged cells once. What of this there is in the file is
 * counted on the way, so that it can be said.
 */
final class MendedRows extends RowsOver {

    private static final String HEADING = "heading";
    private static final int EXAMPLES = 3;

    /** Rows that are told apart at most; they take some 40 bytes each meanwhile. */
    private static final int MOST_APART = 20_000_000;

    /** How notes below a table begin. */
    private static final String NOTE =
            "(?iu)[*†‡§©¹²³].*|[(\\[]?[0-9a-z][)\\]]\\s.*|(source|note|fuente|nota|quelle|anmerkung|hinweis|fonte|remarque)s?n?\\s*([:.].*)?";

    private final List<String> names;
    private final List<String> units;
    private final Shaping.Rows told;
    private final TotalRows sums;
    private final List<String> header;

    /** Places of columns that are filled down, in their order, and of those whose merged numbers stand once. */
    private final int[] down;

    private final boolean[] once;

    /** Columns of whose merged cell all rows so far were left out, its first among them. */
    private final BitSet headless = new BitSet();

    private long shown;
    private long repeated;
    private long lone;
    private long hidden;
    private long again;

    /** The rows so far, where they are told apart; null where they are not. */
    private LongIndex different;

    private final List<String> examples = new ArrayList<>();
    private final long[] filled;
    private final Map<Integer, MergedRun> merged = new TreeMap<>();

    /** The merged cells of a column: how many are numbers, how many are not, and the first number. */
    private static final class MergedRun {
        private long numbers;
        private long others;
        private String example;
        private int over;
        private boolean isOver;
    }

    /** @param names of the file's columns, unique */
    MendedRows(RowSource file, List<String> names, Shaping shaping) {
        super(file);
        this.names = names;
        units = file.units();
        told = shaping.rows();
        sums = new TotalRows(shaping, names);
        List<Integer> places = new ArrayList<>();
        once = new boolean[names.size()];
        for (int i = 0; i < once.length; i++) {
            if (told.filledDown().contains(names.get(i))) places.add(i);
            once[i] = told.once().contains(names.get(i));
        }
        down = places.stream().mapToInt(i -> i).toArray();
        filled = new long[down.length];
        header = new ArrayList<>(names);
        if (told.lone() == Shaping.Lone.HEADINGS) header.add(headingName());
    }

    private String headingName() {
        String name = HEADING;
        for (int i = 2; names.contains(name); i++) name = HEADING + " " + i;
        return name;
    }

    @Override
    public List<String> header() {
        return header;
    }

    @Override
    public void each(Visitor visitor) throws IOException {
        each(visitor, told.eachOnce());
    }

    /** @param apart whether rows are told apart, and those counted that are the same as one above */
    private void each(Visitor visitor, boolean apart) throws IOException {
        different = apart ? new LongIndex() : null;
        again = 0;
        shown = 0;
        repeated = 0;
        lone = 0;
        hidden = 0;
        examples.clear();
        merged.clear();
        Arrays.fill(filled, 0);
        String[] above = new String[down.length];
        String[] heading = {""};
        file.each((line, cells) -> {
            shown++;
            if (isNames(cells)) {
                repeated++;
                if (!told.names()) return;
            }
            String alone = alone(cells);
            if (alone != null) {
                lone++;
                if (examples.size() < EXAMPLES) examples.add(alone);
                heading[0] = alone;
                if (told.lone() != Shaping.Lone.KEPT) return;
            }
            if (cells.isHidden()) {
                hidden++;
                if (told.onlyShown()) {
                    leaveOut(cells, above);
                    return;
                }
            }
            boolean isMerged = (cells.isMerged() || !merged.isEmpty()) && countMerged(cells);
            boolean isFilled = down.length > 0 && sums.isNone(cells) && fillDown(cells, above);
            Cells row = !isMerged && !isFilled && header.size() == names.size()
                    ? cells
                    : mended(cells, isFilled ? above : null, heading[0]);
            if (different != null && stoodAbove(row)) {
                again++;
                if (told.eachOnce()) {
                    leaveOut(cells, above);
                    return;
                }
            }
            visitor.row(line, row);
            headless.clear();
        });
        different = null;
    }

    /** Whether a row, which is none of those that are left out as sums, is the same as one above in every cell. */
    private boolean stoodAbove(Cells row) {
        if (sums.leavesOut(row)) return false;
        long hash = RowHash.EMPTY;
        for (int i = 0; i < header.size(); i++)
            hash = RowHash.with(hash, i < row.count() ? CellText.strip(row.get(i)) : "");
        int before = different.size();
        if (before == MOST_APART)
            throw new UnreadableTableException(
                    "More than %,d rows cannot be told apart while they are read. Keep rows that stand more than once."
                            .formatted(MOST_APART));
        return different.number(hash >>> 1) < before;
    }

    /** Goes through the rows once more and counts those that are the same as one above. */
    void countAgain() throws IOException {
        each((line, cells) -> {}, true);
    }

    /** Whether the filled cells of a row are the names of their columns, or their units: those of a page that follows. */
    private boolean isNames(Cells cells) {
        return filledCells(cells, (cell, i) -> isName(cell, names.get(i))) > 1
                || !units.isEmpty()
                        && filledCells(
                                        cells,
                                        (cell, i) -> i < units.size()
                                                && GridSource.unit(cell).equals(units.get(i)))
                                > 0;
    }

    /** How many cells of a row are filled, where something holds for all of them; else none. */
    private int filledCells(Cells cells, BiPredicate<String, Integer> holds) {
        int filled = 0;
        int count = Math.min(cells.count(), names.size());
        for (int i = 0; i < count; i++) {
            String cell = cells.get(i);
            if (cell.isEmpty()) continue;
            if (!holds.test(CellText.plain(CellText.strip(cell)), i)) return 0;
            filled++;
        }
        return filled;
    }

    private static boolean isName(String cell, String name) {
        return cell.equals(name) || name.length() > cell.length() && cell.equals(TurnedSource.lastPart(name));
    }

    /**
     * What the only cell of a row says, where it is words: a heading over the rows below, or a note. Of a table of two
     * columns only what begins as notes do; null for all other rows.
     */
    private String alone(Cells cells) {
        if (names.size() < 2) return null;
        String alone = null;
        for (int i = 0; i < cells.count(); i++) {
            String cell = cells.get(i);
            if (cell.isEmpty() || CellText.isBlank(cell)) continue;
            if (alone != null) return null;
            alone = cell;
        }
        if (alone == null) return null;
        String text = CellText.strip(alone);
        boolean words =
                text.chars().anyMatch(Character::isLetter) && !CellForm.isAnyNumber(text) || text.charAt(0) == '*';
        return words && (names.size() > 2 || text.matches(NOTE)) ? text : null;
    }

    /** Takes of a row that is left out what holds in those below it, too. */
    private void leaveOut(Cells cells, String[] above) {
        if (sums.isNone(cells)) takeHeads(cells, above);
        for (int i = 0; i < once.length; i++) if (once[i] && !cells.isMerged(i)) headless.set(i);
    }

    /** Whether a cell shows what stands in a row above it that was taken. */
    private boolean isAgain(Cells cells, int column) {
        return cells.isMerged(column) && !headless.get(column);
    }

    /** Counts numbers in cells that are merged with the one above. @return whether some are to be left out */
    private boolean countMerged(Cells cells) {
        boolean any = false;
        for (int i = 0; i < Math.min(cells.count(), names.size()); i++) {
            if (!isAgain(cells, i)) {
                MergedRun run = merged.get(i);
                if (run != null) run.isOver = true;
                continue;
            }
            MergedRun run = merged.computeIfAbsent(i, column -> new MergedRun());
            String text = CellText.strip(cells.get(i));
            boolean number = CellForm.isAnyNumber(text) && !CellForm.isYear(text);
            if (number) run.numbers++;
            else run.others++;
            if (number && run.example == null) {
                run.example = text;
                run.over = 1;
                run.isOver = false;
            }
            if (number && !run.isOver) run.over++;
            any |= once[i];
        }
        return any;
    }

    /** Takes what a row has of its own. @return whether something of the rows above is to be filled in */
    private boolean fillDown(Cells cells, String[] above) {
        takeHeads(cells, above);
        boolean any = false;
        for (int i = 0; i < down.length; i++)
            if (above[i] != null && CellText.isBlank(own(cells, i))) {
                filled[i]++;
                any = true;
            }
        return any;
    }

    private void takeHeads(Cells cells, String[] above) {
        for (int i = 0; i < down.length; i++) {
            String own = own(cells, i);
            if (CellText.isBlank(own)) continue;
            above[i] = own;
            // Another group begins: what stood within the one before does not hold for it.
            for (int within = i + 1; within < down.length; within++) above[within] = null;
        }
    }

    private String own(Cells cells, int filledDown) {
        return down[filledDown] < cells.count() ? cells.get(down[filledDown]) : "";
    }

    private Cells mended(Cells cells, String[] above, String heading) {
        List<String> row = new ArrayList<>();
        for (int i = 0; i < cells.count(); i++)
            row.add(i < once.length && once[i] && isAgain(cells, i) ? "" : cells.get(i));
        if (above != null)
            for (int i = 0; i < down.length; i++) {
                while (row.size() <= down[i]) row.add("");
                if (CellText.isBlank(row.get(down[i])) && above[i] != null) row.set(down[i], above[i]);
            }
        if (header.size() > names.size()) {
            while (row.size() < names.size()) row.add("");
            row.add(names.size(), heading);
        }
        return RowSource.cells(row);
    }

    /**
     * What was found in the rows, the last time that they were gone through.
     *
     * @param gaps columns that are filled at the head of groups only, with how many rows have no cell of their own
     */
    Reading.Rows found(Map<String, Long> gaps) {
        Map<String, Long> downs = new LinkedHashMap<>();
        for (int i = 0; i < down.length; i++) downs.put(names.get(down[i]), filled[i]);
        List<Reading.Merged> numbers = new ArrayList<>();
        merged.forEach((column, run) -> {
            if (run.numbers > run.others)
                numbers.add(new Reading.Merged(names.get(column), run.example, run.over, once[column]));
        });
        // Where that is how most rows are, it is how rows of this table are.
        boolean isUsual = told.lone() == Shaping.Lone.KEPT && lone * 2 > shown;
        return new Reading.Rows(
                repeated,
                told.names(),
                isUsual ? 0 : lone,
                told.lone(),
                examples,
                gaps,
                downs,
                numbers,
                hidden,
                told.onlyShown(),
                again,
                told.eachOnce());
    }
}
