package sarnik.format;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.dhatim.fastexcel.reader.SheetVisibility;
import sarnik.table.FileChoices;
import sarnik.table.Grid;
import sarnik.table.GridSource;
import sarnik.table.RowSource;
import sarnik.table.UnreadableTableException;

/**
 * A sheet of a workbook (Office Open XML, ISO/IEC 29500), read row by row. Values are those that were stored when it was
 * saved; dates and times are known by their number format.
 */
final class Workbook implements Grid {

    private static final ReadingOptions OPTIONS = new ReadingOptions(true, true);
    private static final Pattern RANGE = Pattern.compile("\\$?([A-Za-z]{1,3})\\$?(\\d{1,7})(?::\\$?([A-Za-z]{1,3})\\$?(\\d{1,7}))?");
    private static final int MOST_COLUMNS = 16_384;

    /** Rows of a sheet that are looked at to see whether it holds a table, and sheets that are looked at. */
    private static final int LOOK = 40;
    private static final int MOST_LOOKED_AT = 12;

    /** Cells of a sheet that are kept once they have been unpacked; a larger sheet is unpacked each time. */
    private static final long MOST_KEPT = 3_000_000;

    private static final Map<String, Boolean> DATES = new ConcurrentHashMap<>();

    private final Path file;
    private final String sheet;
    private final int[] range;
    private final Map<Integer, NavigableMap<Integer, Integer>> merged = new TreeMap<>();
    private int width;
    private List<Kept> kept;

    /**
     * @param range first row, first column, last row, last column, from 1
     */
    private Workbook(Path file, String sheet, int[] range) {
        this.file = file;
        this.sheet = sheet;
        this.range = range;
    }

    /** Names of the sheets that are not hidden. */
    static List<String> sheets(Path file) throws IOException {
        return with(file, book -> {
            List<String> names = book.getSheets().filter(s -> s.getVisibility() == SheetVisibility.VISIBLE).map(Sheet::getName).toList();
            if (names.isEmpty()) throw new UnreadableTableException("The workbook has no sheet that can be seen.");
            return names;
        });
    }

    static RowSource open(Path file, FileChoices choices) throws IOException {
        List<String> sheets = sheets(file);
        Map<String, List<SheetBounds.Merged>> merged = SheetBounds.check(file);
        String sheet = choices.sheet() == null ? likely(file, sheets) : choices.sheet();
        if (!sheets.contains(sheet)) throw new UnreadableTableException("The workbook has no sheet “" + sheet + "”. It has: " + String.join(", ", sheets) + ".");
        Workbook grid = new Workbook(file, sheet, range(choices.range()));
        merged.getOrDefault(SheetParts.of(file).getOrDefault(sheet, ""), List.of()).forEach(m -> {
            // The last row that it reaches, by the row and column where its value stands.
            grid.merged.computeIfAbsent(m.column(), c -> new TreeMap<>()).put(m.first(), m.last());
        });
        grid.measure();
        return new GridSource(grid, choices, "XLSX, sheet “" + sheet + "”" + (choices.range() == null ? "" : ", cells " + choices.range().toUpperCase(java.util.Locale.ROOT)));
    }

    /** The first sheet that holds a table: a cover has few cells in few rows. */
    private static String likely(Path file, List<String> sheets) throws IOException {
        if (sheets.size() == 1) return sheets.get(0);
        int most = 0;
        String best = sheets.get(0);
        for (String name : sheets.subList(0, Math.min(MOST_LOOKED_AT, sheets.size()))) {
            int rows = (int) new Workbook(file, name, range(null)).first(LOOK).stream().filter(r -> r.stream().filter(c -> !c.isBlank()).count() > 1).count();
            // A later sheet has to have much more to be taken before an earlier one.
            if (rows > 3 * most + 1) {
                most = rows;
                best = name;
            }
        }
        return best;
    }

    /** Finds how wide the widest row is, and keeps the rows of a sheet that is not too large, which need not be unpacked again. */
    private void measure() throws IOException {
        List<Kept> rows = new ArrayList<>();
        long[] cells = {0};
        each((line, row) -> {
            width = Math.max(width, row.count());
            cells[0] += row.count();
            if (cells[0] > MOST_KEPT) return;
            String[] texts = new String[row.count()];
            for (int i = 0; i < texts.length; i++) texts[i] = row.get(i);
            rows.add(new Kept(line, texts));
        });
        if (cells[0] <= MOST_KEPT) kept = rows;
    }

