package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Geometry;
import sarnik.table.FileChoices;
import sarnik.table.Shaping;
import sarnik.table.TableReader;
import sarnik.table.UnreadableTableException;

@DisplayName("What a file says of itself is looked at before it is believed")
class BoundsTest {

    @TempDir
    private Path directory;

    private TableFile open(byte[] bytes, FileChoices choices) throws IOException {
        return TableFile.open(Files.write(directory.resolve("f"), bytes), choices);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<row r=\"2\"><c r=\"ZZZZZZ2\"><v>1</v></c></row>",
                "<row r=\"1\"><c r=\"XFE1\"><v>1</v></c></row>",
                "<row r=\"1048577\"><c r=\"A1048577\"><v>1</v></c></row>",
                "<row r=\"1\"><c r=\"A99999999999999999999\"><v>1</v></c></row>",
                "<row r=\"99999999999\"/>"
            })
    void aCellThatNoSheetHasIsRefusedBeforeARowIsMadeOfIt(String rows) {
        assertThatThrownBy(() -> open(SampleFiles.workbookOf(rows), FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("which no sheet has");
    }

    @Test
    void theLastCellOfASheetIsOne() throws IOException {
        TableFile file = open(
                SampleFiles.workbookOf("<row r=\"1\"><c r=\"A1\" t=\"inlineStr\"><is><t>a</t></is></c><c r=\"B1\" "
                        + "t=\"inlineStr\"><is><t>b</t></is></c></row><row r=\"1048576\"><c "
                        + "r=\"A1048576\"><v>7</v></c></row>"),
                FileChoices.NONE.withSheet("Stands"));
        assertThat(new TableReader()
                        .read(file.rows(), Shaping.NONE)
                        .table()
                        .column("a")
                        .text(0))
                .isEqualTo("7");
    }

    @Test
    void aShapefileThatLiesAboutItsPartsIsRefused() {
        assertThatThrownBy(() -> open(SampleFiles.shapefileThatLies(), FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("record 1 is broken");
    }

    @Test
    void whatAVisitorThrowsIsNotTakenForABrokenFile() throws IOException {
        TableFile file = open(SampleFiles.bytes("a,b\n1,2\n"), FileChoices.NONE);
        assertThatThrownBy(() -> file.rows().each((line, cells) -> {
                    throw new IllegalStateException("the visitor's own");
                }))
                .isInstanceOf(IllegalStateException.class)
                .hasMessage("the visitor's own");
        assertThatThrownBy(() -> file.rows().each((line, cells) -> {
                    throw new CancellationException();
                }))
                .isInstanceOf(CancellationException.class);
    }

    private static List<Geometry> shapes(TableFile file) throws IOException {
        List<Geometry> shapes = new ArrayList<>();
        file.features().orElseThrow().each(f -> shapes.add(f.shape()));
        return shapes;
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "PROJCS[\"Own\",GEOGCS[\"Own\",DATUM[\"Own\",SPHEROID[\"Own\",6378000,300]]],"
                        + "PROJECTION[\"Own_Way\"],UNIT[\"Meter\",1]]",
                "no description at all"
            })
    void aSystemThatIsNotSaidOrNotReadIsAskedForAndShapesHaveNoPlaceUntilThen(String prj) throws IOException {
        byte[] bytes = SampleFiles.shapefileOfPoints(prj.isEmpty() ? null : prj, new double[] {545_000, 4_624_000});
        TableFile asked = open(bytes, FileChoices.NONE);
        assertThat(asked.features().orElseThrow().asks())
                .hasValueSatisfying(s -> assertThat(s).contains("Say which it is"));
        assertThat(new TableReader()
                        .read(asked.rows(), Shaping.NONE)
                        .table()
                        .column("lon")
                        .isMissing(0))
                .isTrue();
        TableFile said = open(bytes, new FileChoices(null, null, null, null, null, null, null, 25830));
        assertThat(said.features().orElseThrow().asks()).isEmpty();
        assertThat(shapes(said).get(0).getCoordinate().x).isCloseTo(-2.459, within(0.01));
        assertThatThrownBy(() -> open(bytes, new FileChoices(null, null, null, null, null, null, null, 1)))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("EPSG:1 is not known");
    }

    @ParameterizedTest
    @ValueSource(strings = {"xl/workbook.xml", "content.xml", ""})
    void aWorkbookOfWhichTheTextsWouldFillTheMemoryIsRefusedBeforeItIsRead(String part) throws IOException {
        Path file = directory.resolve("large");
        int bytes = (256 << 20) + 1;
        if (part.isEmpty()) {
            Files.write(file, new byte[] {
                (byte) 0xD0, (byte) 0xCF, 0x11, (byte) 0xE0, (byte) 0xA1, (byte) 0xB1, 0x1A, (byte) 0xE1
            });
            try (RandomAccessFile grown = new RandomAccessFile(file.toFile(), "rw")) {
                grown.setLength(bytes);
            }
        } else {
            try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
                zip.setLevel(Deflater.NO_COMPRESSION);
                if (part.equals("content.xml")) {
                    zip.putNextEntry(new ZipEntry("mimetype"));
                    zip.write("application/vnd.oasis.opendocument.spreadsheet".getBytes(StandardCharsets.US_ASCII));
                }
                zip.putNextEntry(new ZipEntry(part));
                zip.write("<workbook/>".getBytes(StandardCharsets.US_ASCII));
                zip.putNextEntry(new ZipEntry("padding"));
                byte[] some = new byte[1 << 20];
                for (int written = 0; written < bytes; written += some.length) zip.write(some);
            }
        }
        assertThatThrownBy(() -> TableFile.open(file, FileChoices.NONE))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("so it can have up to 256 MB. Save its table as CSV or Parquet");
        Files.delete(file);
    }
}
