package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.poi.hssf.usermodel.HSSFRow;
import org.apache.poi.hssf.usermodel.HSSFSheet;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.util.CellRangeAddress;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.table.FileChoices;
import sarnik.table.Reading;
import sarnik.table.RowSource;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;
import sarnik.table.UnreadableTableException;

@DisplayName("Sheets of workbooks in each format")
class SheetsTest {

    @TempDir
    Path directory;

    private TableFile open(byte[] bytes, FileChoices choices) throws IOException {
        return TableFile.open(Files.write(Files.createTempFile(directory, "in", ""), bytes), choices);
    }

    private Table table(byte[] bytes) throws IOException {
        return new TableReader()
                .read(open(bytes, FileChoices.NONE).rows(), Shaping.NONE)
                .table();
    }

    private static List<List<String>> rows(Table table) {
        List<List<String>> rows = new ArrayList<>();
        for (int r = 0; r < table.rows(); r++) {
            int row = r;
            rows.add(table.names().stream()
                    .map(n -> table.column(n).isMissing(row)
                            ? ""
                            : table.column(n).text(row))
                    .toList());
        }
        return rows;
    }

    /** A spreadsheet whose tables are this XML (ODF 1.3 part 3, 3.1.2). */
    private static byte[] ods(String automaticStyles, String tables) {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("mimetype", SampleFiles.bytes("application/vnd.oasis.opendocument.spreadsheet"));
        files.put(
                "content.xml",
                SampleFiles.bytes("<?xml version=\"1.0\"?><office:document-content "
                        + "xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\" "
                        + "xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
                        + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\" "
                        + "xmlns:style=\"urn:oasis:names:tc:opendocument:xmlns:style:1.0\" "
                        + "xmlns:dc=\"http://purl.org/dc/elements/1.1/\"><office:automatic-styles>"
                        + automaticStyles + "</office:automatic-styles><office:body><office:spreadsheet>"
                        + tables + "</office:spreadsheet></office:body></office:document-content>"));
        return SampleFiles.zip(files);
    }

    private static String cell(String text) {
        return "<table:table-cell office:value-type=\"string\"><text:p>" + text + "</text:p></table:table-cell>";
    }

    private static String row(String... cells) {
        return "<table:table-row>" + String.join("", cells) + "</table:table-row>";
    }

    private static String sheet(String name, String style, String... rows) {
        return "<table:table table:name=\"" + name + "\" table:style-name=\"" + style + "\">" + String.join("", rows)
                + "</table:table>";
    }

    @Test
    void cellsAndRowsThatAreRepeatedAreThereAsOftenAsTheySay() throws IOException {
        String number = "<table:table-cell table:number-columns-repeated=\"2\" office:value-type=\"float\" "
                + "office:value=\"2.50\"><text:p>2,5</text:p></table:table-cell>";
        Table table = table(ods(
                "",
                sheet(
                        "Rows",
                        "",
                        row(cell("town"), cell("a"), cell("b")),
                        row(cell("Soria"), number),
                        "<table:table-row table:number-rows-repeated=\"2\">" + cell("Burgos") + number
                                + "<table:table-cell "
                                + "table:number-columns-repeated=\"16380\"/></table:table-row>",
                        "<table:table-row table:number-rows-repeated=\"1048000\"><table:table-cell "
                                + "table:number-columns-repeated=\"16384\"/></table:table-row>")));
        assertThat(rows(table))
                .containsExactly(
                        List.of("Soria", "2.5", "2.5"),
                        List.of("Burgos", "2.5", "2.5"),
                        List.of("Burgos", "2.5", "2.5"));
    }

