package sarnik.table;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;

/**
 * Makes a table of the rows of a file.
 *
 * <p>The rows are gone through twice: once to see how every column is written, once to fill arrays of the right kind
 * and
 * size. So a guess rests on the whole column, and memory stays near the size of the arrays. No row is dropped but rows
 * of
 * totals, and those are reported: a cell that does not fit its column becomes missing and is reported.
 *
 * <pre>{@code
 * Reading reading = new TableReader().read(CsvFile.open(file, CsvChoices.NONE), Shaping.NONE);
 * reading.table().rows();
 * reading.troubles().first();
 * }</pre>
 */
public final class TableReader {

    /** More columns than this are refused: PostgreSQL's own limit is 1,600. */
    public static final int MOST_COLUMNS = 1000;

    /** Words that usually mean "no value". */
    private static final Set<String> USUAL_MISSING = caseless(
            "-", "–", "—", "n/a", "na", "n.a.", "#n/a", "null", "none", ".", "..", "...", "?", "s/d", "n/d", "nd",
            "nan");

    /** A year, a quarter, a half or a month. */
    private static final Pattern PERIOD =
            Pattern.compile("(19|20)\\d\\d([-/ ]?([qQtThHsS][1-4]|0?[1-9]|1[0-2]))?|(0[1-9]|1[0-2])[-/](19|20)\\d\\d");

    /** What columns of times are called: long numbers in them may be seconds. */
    private static final Pattern MOMENT_NAME = Pattern.compile(
            "(?i)time|stamp|epoch|unix|(^|[_ ])ts($|[_ ])|date|fecha|hora|created|updated|moment|zeit|datum");

    private static final int REPORT_EVERY = 20_000;

    /** Is told now and then how far the reading has come; what it throws stops the reading. */
    public interface Progress {

        /**
         * @param rows rows gone through in this pass
         * @param all rows there are; 0 in the first pass, which finds out
         */
        void at(long rows, long all);
    }

    private final Progress progress;

    public TableReader() {
        this((rows, all) -> {});
    }

    public TableReader(Progress progress) {
        this.progress = progress;
    }

    /**
     * @throws UnreadableTableException when the file holds no table, or the shaping leaves none; the message says why
     *     and
     *     how to mend it
     * @throws IOException when the file cannot be read from disk
     */
    public Reading read(RowSource file, Shaping shaping) throws IOException {
        TroubleLog troubles = new TroubleLog();
        List<String> written = ColumnNames.unique(file.header(), troubles);
        List<String> periods = periods(written);
        RowSource source =
                shaping.turn() == null ? file : new TurnedSource(file, written, shaping.turn(), shaping.missing());
        List<String> columns = shaping.turn() == null ? written : source.header();

        Survey survey = survey(source, columns, shaping);
        if (survey.rows == 0) {
            throw noRow(columns.size());
        }
        boolean comma = shaping.decimalMark() == null && survey.commaEverywhere();
        boolean monthFirst = shaping.monthFirst() == null ? survey.monthFirstElsewhere() : shaping.monthFirst();
        Map<String, Reading.Said> said = new LinkedHashMap<>();
        CellForm ordered = null;
        List<ColumnBuilder> builders = new ArrayList<>();
        List<String> names = new ArrayList<>();
        Map<String, String> sources = new LinkedHashMap<>();
        for (int i = 0; i < columns.size(); i++) {
            String column = columns.get(i);
            String name = ColumnNames.clean(shaping.names().getOrDefault(column, column));
            names.add(name);
            if (shaping.dropped().contains(column)) {
                builders.add(null);
                continue;
            }
            if (sources.put(name, column) != null) {
                throw new UnreadableTableException(
                        "Two columns would be called “" + name + "”. Give one of them another name.");
            }
            ColumnType type = shaping.types().get(column);
            FormGuess guess = survey.guesses.get(i);
            CellForm form = type == null ? guess.form(comma, monthFirst) : guess.formOf(type, comma, monthFirst);
            builders.add(new ColumnBuilder(form, type != null, survey.rows));
            if (form.turned() != form) ordered = form;
            said(form, guess, shaping.monthFirst() == null && !survey.daysAreTold())
                    .ifPresent(words -> said.put(name, words));
        }
        if (sources.isEmpty()) throw new UnreadableTableException("All columns are left out. Keep at least one.");
        fill(source, names, builders, shaping, survey.sums, survey.visited, troubles);

        Map<String, Column> table = new LinkedHashMap<>();
        for (int i = 0; i < builders.size(); i++)
            if (builders.get(i) != null) table.put(names.get(i), builders.get(i).build());
        return new Reading(
                new Table(table),
                troubles.troubles(),
                file.words(),
                columns,
                sources,
                survey.missingWords(comma),
                periods,
                position(file, written, sources),
                said,
                ordered == null ? null : ordered.isMonthFirst(),
                survey.sums.found());
    }

