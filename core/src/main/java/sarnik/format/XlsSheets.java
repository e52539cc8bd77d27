package sarnik.format;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.poi.EncryptedDocumentException;
import org.apache.poi.hssf.OldExcelFormatException;
import org.apache.poi.hssf.eventusermodel.AbortableHSSFListener;
import org.apache.poi.hssf.eventusermodel.FormatTrackingHSSFListener;
import org.apache.poi.hssf.eventusermodel.HSSFEventFactory;
import org.apache.poi.hssf.eventusermodel.HSSFListener;
import org.apache.poi.hssf.eventusermodel.HSSFRequest;
import org.apache.poi.hssf.eventusermodel.HSSFUserException;
import org.apache.poi.hssf.record.BOFRecord;
import org.apache.poi.hssf.record.BoolErrRecord;
import org.apache.poi.hssf.record.BoundSheetRecord;
import org.apache.poi.hssf.record.CellValueRecordInterface;
import org.apache.poi.hssf.record.DateWindow1904Record;
import org.apache.poi.hssf.record.EOFRecord;
import org.apache.poi.hssf.record.FormulaRecord;
import org.apache.poi.hssf.record.LabelRecord;
import org.apache.poi.hssf.record.LabelSSTRecord;
import org.apache.poi.hssf.record.MergeCellsRecord;
import org.apache.poi.hssf.record.NumberRecord;
import org.apache.poi.hssf.record.Record;
import org.apache.poi.hssf.record.RowRecord;
import org.apache.poi.hssf.record.SSTRecord;
import org.apache.poi.hssf.record.StringRecord;
import org.apache.poi.poifs.filesystem.DirectoryNode;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.ss.usermodel.CellType;
import sarnik.table.UnreadableTableException;

/**
 * The sheets of a workbook of the older binary format (BIFF8, in a compound file), record by record, so that only one
 * row is in
 * memory. Values are those that were stored when it was saved.
 */
final class XlsSheets implements Sheets {

    private static final String BROKEN =
            "The workbook is broken inside and cannot be read. Open it, save it again as XLSX, and bring that in.";

    private final Path file;
    private Reading surveyed;

    /**
     * @throws UnreadableTableException when the compound file holds no workbook, or one that a password protects
     */
    XlsSheets(Path file) throws IOException {
        this.file = file;
        try (POIFSFileSystem compound = new POIFSFileSystem(file.toFile(), true)) {
            DirectoryNode root = compound.getRoot();
            if (root.hasEntry("EncryptedPackage")) throw new UnreadableTableException(PROTECTED);
            if (root.getEntryNames().stream()
                    .noneMatch(n -> n.equalsIgnoreCase("Workbook") || n.equalsIgnoreCase("Book"))) {
                throw new UnreadableTableException(
                        "The file holds no table: it is a document of an older office program, but no workbook. "
                                + "Save its table as XLSX or CSV and bring that in.");
            }
        } catch (UnreadableTableException said) {
            throw said;
        } catch (IOException | RuntimeException broken) {
            throw new UnreadableTableException(BROKEN);
        }
    }

    @Override
    public String format() {
        return "XLS";
    }

    @Override
    public List<String> names() throws IOException {
        return survey().sheets.stream()
                .filter(s -> !s.isHidden() && !s.isVeryHidden())
                .map(BoundSheetRecord::getSheetname)
                .toList();
    }

    @Override
    public List<Merged> merged(String sheet) throws IOException {
        return survey().merged.getOrDefault(sheet, List.of());
    }

    /** A going through without rows, once for all sheets. */
    private Reading survey() throws IOException {
        if (surveyed == null) {
            Reading reading = new Reading(null, null);
            reading.run();
            surveyed = reading;
        }
        return surveyed;
    }

    @Override
    public void each(String sheet, Rows rows) throws IOException {
        new Reading(sheet, rows).run();
    }

    /** One going through the file. */
    private final class Reading implements HSSFListener {

        private final String sheet;
        private final Rows rows;
        private final FormatTrackingHSSFListener formats = new FormatTrackingHSSFListener(this);
        private final List<BoundSheetRecord> sheets = new ArrayList<>();
        private final Map<String, List<Merged>> merged = new HashMap<>();
        private SSTRecord texts;
        private boolean from1904;
        private int part = -1;
        private int depth;
        private String name;
        private boolean wanted;
        private int row = -1;
        private String[] cells = new String[16];
        private int count;
        private final BitSet hidden = new BitSet();
        private FormulaRecord awaiting;
        private boolean enough;

        /** @param sheet null for none: only what is said of sheets is gathered */
        Reading(String sheet, Rows rows) {
            this.sheet = sheet;
            this.rows = rows;
        }