    /** A row that was unpacked. */
    private record Kept(long line, String[] cells) {}

    private static int[] range(String text) {
        if (text == null || text.isBlank()) return new int[] {1, 1, Integer.MAX_VALUE, MOST_COLUMNS};
        Matcher cells = RANGE.matcher(text.strip());
        if (!cells.matches()) throw new UnreadableTableException("“" + text + "” is no range of cells. Write it like B3:H200, or B3 for all from there.");
        int[] range = {Integer.parseInt(cells.group(2)), column(cells.group(1)),
            cells.group(4) == null ? Integer.MAX_VALUE : Integer.parseInt(cells.group(4)), cells.group(3) == null ? MOST_COLUMNS : column(cells.group(3))};
        if (range[0] > range[2] || range[1] > range[3]) throw new UnreadableTableException("The range “" + text + "” ends before it begins.");
        return range;
    }

    static int column(String letters) {
        int column = 0;
        for (char c : letters.toUpperCase(java.util.Locale.ROOT).toCharArray()) column = column * 26 + c - 'A' + 1;
        return column;
    }

    private interface Use<T> {
        T of(ReadableWorkbook book) throws IOException;
    }

    private static <T> T with(Path file, Use<T> use) throws IOException {
        try (ReadableWorkbook book = new ReadableWorkbook(file.toFile(), OPTIONS)) {
            return use.of(book);
        } catch (ExcelReaderException | IOException | UncheckedIOException | IndexOutOfBoundsException | NumberFormatException | NullPointerException | IllegalStateException broken) {
            throw new UnreadableTableException("The workbook is broken inside and cannot be read. Open it, save it again as XLSX, and bring that in.");
        }
    }

    @Override
    public List<List<String>> first(int rows) throws IOException {
        List<List<String>> first = new ArrayList<>();
        with(file, book -> {
            try (Stream<Row> stream = sheet(book).openStream()) {
                var each = stream.iterator();
                while (first.size() < rows && each.hasNext()) {
                    List<String> cells = cells(each.next());
                    if (cells.stream().anyMatch(c -> !c.isBlank())) first.add(cells);
                }
            }
            return null;
        });
        return first;
    }

    @Override
    public void each(RowSource.Visitor visitor) throws IOException {
        if (kept != null) {
            for (Kept row : kept) visitor.row(row.line, RowSource.cells(Arrays.asList(row.cells.length == width ? row.cells : Arrays.copyOf(row.cells, width))));
            return;
        }
        Map<Integer, String> above = new HashMap<>();
        // What the visitor throws is its own matter and passes through as it is.
        RuntimeException[] theirs = new RuntimeException[1];
        with(file, book -> {
            try (Stream<Row> stream = sheet(book).openStream()) {
                var each = stream.iterator();
                while (each.hasNext()) {
                    Row row = each.next();
                    List<String> cells = filledDown(row.getRowNum(), cells(row), above);
                    if (cells.stream().allMatch(String::isBlank)) continue;
                    try {
                        visitor.row(row.getRowNum(), RowSource.cells(cells));
                    } catch (RuntimeException stopped) {
                        theirs[0] = stopped;
                        return null;
                    }
                }
            }
            return null;
        });
        if (theirs[0] != null) throw theirs[0];
    }

    /** The cells with those that are merged over several rows in each of them. */
    private List<String> filledDown(int row, List<String> cells, Map<Integer, String> above) {
        if (merged.isEmpty()) return cells;
        String[] filled = null;
        for (var column : merged.entrySet()) {
            int at = column.getKey() - range[1];
            var reach = column.getValue().floorEntry(row);
            if (at < 0 || reach == null || row > reach.getValue()) continue;
            if (row == reach.getKey()) {
                above.put(at, at < cells.size() ? cells.get(at) : "");
            } else if (at >= cells.size() || cells.get(at).isBlank()) {
                if (filled == null) filled = Arrays.copyOf(cells.toArray(String[]::new), Math.max(cells.size(), at + 1));
                if (filled.length <= at) filled = Arrays.copyOf(filled, at + 1);
                filled[at] = above.getOrDefault(at, "");
            }
        }
        if (filled == null) return cells;
        for (int i = 0; i < filled.length; i++) if (filled[i] == null) filled[i] = "";
        return Arrays.asList(filled);
    }