    private static UnreadableTableException noRow(int columns) {
        return new UnreadableTableException("The file has a header of %s but no row below it. Choose a file with rows."
                .formatted(columns == 1 ? "one column" : columns + " columns"));
    }

    /** What is to be said of how a column is written; empty where it goes without saying. */
    private static Optional<Reading.Said> said(CellForm form, FormGuess guess, boolean untold) {
        List<String> words = new ArrayList<>();
        boolean either = form.turned() != form && guess.isEitherWay() && untold;
        if (!form.words().isEmpty()) words.add(form.words() + (either ? ", though nothing in the file tells" : ""));
        String unit = form.type().isNumber() ? guess.unit() : "";
        if (!unit.isEmpty()) words.add("in " + unit);
        if (form.type() == ColumnType.TEXT && guess.units().size() > 1)
            words.add("amounts in several units (" + String.join(", ", guess.units()) + "), which cannot be added up");
        return words.isEmpty()
                ? Optional.empty()
                : Optional.of(new Reading.Said(String.join(", ", words), unit, either));
    }

    /** The columns of the file's own positions by their names in the table. */
    private static List<String> position(RowSource file, List<String> written, Map<String, String> sources) {
        int at = file.positionAt();
        if (at < 0) return List.of();
        List<String> own = List.of(written.get(at), written.get(at + 1));
        List<String> names = new ArrayList<>();
        for (String column : own)
            sources.forEach((name, source) -> {
                if (source.equals(column)) names.add(name);
            });
        return names.size() == 2 ? List.copyOf(names) : List.of();
    }

    /** Reads all rows, every column as text, so that each cell stays as it was written but for blanks around it. */
    public Table readAsText(RowSource file) throws IOException {
        TroubleLog troubles = new TroubleLog();
        List<String> names = ColumnNames.unique(file.header(), troubles);
        List<ColumnBuilder> builders =
                names.stream().map(name -> new ColumnBuilder(CellForm.TEXT, 0)).toList();
        // Nothing has to be guessed, so the file is gone through once.
        Shaping asWritten = new Shaping(null, null, null, null, true, null, null);
        fill(file, names, builders, asWritten, new TotalRows(asWritten, names.size()), 0, troubles);
        Map<String, Column> table = new LinkedHashMap<>();
        for (int i = 0; i < names.size(); i++)
            table.put(names.get(i), builders.get(i).build());
        if (table.values().stream().allMatch(column -> column.size() == 0)) throw noRow(names.size());
        return new Table(table);
    }

    private static List<String> periods(List<String> names) {
        List<String> found = names.stream()
                .filter(n -> PERIOD.matcher(TurnedSource.lastPart(n)).matches())
                .toList();
        return found.size() < 3 ? List.of() : found;
    }

    /** What the first pass finds. */
    private static final class Survey {

        private final List<FormGuess> guesses = new ArrayList<>();
        private final List<Map<String, Long>> usual = new ArrayList<>();
        private final TotalRows sums;
        private int rows;
        private long visited;

        Survey(TotalRows sums) {
            this.sums = sums;
        }

        /**
         * Whether what can only be read with a decimal comma occurs, and nothing that can only be read with a point.
         */
        boolean commaEverywhere() {
            return guesses.stream().anyMatch(FormGuess::needsComma)
                    && guesses.stream().noneMatch(FormGuess::needsPoint);
        }

        /** Whether a column tells by its values which of day and month comes first. */
        boolean daysAreTold() {
            return guesses.stream().map(g -> tells(g)).anyMatch(t -> t != null);
        }

        /** Whether the columns that tell have the month first. */
        boolean monthFirstElsewhere() {
            return guesses.stream()
                    .map(g -> tells(g))
                    .filter(t -> t != null)
                    .findFirst()
                    .map(CellForm::isMonthFirst)
                    .orElse(false);
        }

        private static CellForm tells(FormGuess guess) {
            CellForm form = guess.form(false);
            return form.turned() != form && !guess.isEitherWay() ? form : null;
        }