    @Test
    void whatIsRepeatedWithoutEndIsRefused() {
        byte[] bomb = ods(
                "",
                sheet(
                        "Rows",
                        "",
                        row(cell("a")),
                        "<table:table-row table:number-rows-repeated=\"1048000\"><table:table-cell "
                                + "table:number-columns-repeated=\"16384\" office:value-type=\"float\" "
                                + "office:value=\"1\"/></table:table-row>"));
        assertThatThrownBy(() -> open(bomb, FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("repeats cells more than");
    }

    @Test
    void hiddenSheetsNotesAndWhatOnlyShowsAreNoRows() throws IOException {
        String hidden =
                "<style:style style:name=\"ta2\"><style:table-properties table:display=\"false\"/></style:style>";
        String noted = "<table:table-cell "
                + "office:value-type=\"string\"><office:annotation><dc:creator>A</dc:creator><text:p>a "
                + "note</text:p></office:annotation><text:p>So<text:span>ria</text:span><text:s "
                + "text:c=\"2\"/>x</text:p><text:p>below</text:p></table:table-cell>";
        String percent = "<table:table-cell office:value-type=\"percentage\" office:value=\"0.125\"><text:p>13 "
                + "%</text:p></table:table-cell>";
        TableFile file = open(
                ods(
                        hidden,
                        sheet("Old", "ta2", row(cell("x")), row(cell("1")))
                                + sheet(
                                        "Now",
                                        "ta1",
                                        "<table:table-header-rows>" + row(cell("town"), cell("share"))
                                                + "</table:table-header-rows>",
                                        row(noted, percent))),
                FileChoices.NONE);
        assertThat(file.sheets()).isEmpty();
        assertThat(file.rows().words()).isEqualTo("ODS, sheet “Now”");
        assertThat(rows(new TableReader().readAsText(file.rows())))
                .containsExactly(List.of("Soria  x\nbelow", "0.125"));
    }

    @Test
    void aWorkbookWhoseSheetsAreAllHiddenHasNone() {
        byte[] hidden = ods(
                "<style:style style:name=\"ta2\"><style:table-properties table:display=\"false\"/></style:style>",
                sheet("Old", "ta2", row(cell("x")), row(cell("1"))));
        assertThatThrownBy(() -> open(hidden, FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("no sheet that can be seen");
    }

    @Test
    void mergedCellsHoldInEachRow() throws IOException {
        String merged = "<table:table-cell table:number-rows-spanned=\"2\" "
                + "office:value-type=\"string\"><text:p>Soria</text:p></table:table-cell>";
        assertThat(rows(table(ods(
                        "",
                        sheet(
                                "Rows",
                                "",
                                row(cell("province"), cell("town")),
                                row(merged, cell("Soria")),
                                row("<table:covered-table-cell/>", cell("Almazán")),
                                row(cell("Burgos"), cell("Lerma")))))))
                .containsExactly(List.of("Soria", "Soria"), List.of("Soria", "Almazán"), List.of("Burgos", "Lerma"));
    }

    @Nested
    @DisplayName("rows that the sheet does not show")
    class Hidden {

        private void areSaidAndLeftOutByOnePress(byte[] book) throws IOException {
            RowSource file = open(book, FileChoices.NONE).rows();
            Reading all = new TableReader().read(file, Shaping.NONE);
            assertThat(all.rows().hidden()).isEqualTo(3);
            assertThat(all.rows().onlyShown()).isFalse();
            assertThat(all.table().rows()).isEqualTo(5);
            Reading some = new TableReader()
                    .read(
                            file,
                            Shaping.NONE.withRows(new Shaping.Rows(null, null, null, null, true, true, null, null)));
            assertThat(some.rows().hidden()).isEqualTo(3);
            assertThat(some.rows().onlyShown()).isTrue();
            assertThat(rows(some.table())).containsExactly(List.of("Town 1", "1"), List.of("Town 5", "5"));
        }

        @Test
        void ofAWorkbookOfToday() throws IOException {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            try (Workbook book = new Workbook(out, "Test", "1.0")) {
                Worksheet sheet = book.newWorksheet("Rows");
                sheet.value(0, 0, "town");
                sheet.value(0, 1, "litres");
                for (int r = 1; r <= 5; r++) {
                    sheet.value(r, 0, "Town " + r);
                    sheet.value(r, 1, r);
                }
                for (int r : new int[] {2, 3, 4, 9}) sheet.hideRow(r);
            }
            areSaidAndLeftOutByOnePress(out.toByteArray());
        }

        @Test
        void ofAnOlderWorkbook() throws IOException {
            HSSFWorkbook book = new HSSFWorkbook();
            // What another sheet hides is its own matter.
            for (String name : List.of("Rows", "Others")) {
                HSSFSheet sheet = book.createSheet(name);
                sheet.createRow(0).createCell(0).setCellValue("town");
                sheet.getRow(0).createCell(1).setCellValue("litres");
                for (int r = 1; r <= 5; r++) {
                    HSSFRow row = sheet.createRow(r);
                    row.createCell(0).setCellValue("Town " + r);
                    row.createCell(1).setCellValue(r);
                    row.setZeroHeight(name.equals("Rows") == (r > 1 && r < 5));
                }
            }
            areSaidAndLeftOutByOnePress(written(book));
        }

        @Test
        void ofAnOpenDocument() throws IOException {
            String folded = "<table:table-row-group table:display=\"false\"><table:table-row-group>"
                    + row(cell("Town 4"), cell("4")) + "</table:table-row-group></table:table-row-group>";
            areSaidAndLeftOutByOnePress(ods(
                    "",
                    sheet(
                            "Rows",
                            "",
                            row(cell("town"), cell("litres")),
                            "<table:table-row-group>" + row(cell("Town 1"), cell("1")) + "</table:table-row-group>",
                            row(cell("Town 2"), cell("2")).replaceFirst("row", "row table:visibility=\"filter\""),
                            row(cell("Town 3"), cell("3")).replaceFirst("row", "row table:visibility=\"collapse\""),
                            folded,
                            row(cell("Town 5"), cell("5")).replaceFirst("row", "row table:visibility=\"visible\""))));
        }
    }

    @Test
    void otherDocumentsAndProtectedOnesAreSaidToBeSuch() {
        byte[] text = SampleFiles.zip(Map.of(
                "mimetype",
                SampleFiles.bytes("application/vnd.oasis.opendocument.text"),
                "content.xml",
                SampleFiles.bytes("<a/>")));
        assertThatThrownBy(() -> open(text, FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("no spreadsheet");
        byte[] locked = SampleFiles.zip(Map.of(
                "mimetype",
                SampleFiles.bytes("application/vnd.oasis.opendocument.spreadsheet"),
                "META-INF/manifest.xml",
                SampleFiles.bytes("<manifest:encryption-data/>"),
                "content.xml",
                new byte[] {1, 2}));
        assertThatThrownBy(() -> open(locked, FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("protected by a password");
    }

    private static byte[] written(HSSFWorkbook book) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (book) {
            book.write(out);
        }
        return out.toByteArray();
    }

    @Test
    void anOlderWorkbookWithSeveralSheetsFormulasAndADrawing() throws IOException {
        HSSFWorkbook book = new HSSFWorkbook();
        Sheet hidden = book.createSheet("Hidden");
        hidden.createRow(0).createCell(0).setCellValue("no");
        book.setSheetHidden(0, true);
        Sheet cover = book.createSheet("Cover");
        cover.createRow(0).createCell(0).setCellValue("Report");
        cover.createDrawingPatriarch();
        Sheet sheet = book.createSheet("Rows");
        List<String> head = List.of("province", "town", "n", "twice", "said", "when");
        for (int c = 0; c < head.size(); c++)
            (c == 0 ? sheet.createRow(0) : sheet.getRow(0)).createCell(c).setCellValue(head.get(c));
        var dates = book.createCellStyle();
        dates.setDataFormat(book.createDataFormat().getFormat("yyyy-mm-dd"));
        for (int r = 1; r <= 40; r++) {
            var row = sheet.createRow(r);
            if (r % 2 == 1) row.createCell(0).setCellValue("P" + r);
            row.createCell(1).setCellValue("Town " + r);
            row.createCell(2).setCellValue(r / 4.0);
            row.createCell(3).setCellFormula("C" + (r + 1) + "*2");
            row.createCell(4).setCellFormula("\"n\"&\"" + r + "\"");
            row.createCell(5).setCellValue(java.time.LocalDate.of(2026, 1, 1).plusDays(r));
            row.getCell(5).setCellStyle(dates);
            if (r % 2 == 1) sheet.addMergedRegion(new CellRangeAddress(r, r + 1, 0, 0));
        }
        book.getCreationHelper().createFormulaEvaluator().evaluateAll();
        TableFile file = open(written(book), FileChoices.NONE);
        assertThat(file.sheets()).containsExactly("Cover", "Rows");
        assertThat(file.rows().words()).isEqualTo("XLS, sheet “Rows”");
        List<List<String>> rows =
                rows(new TableReader().read(file.rows(), Shaping.NONE).table());
        assertThat(rows).hasSize(40);
        assertThat(new TableReader().read(file.rows(), Shaping.NONE).rows().merged())
                .as("words that are merged hold for each row")
                .isEmpty();
        assertThat(rows.get(1)).containsExactly("P1", "Town 2", "0.5", "1.0", "n2", "2026-01-03");
        assertThat(rows.get(39)).containsExactly("P39", "Town 40", "10.0", "20.0", "n40", "2026-02-10");
    }

    @ParameterizedTest
    @CsvSource({"EncryptedPackage, protected by a password", "WordDocument, no workbook"})
    void aCompoundFileWithoutAWorkbookSaysWhatItIs(String entry, String said) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (POIFSFileSystem compound = new POIFSFileSystem()) {
            compound.createDocument(new java.io.ByteArrayInputStream(new byte[5000]), entry);
            compound.writeFilesystem(out);
        }
        assertThatThrownBy(() -> open(out.toByteArray(), FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining(said);
    }

    private static byte[] xlsx(String[][] cells) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Workbook book = new Workbook(out, "Test", "1.0")) {
            Worksheet sheet = book.newWorksheet("Rows");
            for (int r = 0; r < cells.length; r++) {
                for (int c = 0; c < cells[r].length; c++) {
                    sheet.style(r, c).fillColor("CCCCCC").set();
                    if (!cells[r][c].isEmpty()) sheet.value(r, c, cells[r][c]);
                }
            }
        }
        return out.toByteArray();
    }

    @Test
    void columnsThatAreOnlyColouredAreLeftOutWhereverTheyStand() throws IOException {
        Table table = table(xlsx(new String[][] {
            {"", "town", "", "n", "empty", "", ""},
            {"", "Soria", "", "1", "", "", ""},
            {"", "Burgos", "", "2", "", "", ""}
        }));
        assertThat(table.names()).containsExactly("town", "n", "empty");
        assertThat(rows(table)).containsExactly(List.of("Soria", "1", ""), List.of("Burgos", "2", ""));
    }

    @Test
    void aColumnWithoutANameGoesByItsPlaceWhateverIsLeftOutBeforeIt() throws IOException {
        assertThat(table(xlsx(new String[][] {{"town", "", "n", ""}, {"Soria", "", "1", "x"}, {"Burgos", "", "2", "y"}
                        }))
                        .names())
                .containsExactly("town", "n", "column 4");
    }

    @Test
    void theCellsOfARangeAreThoseOfItsOwnColumns() throws IOException {
        byte[] book = xlsx(new String[][] {
            {"x", "x", "x", "x"},
            {"x", "town", "", "n"},
            {"x", "Soria", "", "1"},
            {"x", "Burgos", "", "2"},
            {"x", "sum", "", "3"}
        });
        Table table = new TableReader()
                .read(
                        open(book, new FileChoices(null, null, null, null, null, null, "B2:D4"))
                                .rows(),
                        Shaping.NONE)
                .table();
        assertThat(rows(table)).isEqualTo(Arrays.asList(List.of("Soria", "1"), List.of("Burgos", "2")));
    }
}