        void run() throws IOException {
            HSSFRequest request = new HSSFRequest();
            request.addListenerForAllRecords(new AbortableHSSFListener() {
                @Override
                public short abortableProcessRecord(Record record) {
                    formats.processRecord(record);
                    return (short) (enough ? 1 : 0);
                }
            });
            try (POIFSFileSystem compound = new POIFSFileSystem(file.toFile(), true)) {
                new HSSFEventFactory().abortableProcessWorkbookEvents(request, compound);
            } catch (EncryptedDocumentException locked) {
                throw new UnreadableTableException(PROTECTED);
            } catch (OldExcelFormatException old) {
                throw new UnreadableTableException(
                        "The workbook is of a format from before 1997. Open it, save it as XLSX, and bring that in.");
            } catch (HSSFUserException | IOException broken) {
                throw new UnreadableTableException(BROKEN);
            }
        }

        @Override
        public void processRecord(Record record) {
            switch (record.getSid()) {
                case BoundSheetRecord.sid -> sheets.add((BoundSheetRecord) record);
                case DateWindow1904Record.sid -> from1904 = ((DateWindow1904Record) record).getWindowing() == 1;
                case SSTRecord.sid -> texts = (SSTRecord) record;
                case BOFRecord.sid -> began();
                case EOFRecord.sid -> ended();
                case MergeCellsRecord.sid -> merged((MergeCellsRecord) record);
                case RowRecord.sid -> {
                    RowRecord said = (RowRecord) record;
                    if (wanted && depth == 1) hidden.set(said.getRowNumber(), said.getZeroHeight());
                }
                case StringRecord.sid -> {
                    if (awaiting != null) cell(awaiting, ((StringRecord) record).getString());
                    awaiting = null;
                }
                default -> {
                    if (record instanceof CellValueRecordInterface cell && wanted && depth == 1 && !enough) value(cell);
                }
            }
        }

        /** The workbook's own part comes first, then each sheet; a chart within a sheet is a part within its part. */
        private void began() {
            if (depth++ > 0) return;
            name = part >= 0 && part < sheets.size()
                    ? BoundSheetRecord.orderByBofPosition(sheets)[part].getSheetname()
                    : null;
            wanted = sheet != null && sheet.equals(name);
            part++;
        }

        private void ended() {
            if (--depth > 0 || !wanted) return;
            shown();
            wanted = false;
            enough = true;
        }

        private void merged(MergeCellsRecord record) {
            if (name == null || depth != 1) return;
            for (int i = 0; i < record.getNumAreas(); i++) {
                var area = record.getAreaAt(i);
                if (area.getLastRow() > area.getFirstRow())
                    merged.computeIfAbsent(name, n -> new ArrayList<>())
                            .add(new Merged(area.getFirstRow() + 1, area.getLastRow() + 1, area.getFirstColumn() + 1));
            }
        }

        private void value(CellValueRecordInterface cell) {
            if (cell instanceof LabelSSTRecord label)
                cell(
                        cell,
                        texts == null
                                ? ""
                                : texts.getString(label.getSSTIndex()).getString());
            else if (cell instanceof LabelRecord label) cell(cell, label.getValue());
            else if (cell instanceof NumberRecord number) cell(cell, number(cell, number.getValue()));
            else if (cell instanceof BoolErrRecord truth)
                cell(cell, truth.isBoolean() ? String.valueOf(truth.getBooleanValue()) : "");
            else if (cell instanceof FormulaRecord formula) result(formula);
        }

        /** What a formula came to when the workbook was saved; a text follows in a record of its own. */
        private void result(FormulaRecord formula) {
            CellType type = formula.getCachedResultTypeEnum();
            if (type == CellType.STRING) awaiting = formula;
            else if (type == CellType.BOOLEAN) cell(formula, String.valueOf(formula.getCachedBooleanValue()));
            else if (type == CellType.NUMERIC) cell(formula, number(formula, formula.getValue()));
        }

        private String number(CellValueRecordInterface cell, double value) {
            return SheetCells.number(String.valueOf(value), formats.getFormatString(cell), from1904);
        }

        private void cell(CellValueRecordInterface cell, String text) {
            if (cell.getRow() != row) shown();
            if (enough) return;
            row = cell.getRow();
            int column = cell.getColumn();
            if (column >= cells.length) cells = Arrays.copyOf(cells, Math.max(column + 1, 2 * cells.length));
            while (count <= column) cells[count++] = "";
            cells[column] = text;
        }

        /** Shows the row that is full. */
        private void shown() {
            if (count > 0
                    && rows != null
                    && !rows.row(row + 1, Arrays.asList(Arrays.copyOf(cells, count)), hidden.get(row))) enough = true;
            count = 0;
        }
    }
}
