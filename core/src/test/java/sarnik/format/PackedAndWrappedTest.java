package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.GZIPOutputStream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.FileChoices;
import sarnik.table.Reading;
import sarnik.table.RowSource;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;
import sarnik.table.UnreadableTableException;

@DisplayName("Tables as people have them")
class PackedAndWrappedTest {

    private static final String CSV = "town,litres\nSoria,1\nBurgos,2\n";

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

    private static List<String> row(Table table, int row) {
        List<String> cells = new ArrayList<>();
        for (String name : table.names()) cells.add(table.column(name).text(row));
        return cells;
    }

    private static byte[] gzip(byte[] bytes) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (GZIPOutputStream packed = new GZIPOutputStream(out)) {
            packed.write(bytes);
        }
        return out.toByteArray();
    }

    @Test
    void packedTextIsUnpacked() throws IOException {
        assertThat(row(table(gzip(CSV.getBytes(StandardCharsets.UTF_8))), 1)).containsExactly("Burgos", "2");
        assertThat(row(table(SampleFiles.zip(Map.of("in/sales.csv", SampleFiles.bytes(CSV)))), 0))
                .containsExactly("Soria", "1");
    }

    @Test
    void ofSeveralFilesInAnArchiveOneIsChosen() throws IOException {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("a.csv", SampleFiles.bytes(CSV));
        files.put("b.csv", SampleFiles.bytes("x\n7\n"));
        byte[] zip = SampleFiles.zip(files);
        assertThat(open(zip, FileChoices.NONE).sheets()).containsExactly("a.csv", "b.csv");
        assertThat(new TableReader()
                        .read(open(zip, FileChoices.NONE.withSheet("b.csv")).rows(), Shaping.NONE)
                        .table()
                        .names())
                .containsExactly("x");
    }

    @Test
    void whatIsPackedBadlyIsRefusedInASentence() throws IOException {
        byte[] packed = gzip(CSV.repeat(1000).getBytes(StandardCharsets.UTF_8));
        assertThatThrownBy(() -> open(java.util.Arrays.copyOf(packed, packed.length / 2), FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("cut off");
        byte[] twice = gzip(packed);
        assertThatThrownBy(() -> open(twice, FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("packed twice");
        byte[] bomb = gzip(new byte[100 << 20]);
        assertThatThrownBy(() -> open(bomb, FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("more than 64 MB");
    }

    @ParameterizedTest
    @CsvSource({"UTF-16LE, true", "UTF-16BE, true", "UTF-16LE, false", "UTF-16BE, false", "UTF-8, true"})
    void textIsReadInTheEncodingThatItIsIn(String charset, boolean mark) throws IOException {
        String text = (mark ? "\uFEFF" : "") + "town,litres\nÁvila,1\nLogroño,2\n";
        assertThat(row(table(text.getBytes(Charset.forName(charset))), 1)).containsExactly("Logroño", "2");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"data\": [{\"town\": \"Soria\", \"n\": 1}, {\"town\": \"Burgos\", \"n\": 2}]}",
                "{\"meta\": {\"pages\": [1, 2]}, \"tags\": [\"a\"], \"results\": [{\"town\": \"Soria\", \"n\": "
                        + "1}, {\"town\": \"Burgos\", \"n\": 2}], \"next\": null}",
                "[{\"town\": \"Soria\", \"n\": 1}, {\"town\": \"Burgos\", \"n\": 2}]",
                "{\"town\": \"Soria\", \"n\": 1}\n{\"town\": \"Burgos\", \"n\": 2}"
            })
    void objectsAreRowsWhateverStandsAroundThem(String json) throws IOException {
        Table table = table(SampleFiles.bytes(json));
        assertThat(table.names()).containsExactly("town", "n");
        assertThat(row(table, 1)).containsExactly("Burgos", "2");
    }

    private static byte[] workbook(java.util.function.Consumer<Workbook> fill) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Workbook book = new Workbook(out, "Test", "1.0")) {
            fill.accept(book);
        }
        return out.toByteArray();
    }

    @Test
    void theSheetThatHoldsATableIsTakenNotTheCover() throws IOException {
        byte[] book = workbook(b -> {
            Worksheet cover = b.newWorksheet("Cover");
            cover.value(0, 0, "Annual report");
            cover.value(2, 0, "Version");
            cover.value(2, 1, "3");
            Worksheet rows = b.newWorksheet("Figures");
            for (int r = 0; r < 12; r++) {
                rows.value(r, 0, r == 0 ? "town" : "Town " + r);
                if (r == 0) rows.value(r, 1, "n");
                else rows.value(r, 1, r);
            }
        });
        TableFile file = open(book, FileChoices.NONE);
        assertThat(file.rows().words()).contains("sheet “Figures”");
        assertThat(file.sheets()).containsExactly("Cover", "Figures");
        assertThat(new TableReader().read(file.rows(), Shaping.NONE).table().rows())
                .isEqualTo(11);
        assertThat(open(book, FileChoices.NONE.withSheet("Cover")).rows().words())
                .contains("sheet “Cover”");
    }

    @Test
    void cellsMergedOverRowsHoldInEachOfThem() throws IOException {
        byte[] book = workbook(b -> {
            Worksheet rows = b.newWorksheet("Rows");
            String[][] cells = {
                {"province", "town", "n"},
                {"Soria", "Soria", "1"},
                {null, "Almazán", "2"},
                {null, "Ólvega", "3"},
                {"Burgos", "Lerma", "4"}
            };
            for (int r = 0; r < cells.length; r++)
                for (int c = 0; c < 3; c++) if (cells[r][c] != null) rows.value(r, c, cells[r][c]);
            rows.range(1, 0, 3, 0).merge();
        });
        Table table = table(book);
        assertThat(List.of(row(table, 1), row(table, 2), row(table, 3)))
                .containsExactly(
                        List.of("Soria", "Almazán", "2"),
                        List.of("Soria", "Ólvega", "3"),
                        List.of("Burgos", "Lerma", "4"));
    }

    @Test
    void numbersMergedOverRowsAreToldOf() throws IOException {
        byte[] book = workbook(b -> {
            Worksheet rows = b.newWorksheet("Rows");
            String[] names = {"province", null, "town", "budget"};
            for (int c = 0; c < 4; c++) if (names[c] != null) rows.value(0, c, names[c]);
            for (int r = 1; r < 6; r++) rows.value(r, 2, "Town " + r);
            rows.value(1, 0, "Soria");
            rows.value(4, 0, "Burgos");
            rows.value(1, 3, 500);
            rows.value(4, 3, 700);
            for (int column : new int[] {0, 3}) {
                rows.range(1, column, 3, column).merge();
                rows.range(4, column, 5, column).merge();
            }
        });
        RowSource rows = open(book, FileChoices.NONE).rows();
        assertThat(new TableReader().read(rows, Shaping.NONE).rows().merged())
                .as("the column without any cell is left out before it")
                .containsExactly(new Reading.Merged("budget", "500", 3, false));
        // Only some of the sheet's columns are in the range.
        RowSource range = open(book, new FileChoices(null, null, null, null, null, null, "C1:D6"))
                .rows();
        Shaping once =
                Shaping.NONE.withRows(new Shaping.Rows(null, Set.of("budget"), null, null, true, null, null, null));
        Table table = new TableReader().read(range, once).table();
        assertThat(row(table, 0)).containsExactly("Town 1", "500");
        assertThat(row(table, 2)).containsExactly("Town 3", null);
        assertThat(row(table, 3)).containsExactly("Town 4", "700");
    }

    @Test
    void foldersOfPlacemarksAreAColumn() throws IOException {
        Table table = table(
                SampleFiles.bytes(
                        "<kml><Document><name>All</name><Folder><name>North</name><Folder><name>Wells</name><Placemark><name>a</name><Point><coordinates>1,2</coordinates></Point></Placemark></Folder>"
                                + "<Placemark><name>b</name><Point><coordinates>1,"
                                + "3</coordinates></Point></Placemark></Folder><Placemark><name>c</name><Point><coordinates>1,4</coordinates></Point></Placemark></Document></kml>"));
        assertThat(List.of(
                        table.column("folder").text(0), table.column("folder").text(1)))
                .containsExactly("North / Wells", "North");
        assertThat(table.column("folder").isMissing(2)).isTrue();
    }

    @Test
    void anEmptyFirstLayerIsPassedOver() throws Exception {
        Path file = directory.resolve("layers.gpkg");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        TableFormat.GEOPACKAGE.write(table(SampleFiles.bytes(CSV)), "sales", row -> new double[] {1, 2}, out);
        Files.write(file, out.toByteArray());
        try (var connection = java.sql.DriverManager.getConnection("jdbc:sqlite:" + file);
                var statement = connection.createStatement()) {
            statement.execute("CREATE TABLE aaa (fid INTEGER PRIMARY KEY, x TEXT)");
            statement.execute(
                    "INSERT INTO gpkg_contents (table_name, data_type, identifier) VALUES ('aaa', 'features', 'aaa')");
        }
        TableFile opened = TableFile.open(file, FileChoices.NONE);
        assertThat(opened.sheets()).containsExactly("aaa", "sales");
        assertThat(new TableReader().read(opened.rows(), Shaping.NONE).table().rows())
                .isEqualTo(2);
    }
}