    private Sheet sheet(ReadableWorkbook book) {
        return book.findSheet(sheet).orElseThrow();
    }

    /** The row's cells within the range, as many as the widest row has; a sheet leaves empty ones out. */
    private List<String> cells(Row row) {
        if (row.getRowNum() < range[0] || row.getRowNum() > range[2]) return List.of();
        int last = Math.max(width, Math.min(range[3], row.getCellCount()) - range[1] + 1);
        String[] cells = new String[Math.max(0, last)];
        Arrays.fill(cells, "");
        for (Cell cell : row) {
            if (cell == null) continue;
            int at = cell.getColumnIndex() + 1 - range[1];
            if (at >= 0 && at < cells.length && cell.getColumnIndex() < range[3]) cells[at] = text(cell);
        }
        int filled = cells.length;
        if (width == 0) while (filled > 0 && cells[filled - 1].isBlank()) filled--;
        return Arrays.asList(cells).subList(0, filled);
    }

    private static String text(Cell cell) {
        if (cell.getType() == CellType.EMPTY || cell.getType() == CellType.ERROR) return "";
        if (cell.getType() == CellType.BOOLEAN) return Boolean.TRUE.equals(cell.asBoolean()) ? "true" : "false";
        String raw = cell.getType() == CellType.STRING ? cell.asString() : cell.getRawValue();
        if (raw == null || cell.getType() == CellType.STRING) return raw == null ? "" : raw;
        if (!isNumber(raw)) return raw;
        String format = cell.getDataFormatString();
        // Few formats stand on many cells: each is looked at once.
        if (format != null && DATES.computeIfAbsent(format, Workbook::isDate)) return date(new BigDecimal(raw), format);
        return plain(raw);
    }

    /** Sign, digits with points, and an exponent. */
    private static boolean isNumber(String raw) {
        int digits = 0;
        for (int i = 0; i < raw.length(); i++) {
            char c = raw.charAt(i);
            if (c >= '0' && c <= '9') digits++;
            else if (c == 'e' || c == 'E') {
                if (digits == 0 || i + 1 == raw.length()) return false;
            } else if (c == '-' || c == '+') {
                if (i > 0 && raw.charAt(i - 1) != 'e' && raw.charAt(i - 1) != 'E') return false;
            } else if (c != '.') return false;
        }
        return digits > 0;
    }

    /** Numbers are stored with binary noise: 0.1 + 0.2 as 0.30000000000000004; fifteen digits are what a sheet shows. */
    private static String plain(String raw) {
        if (raw.length() < 15 && raw.indexOf('e') < 0 && raw.indexOf('E') < 0 && (raw.indexOf('.') < 0 || raw.charAt(raw.length() - 1) != '0') && !raw.startsWith("-0") && !raw.startsWith("+")) return raw;
        BigDecimal value = new BigDecimal(raw);
        if (value.precision() > 15) value = value.round(new java.math.MathContext(15));
        if (value.signum() == 0) return "0";
        String text = value.stripTrailingZeros().toPlainString();
        return text.length() > 40 ? String.valueOf(value.doubleValue()) : text;
    }

    /** A format with days, months, years, hours or seconds outside quotes and brackets. */
    private static boolean isDate(String format) {
        String letters = format.replaceAll("\"[^\"]*\"|\\[[^\\]]*\\]|\\\\.|_.", "").split(";", 2)[0];
        return !letters.equalsIgnoreCase("General") && letters.matches("(?i).*[dmyhs].*") && !letters.matches(".*[0#?].*[eE][+-].*");
    }

    /** Days since 1899-12-30; 1900-02-29 is counted though it never was (ISO/IEC 29500-1, 18.17.4.1). */
    private static String date(BigDecimal serial, String format) {
        long days = serial.longValue();
        long seconds = Math.round(serial.remainder(BigDecimal.ONE).doubleValue() * 86_400);
        if (days < 1 && !format.matches("(?i).*[dy].*")) return LocalTime.MIDNIGHT.plusSeconds(seconds).toString();
        if (days < 0 || days > 2_958_465) return serial.toPlainString();
        LocalDateTime at = LocalDateTime.of(1899, 12, 30, 0, 0).plusDays(days < 60 ? days + 1 : days).plusSeconds(seconds);
        return seconds == 0 && !format.matches("(?i).*[hs].*") ? at.toLocalDate().toString() : at.truncatedTo(ChronoUnit.SECONDS).toString();
    }
}