        Map<String, Long> missingWords(boolean comma) {
            Map<String, Long> found = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
            for (int i = 0; i < guesses.size(); i++) {
                if (guesses.get(i).form(comma).type() != ColumnType.TEXT)
                    usual.get(i).forEach((word, count) -> found.merge(word, count, Long::sum));
            }
            return found;
        }
    }

    private Survey survey(RowSource source, List<String> columns, Shaping shaping) throws IOException {
        Survey survey = new Survey(new TotalRows(shaping, columns.size()));
        boolean named = !shaping.missing().isEmpty();
        boolean[] asWritten = new boolean[columns.size()];
        for (int i = 0; i < asWritten.length; i++)
            asWritten[i] = shaping.types().get(columns.get(i)) == ColumnType.TEXT
                    || shaping.dropped().contains(columns.get(i));
        columns.forEach(column -> {
            survey.guesses.add(new FormGuess(
                    shaping.decimalMark(), MOMENT_NAME.matcher(column).find()));
            survey.usual.add(new TreeMap<>(String.CASE_INSENSITIVE_ORDER));
        });
        RowBlocks blocks = new RowBlocks(
                columns.size(),
                (column, block) -> {
                    // Of what stays as it is written nothing has to be guessed.
                    if (!asWritten[column]) look(column, block, survey, named ? shaping.missing() : Set.of());
                },
                block -> {});
        source.each((line, cells) -> {
            if (++survey.visited % REPORT_EVERY == 0) progress.at(survey.visited, 0);
            if (survey.sums.count(cells)) return;
            if (survey.rows == Integer.MAX_VALUE - 8)
                throw new UnreadableTableException(
                        "The file has more than two thousand million rows. Cut it into several.");
            survey.rows++;
            blocks.add(line, cells);
        });
        blocks.close();
        for (int i = 0; i < columns.size(); i++)
            survey.guesses
                    .get(i)
                    .strangers(survey.usual.get(i).values().stream()
                            .mapToLong(n -> n)
                            .sum());
        return survey;
    }

    /** Looks at how the cells of a column are written. */
    private static void look(int column, RowBlocks.Block block, Survey survey, Set<String> missing) {
        FormGuess guess = survey.guesses.get(column);
        Map<String, Long> usual = survey.usual.get(column);
        for (int row = 0; row < block.rows(); row++) {
            String[] cells = block.cells(row);
            if (column >= cells.length) continue;
            String cell = cells[column].strip();
            if (cell.isEmpty() || missing.contains(cell)) continue;
            if (mayMeanMissing(cell) && USUAL_MISSING.contains(cell)) usual.merge(cell, 1L, Long::sum);
            // Words for "no value" say nothing about how values are written.
            else guess.see(cell);
        }
    }

    private void fill(
            RowSource source,
            List<String> names,
            List<ColumnBuilder> builders,
            Shaping shaping,
            TotalRows sums,
            long visited,
            TroubleLog troubles)
            throws IOException {
        long[] seen = {0};
        boolean named = !shaping.missing().isEmpty();
        FillTroubles amiss = new FillTroubles(names, builders, troubles);
        RowBlocks blocks = new RowBlocks(
                builders.size(),
                (column, block) -> {
                    ColumnBuilder builder = builders.get(column);
                    if (builder == null) return;
                    for (int row = 0; row < block.rows(); row++) {
                        String[] cells = block.cells(row);
                        String cell = column < cells.length ? cells[column].strip() : "";
                        if (cell.indexOf('\0') >= 0) {
                            cell = cell.replace("\0", "");
                            amiss.nullByte(row, column, cell);
                        }
                        if (named && shaping.missing().contains(cell)) cell = "";
                        if (!builder.add(cell)) amiss.unread(row, column, cell);
                    }
                },
                amiss::tell);
        source.each((line, cells) -> {
            if (++seen[0] % REPORT_EVERY == 0) progress.at(seen[0], visited);
            if (sums.leavesOut(cells)) {
                amiss.total(line, cells);
                return;
            }
            amiss.taken();
            blocks.add(line, cells);
        });
        blocks.close();
        amiss.close();
    }

    /** Whether a cell is short and begins as words for "no value" do. */
    private static boolean mayMeanMissing(String cell) {
        if (cell.length() >= 6) return false;
        return switch (cell.charAt(0)) {
            case '-', '–', '—', 'n', 'N', '#', '.', '?', 's', 'S' -> true;
            default -> false;
        };
    }

    private static Set<String> caseless(String... words) {
        Set<String> set = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        set.addAll(List.of(words));
        return set;
    }
}
