package sarnik.table;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Makes a table of the rows of a file.
 *
 * <p>A guess of how a column is written rests on the whole column. Columns are filled on the way as the first rows are
 * written; only where that turns out not to be how all are, the rows are gone through once more. Memory stays near the
 * size of the arrays. No row is dropped but rows
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
            "nan", ":", "#div/0!", "#value!", "#ref!", "#name?", "#num!", "#null!");

    /** What columns of dates are called: numbers in them may be days as spreadsheets count them, or months. */
    private static final Pattern DATE_NAME = Pattern.compile(
            "(?iu)(.*[^\\p{L}])?(?<!to[ _-])(date|fecha|datum|month|mes|mês|mois|monat)([^\\p{L}].*)?|day|tag|data|dia|día|jour|period|yearmonth|yyyymm");

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
        return read(file, shaping, Long.MAX_VALUE);
    }

    /**
     * The same without holding more rows than fit so much memory: of a file that has more, some are held, and the others
     * are read again when they are asked for.
     *
     * @param most bytes that columns may take while they are filled
     */
    public Reading read(RowSource file, Shaping shaping, long most) throws IOException {
        TroubleLog troubles = new TroubleLog();
        MendedRows rows = new MendedRows(
                file, ColumnNames.unique(file.header(), shaping.rows().tidy(), troubles), shaping);
        List<String> written = rows.header();
        List<String> periods = PeriodName.among(written);
        TurnedSource turned = shaping.turn() == null ? null : new TurnedSource(rows, written, shaping);
        RowSource source = turned == null ? rows : turned;
        List<String> columns = source.header();

        List<String> names = columns.stream()
                .map(column -> ColumnNames.clean(shaping.names().getOrDefault(column, column)))
                .toList();
        Filling first = new Filling(names, shaping.missing(), shaping.rows().tidy());
        Survey survey = survey(source, columns, shaping, first, most);
        if (survey.rows == 0) {
            throw noRow(columns.size());
        }
        Map<String, String> sources = new LinkedHashMap<>();
        for (int i = 0; i < columns.size(); i++)
            if (!shaping.dropped().contains(columns.get(i)) && sources.put(names.get(i), columns.get(i)) != null)
                throw new UnreadableTableException(
                        "Two columns would be called “" + names.get(i) + "”. Give one of them another name.");
        if (sources.isEmpty()) throw new UnreadableTableException("All columns are left out. Keep at least one.");
        List<CellForm> forms = survey.forms(columns, shaping);
        Map<String, Reading.Said> said = new LinkedHashMap<>();
        Map<String, List<String>> units = new LinkedHashMap<>();
        boolean isGuessed = survey.isMarkGuessed(shaping);
        List<String> marked = new ArrayList<>();
        String example = null;
        CellForm ordered = null;
        for (int i = 0; i < forms.size(); i++) {
            CellForm form = forms.get(i);
            if (form == null) continue;
            if (form.turned() != form) ordered = form;
            String name = names.get(i);
            String either =
                    isGuessed && form.type().isNumber() ? survey.guesses.get(i).markedEitherWay() : null;
            if (either != null) {
                marked.add(name);
                if (example == null) example = either;
            }
            String unit = i < source.units().size() ? source.units().get(i) : "";
            FormGuess guess = survey.guesses.get(i);
            if (form.type().isNumber())
                units.put(
                        name, guess.units().isEmpty() && !unit.isEmpty() ? List.of(unit) : List.copyOf(guess.units()));
            if (form.type() == ColumnType.TIME)
                units.put(name, guess.marked() > 0 ? List.of(Reading.OFFSET) : List.of());
            said(form, guess, unit, shaping.monthFirst() == null && !survey.daysAreTold())
                    .ifPresent(words -> said.put(name, words));
        }
        // Where all rows are written as the first ones are, they have been taken in already.
        Filled filled = first.isAs(builders(forms, columns, shaping, 0))
                ? new Filled(TableParts.of(first.table()), first.troubles())
                : new FileParts(
                                source,
                                names,
                                size -> builders(forms, columns, shaping, size),
                                shaping.missing(),
                                shaping.rows().tidy(),
                                survey.sums,
                                survey.rows,
                                survey.visited)
                        .filled(progress, first.isGivenUp() ? 0 : most, most);
        troubles.addAll(filled.troubles());
        Map<String, Long> gaps = GroupHeads.gaps(filled.parts(), sources);
        // Where what holds for a group stands at its head only, rows of several groups look alike.
        if (!shaping.rows().eachOnce() && gaps.isEmpty() && RepeatedRows.areLikely(filled.parts())) rows.countAgain();
        return new Reading(
                filled.parts().sample(),
                filled.parts(),
                troubles.troubles(),
                file.words(),
                columns,
                sources,
                survey.missingWords(survey.mark(shaping)),
                periods,
                Years.of(periods, filled.parts().sample(), sources),
                position(rows, written, sources),
                said,
                ordered == null ? null : ordered.isMonthFirst(),
                survey.sums.found(),
                new Reading.Marks(survey.mark(shaping), marked, example),
                rows.found(gaps),
                units,
                turned == null ? List.of() : List.copyOf(turned.newer()),
                turned == null ? List.of() : List.copyOf(turned.gone()));
    }

    /**
     * What came of filling columns.
     *
     * @param troubles cells and rows that could not be taken as they stood
     */
    record Filled(TableParts parts, TroubleLog troubles) {}

    private static List<ColumnBuilder> builders(List<CellForm> forms, List<String> columns, Shaping shaping, int rows) {
        List<ColumnBuilder> builders = new ArrayList<>();
        for (int i = 0; i < forms.size(); i++)
            builders.add(
                    forms.get(i) == null
                            ? null
                            : new ColumnBuilder(
                                    forms.get(i),
                                    shaping.types().get(columns.get(i)) != null,
                                    shaping.rows().tidy(),
                                    rows));
        return builders;
    }

    private static UnreadableTableException noRow(int columns) {
        return new UnreadableTableException("The file has a header of %s but no row below it. Choose a file with rows."
                .formatted(columns == 1 ? "one column" : columns + " columns"));
    }

    /**
     * What is to be said of how a column is written; empty where it goes without saying.
     *
     * @param below the unit that stands below its name; empty for none
     */
    private static Optional<Reading.Said> said(CellForm form, FormGuess guess, String below, boolean untold) {
        List<String> words = new ArrayList<>();
        boolean either = form.turned() != form && guess.isEitherWay() && untold;
        if (!form.words().isEmpty()) words.add(form.words() + (either ? ", though nothing in the file tells" : ""));
        String unit = !form.type().isNumber() ? "" : guess.units().isEmpty() ? below : guess.unit();
        if (!unit.isEmpty()) words.add("in " + unit + (guess.unit().isEmpty() ? "" : some(guess, "is beside")));
        if (form.type() == ColumnType.TIME && guess.marked() > 0)
            words.add("turned into UTC by its offset" + some(guess, "stands behind"));
        if (form.type().isNumber() && !guess.flags().isEmpty())
            words.add("without the marks behind some (" + String.join(", ", guess.flags()) + ")");
        if (guess.units().size() > 1)
            words.add("amounts in several units (" + String.join(", ", guess.units()) + "), which cannot be added up");
        return words.isEmpty()
                ? Optional.empty()
                : Optional.of(new Reading.Said(String.join(", ", words), unit, either));
    }

    /** How many cells have what is said of the column; empty where all have. */
    private static String some(FormGuess guess, String stands) {
        return guess.marked() == guess.filled()
                ? ""
                : ", which %s %,d of %,d".formatted(stands, guess.marked(), guess.filled());
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
        // Nothing has to be guessed, so the file is gone through once.
        Shaping asWritten = new Shaping(null, null, null, null, true, null, null);
        FileParts all = new FileParts(
                file,
                names,
                rows -> names.stream()
                        .map(name -> new ColumnBuilder(CellForm.TEXT, rows))
                        .toList(),
                Set.of(),
                false,
                new TotalRows(asWritten, names),
                0,
                0);
        Table table =
                all.filled(progress, Long.MAX_VALUE, Long.MAX_VALUE).parts().sample();
        if (table.rows() == 0) throw noRow(names.size());
        return table;
    }

    /** What the first pass finds. */
    private static final class Survey {

        private final List<FormGuess> guesses = new ArrayList<>();
        private final List<Map<String, Long>> usual = new ArrayList<>();
        private final TotalRows sums;
        private final Shaping.DecimalMark usualMark;
        private final int positionAt;
        private int rows;
        private long visited;

        Survey(TotalRows sums, RowSource source) {
            this.sums = sums;
            usualMark = source.usualMark();
            positionAt = source.positionAt();
        }

        /**
         * Looks at how a cell is written.
         *
         * @return forms that it fits, a bit for each; none where it is empty or means no value
         */
        long look(int column, String cell, Set<String> missing) {
            if (cell.isEmpty() || !missing.isEmpty() && missing.contains(cell)) return 0;
            if (!meansMissing(cell)) return guesses.get(column).see(cell);
            // Words for "no value" say nothing about how values are written.
            usual.get(column).merge(cell, 1L, Long::sum);
            return 0;
        }

        /** The mark before decimals that some numbers need, if no others need the other one; null where none tells. */
        private Shaping.DecimalMark toldMark() {
            boolean comma = asTheFileHasThem().anyMatch(FormGuess::needsComma);
            boolean point = asTheFileHasThem().anyMatch(FormGuess::needsPoint);
            return comma == point ? null : comma ? Shaping.DecimalMark.COMMA : Shaping.DecimalMark.POINT;
        }

        /** Whether a column is of the positions of the file's shapes, which are not written in the file itself. */
        boolean isOfPositions(int column) {
            return positionAt >= 0 && (column == positionAt || column == positionAt + 1);
        }

        private Stream<FormGuess> asTheFileHasThem() {
            return IntStream.range(0, guesses.size())
                    .filter(column -> !isOfPositions(column))
                    .mapToObj(guesses::get);
        }

        /** Whether neither the file nor anybody tells the mark before decimals. */
        boolean isMarkGuessed(Shaping shaping) {
            return shaping.decimalMark() == null && shaping.eitherMark() == null && toldMark() == null;
        }

        /**
         * The mark before decimals in numbers that can be read either way: as the rest of the file tells, or else a
         * person, or else as is likelier, the same in all of the file. Null where there is no such number.
         */
        Shaping.DecimalMark mark(Shaping shaping) {
            if (shaping.decimalMark() != null) return shaping.decimalMark();
            Shaping.DecimalMark told = toldMark();
            if (told != null) return told;
            if (shaping.eitherMark() != null) return shaping.eitherMark();
            Set<Shaping.DecimalMark> likelier = asTheFileHasThem()
                    .map(guess -> guess.likelierMark(usualMark))
                    .filter(Objects::nonNull)
                    .collect(Collectors.toSet());
            if (likelier.size() < 2) return likelier.stream().findFirst().orElse(null);
            return usualMark == null ? Shaping.DecimalMark.POINT : usualMark;
        }

        /** How the columns are written, as far as it has been looked; null for those that are left out. */
        List<CellForm> forms(List<String> columns, Shaping shaping) {
            for (int i = 0; i < guesses.size(); i++)
                guesses.get(i)
                        .strangers(
                                usual.get(i).values().stream().mapToLong(n -> n).sum());
            Shaping.DecimalMark mark = mark(shaping);
            boolean monthFirst = shaping.monthFirst() == null ? monthFirstElsewhere() : shaping.monthFirst();
            List<CellForm> forms = new ArrayList<>();
            for (int i = 0; i < columns.size(); i++) {
                ColumnType type = shaping.types().get(columns.get(i));
                FormGuess guess = guesses.get(i);
                forms.add(
                        shaping.dropped().contains(columns.get(i))
                                ? null
                                : type == null ? guess.form(mark, monthFirst) : guess.formOf(type, mark, monthFirst));
            }
            return forms;
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
            CellForm form = guess.form(null);
            return form.turned() != form && !guess.isEitherWay() ? form : null;
        }

        Map<String, Long> missingWords(Shaping.DecimalMark mark) {
            Map<String, Long> found = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
            for (int i = 0; i < guesses.size(); i++) {
                if (guesses.get(i).form(mark).type() != ColumnType.TEXT)
                    usual.get(i).forEach((word, count) -> found.merge(word, count, Long::sum));
            }
            return found;
        }
    }

    /**
     * Looks at all rows, and fills columns on the way as the first block of rows is written.
     *
     * @param first is filled, and given up when it takes more than so many bytes
     */
    private Survey survey(RowSource source, List<String> columns, Shaping shaping, Filling first, long most)
            throws IOException {
        Survey survey = new Survey(new TotalRows(shaping, columns), source);
        boolean[] asWritten = new boolean[columns.size()];
        for (int i = 0; i < asWritten.length; i++)
            asWritten[i] = shaping.types().get(columns.get(i)) == ColumnType.TEXT
                    || shaping.dropped().contains(columns.get(i));
        for (int i = 0; i < columns.size(); i++) {
            Shaping.DecimalMark mark = survey.isOfPositions(i) ? Shaping.DecimalMark.POINT : shaping.decimalMark();
            survey.guesses.add(new FormGuess(
                    mark,
                    MOMENT_NAME.matcher(columns.get(i)).find(),
                    DATE_NAME.matcher(columns.get(i)).matches(),
                    shaping.rows().tidy()));
            survey.usual.add(new TreeMap<>(String.CASE_INSENSITIVE_ORDER));
        }
        RowBlocks blocks = new RowBlocks(
                columns.size(),
                (column, block) -> {
                    // Of what stays as it is written nothing has to be guessed.
                    Filling.Look look =
                            asWritten[column] ? cell -> 0 : cell -> survey.look(column, cell, shaping.missing());
                    first.fill(column, block, look);
                },
                block -> {
                    if (!first.isBegun()) {
                        first.as(builders(survey.forms(columns, shaping), columns, shaping, block.rows()));
                        for (int column = 0; column < columns.size(); column++) first.fill(column, block);
                    }
                    first.tell(block);
                    if (!first.isGivenUp() && block.bytes() > most) first.giveUp();
                });
        source.each((line, cells) -> {
            if (++survey.visited % REPORT_EVERY == 0) progress.at(survey.visited, 0);
            if (survey.sums.count(cells)) {
                first.total(line, cells);
                return;
            }
            if (survey.rows == Integer.MAX_VALUE - 8)
                throw new UnreadableTableException(
                        "The file has more than two thousand million rows. Cut it into several.");
            survey.rows++;
            first.taken();
            blocks.add(line, cells);
        });
        blocks.flush();
        first.close();
        return survey;
    }

    /** Whether a trimmed, filled cell usually means "no value". */
    static boolean meansMissing(String cell) {
        return mayMeanMissing(cell) && USUAL_MISSING.contains(cell);
    }

    /** Whether a cell is short and begins as words for "no value" do. */
    private static boolean mayMeanMissing(String cell) {
        return switch (cell.charAt(0)) {
            case '-', '–', '—', 'n', 'N', '.', ':', '?' -> cell.length() <= 4;
            case '#' -> cell.length() <= 7;
            case 's', 'S' -> cell.length() == 3;
            default -> false;
        };
    }

    /** A set of words, compared without regard to case. */
    static Set<String> caseless(String... words) {
        Set<String> set = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        set.addAll(List.of(words));
        return set;
    }
}
