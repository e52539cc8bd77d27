package sarnik.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import sarnik.table.FileChoices;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;
import sarnik.table.TestTables;
import sarnik.table.UnreadableTableException;

@DisplayName("Tables that are given out")
class GivenOutTest {

    @TempDir
    Path directory;

    private static String written(TableFormat format, Table table) throws IOException {
        var out = new ByteArrayOutputStream();
        format.write(table, "rows", null, out);
        return out.toString(StandardCharsets.UTF_8);
    }

    @Test
    void textsThatASpreadsheetWouldTakeForFormulasAreMarkedOnlyForSpreadsheets() throws IOException {
        Table table = TestTables.csv(
                "name,=sum,litres", "=1+1,a,-5", "+34 600,b,2", "@x,c,3", "\"-a, b\",d,4", "plain = text,e,5");
        assertThat(written(TableFormat.CSV, table).lines())
                .contains("name,=sum,litres", "=1+1,a,-5", "+34 600,b,2", "@x,c,3");
        assertThat(written(TableFormat.SPREADSHEET_CSV, table).lines())
                .as("figures stay figures")
                .containsExactly(
                        "name,'=sum,litres",
                        "'=1+1,a,-5",
                        "'+34 600,b,2",
                        "'@x,c,3",
                        "\"'-a, b\",d,4",
                        "plain = text,e,5");
    }

    @Test
    void aSheetThatIsTooShortIsSaidBeforeAnythingIsWritten() {
        Table table = TestTables.csv("n\n" + String.join("\n", Collections.nCopies(1_048_576, "1")));
        var out = new ByteArrayOutputStream();
        assertThatThrownBy(() -> TableFormat.XLSX.write(table, "rows", null, out))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("1,048,575 rows, and there are 1,048,576");
        assertThat(out.size()).isZero();
        TableFormat.XLSX.check(TestTables.csv("n", "1"));
    }

    @Test
    void textsThatAreTooLongForACellOfASheetAreSaidBeforeAnythingIsWritten() throws IOException {
        Table table = TestTables.csv("name,notes", "a,short", "b," + "long ".repeat(7000));
        var out = new ByteArrayOutputStream();
        assertThatThrownBy(() -> TableFormat.XLSX.write(table, "rows", null, out))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("holds up to 32,767 characters, and “notes” has longer texts");
        assertThat(out.size()).isZero();
        TableFormat.XLSX.write(table.pick(new int[] {0}), "rows", null, out);
        assertThat(out.size()).as("rows that have no such text").isPositive();
    }

    @Test
    void whatASheetDoesNotKnowStandsThereAsText() throws IOException {
        Table table = TestTables.csv(
                "code,day,at",
                "12345678901234567,1850-03-01,1899-12-31 23:59",
                "-999999999999999,1900-01-01,1900-01-01 00:00",
                "999999999999999999,1900-02-28,2026-01-01 12:30");
        Path file = directory.resolve("old.xlsx");
        try (var out = Files.newOutputStream(file)) {
            TableFormat.XLSX.write(table, "rows", null, out);
        }
        Table back = new TableReader()
                .read(TableFile.open(file, FileChoices.NONE).rows(), Shaping.NONE)
                .table();
        for (String name : table.names()) {
            assertThat(back.column(name).type())
                    .as(name)
                    .isEqualTo(table.column(name).type());
            for (int row = 0; row < 3; row++)
                assertThat(back.column(name).text(row))
                        .isEqualTo(table.column(name).text(row));
        }
    }

    @ParameterizedTest
    @CsvSource({
        "12345678901234567, 12345678901234567",
        "-123456789012345678, -123456789012345678",
        "1.2345678901234568E16, 12345678901234600",
        "0.30000000000000004, 0.3",
        "0012345678901234567, 12345678901234567",
        "99999999999999999999, 100000000000000000000"
    })
    void numbersOfSheetsAreAsExactAsTheyStandThere(String stored, String read) {
        assertThat(SheetCells.plain(stored)).isEqualTo(read);
    }

    @ParameterizedTest
    @CsvSource({
        "0.4375, [h]:mm, 10.5",
        "1.5, [hh]:mm:ss, 36",
        "0.4305555555555556, [H]:MM, 10.333333",
        "0.5, [mm]:ss, 720",
        "-0.25, [s], -21600",
        "0.4375, h:mm, 10:30",
        "45000.25, '[$-409]d mmm yy h:mm', 2023-03-15T06:00",
        "0.5, '0.0\"[h]\"', 0.5"
    })
    void durationsOfSheetsAreNumbersOfTheirUnit(String stored, String format, String read) {
        assertThat(SheetCells.number(stored, format, false)).isEqualTo(read);
    }

    @ParameterizedTest
    @EnumSource(TableFormat.class)
    void namesThatDifferOnlyInTheirCaseStayApart(TableFormat format) throws IOException {
        Table table = TestTables.csv("a,A,lon,id,ID,fid,geom", "1,2,3,4,5,6,x");
        Path file = directory.resolve("rows." + format.ending());
        try (var out = Files.newOutputStream(file)) {
            format.write(table, "rows", row -> new double[] {-2.47, 41.76}, out);
        }
        Table back = new TableReader()
                .read(TableFile.open(file, FileChoices.NONE).rows(), Shaping.NONE)
                .table();
        assertThat(back.rows()).isEqualTo(1);
        List<String> cells =
                back.names().stream().map(n -> back.column(n).text(0)).toList();
        assertThat(cells).contains("1", "2", "3", "4", "5", "6", "x");
    }

    @ParameterizedTest
    @EnumSource(
            value = TableFormat.class,
            names = {"CSV", "XLSX"})
    void positionsThatTheTableHasAreNotAddedAgain(TableFormat format) throws IOException {
        Table table = TestTables.csv("name,lat,lon", "a,41.764,-2.46883", "b,,", "c,40,-3.7026");
        double[][] at = {{-2.46883, 41.764}, null, {-3.7026, 40}};
        assertThat(headerOf(format, table, at)).containsExactly("name", "lat", "lon");
        at[2] = new double[] {-5.66, 40.97};
        assertThat(headerOf(format, table, at))
                .as("one was put elsewhere by hand")
                .containsExactly("name", "lat", "lon", "lon 2", "lat 2");
        at[2] = null;
        assertThat(headerOf(format, table, at)).as("one was left out").containsExactly("name", "lat", "lon");
        assertThat(headerOf(format, TestTables.csv("name", "a", "b", "c"), at)).containsExactly("name", "lon", "lat");
    }

    @Test
    void addedPositionsAreGivenToACentimetre() throws IOException {
        var out = new ByteArrayOutputStream();
        TableFormat.CSV.write(
                TestTables.csv("name", "a"), "rows", row -> new double[] {-2.468834912345, 41.76401598765}, out);
        assertThat(out.toString(StandardCharsets.UTF_8).lines())
                .containsExactly("name,lon,lat", "a,-2.4688349,41.764016");
    }

    private List<String> headerOf(TableFormat format, Table table, double[][] at) throws IOException {
        Path file = directory.resolve("positions." + format.ending());
        try (var out = Files.newOutputStream(file)) {
            format.write(table, "rows", row -> at[row], out);
        }
        return TableFile.open(file, FileChoices.NONE).rows().header();
    }
}
