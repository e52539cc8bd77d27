package sarnik.format;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.dhatim.fastexcel.reader.SheetVisibility;
import sarnik.table.UnreadableTableException;

/** The sheets of a workbook of Office Open XML (ISO/IEC 29500). Values are those that were stored when it was saved. */
final class XlsxSheets implements Sheets {

    private static final ReadingOptions OPTIONS = new ReadingOptions(true, true);

    private final Path file;
    private final Map<String, List<Merged>> merged;
    private final Map<String, String> parts;

    /**
     * @throws UnreadableTableException when a cell lies outside what a sheet has
     */
    XlsxSheets(Path file) throws IOException {
        this.file = file;
        merged = SheetBounds.check(file);
        parts = SheetParts.of(file);
    }

    private interface Use<T> {
        T of(ReadableWorkbook book) throws IOException;
    }

    private <T> T with(Use<T> use) throws IOException {
        try (ReadableWorkbook book = new ReadableWorkbook(file.toFile(), OPTIONS)) {
            return use.of(book);
        } catch (ExcelReaderException
                | IOException
                | UncheckedIOException
                | IndexOutOfBoundsException
                | NumberFormatException
                | NullPointerException
                | IllegalStateException broken) {
            throw new UnreadableTableException(
                    "The workbook is broken inside and cannot be read. Open it, save it again as XLSX, and "
                            + "bring that in.");
        }
    }

    @Override
    public String format() {
        return "XLSX";
    }

    @Override
    public List<String> names() throws IOException {
        return with(book -> book.getSheets()
                .filter(s -> s.getVisibility() == SheetVisibility.VISIBLE)
                .map(Sheet::getName)
                .toList());
    }

    @Override
    public List<Merged> merged(String sheet) {
        return merged.getOrDefault(parts.getOrDefault(sheet, ""), List.of());
    }

    @Override
    public void each(String sheet, Rows rows) throws IOException {
        with(book -> {
            boolean from1904 = book.isDate1904();
            try (Stream<Row> stream = book.findSheet(sheet).orElseThrow().openStream()) {
                var each = stream.iterator();
                boolean more = true;
                while (more && each.hasNext()) {
                    Row row = each.next();
                    more = rows.row(row.getRowNum(), cells(row, from1904), row.isHidden());
                }
            }
            return null;
        });
    }

    /** A row's cells; a sheet leaves empty ones out. */
    private static List<String> cells(Row row, boolean from1904) {
        String[] cells = new String[Math.min(MOST_COLUMNS, row.getCellCount())];
        Arrays.fill(cells, "");
        for (Cell cell : row)
            if (cell != null && cell.getColumnIndex() < cells.length)
                cells[cell.getColumnIndex()] = text(cell, from1904);
        return Arrays.asList(cells);
    }

    private static String text(Cell cell, boolean from1904) {
        if (cell.getType() == CellType.EMPTY || cell.getType() == CellType.ERROR) return "";
        if (cell.getType() == CellType.BOOLEAN) return Boolean.TRUE.equals(cell.asBoolean()) ? "true" : "false";
        String raw = cell.getType() == CellType.STRING ? cell.asString() : cell.getRawValue();
        if (raw == null || cell.getType() == CellType.STRING) return raw == null ? "" : raw;
        return SheetCells.number(raw, cell.getDataFormatString(), from1904);
    }
}
