package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("A table that is read in parts")
class TablePartsTest {

    private static final int ROWS = 120_000;

    @TempDir
    Path directory;

    /**
     * Rows with a column of each type, gaps, cells that do not fit, totals, rows of other widths.
     *
     * @param stray what stands once, far below, in the column of codes
     */
    private RowSource rows(int rows, String stray) throws IOException {
        SplittableRandom random = new SplittableRandom(16);
        StringBuilder text = new StringBuilder("code,place,day,at,litres,open\n");
        for (int row = 0; row < rows; row++) {
            String code = row == rows * 3 / 4 ? stray : String.valueOf(random.nextInt(1_000_000));
            text.append(code)
                    .append(random.nextInt(50) == 0 ? "," : ",town " + random.nextInt(20_000))
                    .append(",")
                    .append(LocalDate.EPOCH.plusDays(random.nextInt(20_000)))
                    .append(",2025-01-01T")
                    .append(LocalTime.of(random.nextInt(24), random.nextInt(60), 1))
                    .append(",")
                    .append(random.nextInt(5_000) == 0 ? "much" : random.nextInt(4_000) / 100.0)
                    .append(row % 1_000 == 7 ? "" : random.nextBoolean() ? ",yes" : ",no")
                    .append('\n');
            if (row % 40_000 == 39_999) text.append("total,,,,77,\n");
        }
        Path file = directory.resolve("rows.csv");
        Files.writeString(file, text);
        return CsvFile.open(file, FileChoices.NONE);
    }

    private static List<String> texts(Table table) {
        List<String> rows = new ArrayList<>();
        for (int row = 0; row < table.rows(); row++) {
            StringBuilder cells = new StringBuilder();
            for (String name : table.names())
                cells.append(table.column(name).text(row)).append('|');
            rows.add(cells.toString());
        }
        return rows;
    }

    @ParameterizedTest
    @ValueSource(strings = {"17", "x17"})
    void holdsTheSameRowsAsOneThatIsReadAtOnce(String stray) throws IOException {
        Reading whole = new TableReader().read(rows(ROWS, stray), Shaping.NONE);
        Reading parted = new TableReader().read(rows(ROWS, stray), Shaping.NONE, 1_500_000);
        assertThat(whole.parts().areHeld()).isTrue();
        assertThat(parted.parts().areHeld()).isFalse();
        assertThat(parted.parts().rows()).isEqualTo(ROWS);
        assertThat(parted.troubles()).isEqualTo(whole.troubles());
        assertThat(whole.troubles().total()).isGreaterThan(ROWS / 5_000 / 2);
        assertThat(parted.sums()).isEqualTo(whole.sums());
        assertThat(whole.sums().leftOut()).isEqualTo(ROWS / 40_000);
        List<Table> parts = new ArrayList<>();
        parted.parts().each((rows, all) -> {}, parts::add);
        assertThat(parts).hasSizeGreaterThan(3);
        for (Table part : parts)
            for (String name : whole.table().names())
                assertThat(part.column(name).type())
                        .as(name)
                        .isEqualTo(whole.table().column(name).type());
        assertThat(texts(Table.joined(parts))).isEqualTo(texts(whole.table()));
        assertThat(parted.parts().bytes())
                .isEqualTo(parts.stream().mapToLong(Table::bytes).sum());
    }

    @Test
    void showsSomeRowsSpreadEvenlyOverIt() throws IOException {
        Reading whole = new TableReader().read(rows(ROWS, "5"), Shaping.NONE);
        Reading parted = new TableReader().read(rows(ROWS, "5"), Shaping.NONE, 3_000_000);
        Table some = parted.table();
        assertThat(some.rows()).isBetween(SomeRows.MOST / 8, SomeRows.MOST);
        assertThat(some.bytes()).isLessThan(1_500_000);
        int step = (ROWS + some.rows() - 1) / some.rows();
        List<String> all = texts(whole.table());
        List<String> wanted = new ArrayList<>();
        for (int row = 0; row < ROWS; row += step) wanted.add(all.get(row));
        assertThat(Integer.bitCount(step)).as("a power of two").isEqualTo(1);
        assertThat(texts(some)).isEqualTo(wanted);
    }

    @Test
    void isNotHeldWhereItsTextsAreLongThoughItsRowsAreFew() throws IOException {
        StringBuilder text = new StringBuilder("name,said\n");
        for (int row = 0; row < 2_000; row++)
            text.append("n")
                    .append(row)
                    .append(',')
                    .append("words %d ".formatted(row).repeat(300))
                    .append('\n');
        Path file = directory.resolve("long.csv");
        Files.writeString(file, text);
        Reading read = new TableReader().read(CsvFile.open(file, FileChoices.NONE), Shaping.NONE, 1_000_000);
        assertThat(read.parts().rows()).isEqualTo(2_000);
        assertThat(read.table().bytes()).isLessThan(500_000);
        assertThat(read.table().rows()).isBetween(10, 200);
        List<String> names = new ArrayList<>();
        read.parts().each((rows, all) -> {}, part -> {
            for (int row = 0; row < part.rows(); row++)
                names.add(part.column("name").text(row));
        });
        assertThat(names).hasSize(2_000).startsWith("n0", "n1").endsWith("n1999");
    }

    @Test
    void isHeldWhereItFitsThoughItsFirstRowsWereWrittenInAnotherWay() throws IOException {
        Reading read = new TableReader().read(rows(20_000, "x17"), Shaping.NONE, 100_000_000);
        assertThat(read.parts().areHeld()).isTrue();
        assertThat(read.table().column("code").type()).isEqualTo(ColumnType.WHOLE);
        assertThat(read.troubles().unread()).containsEntry("code", 1L);
    }

    @Test
    void isStoppedByWhateverTakesItOrIsToldOfIt() throws IOException {
        Reading parted = new TableReader().read(rows(ROWS, "5"), Shaping.NONE, 1_500_000);
        assertThatThrownBy(() -> parted.parts().each((rows, all) -> {}, part -> {
                    throw new IOException("the disk is full");
                }))
                .isInstanceOf(IOException.class)
                .hasMessage("the disk is full");
        assertThatThrownBy(() -> parted.parts()
                        .each(
                                (rows, all) -> {
                                    assertThat(all).isEqualTo(ROWS + ROWS / 40_000);
                                    throw new CancellationException();
                                },
                                part -> {}))
                .isInstanceOf(CancellationException.class);
    }

    @Test
    void canBeTurnedWhereItsColumnsAreNamedByPeriods() throws IOException {
        StringBuilder text = new StringBuilder("kiosk,2021,2022,2023\n");
        for (int row = 0; row < 40_000; row++) text.append("K").append(row).append(",1,2,3\n");
        Path file = directory.resolve("wide.csv");
        Files.writeString(file, text);
        Shaping turned = Shaping.ofTurn(new Shaping.Turn(List.of("2021", "2022", "2023"), "year", "litres"));
        Reading read = new TableReader().read(CsvFile.open(file, FileChoices.NONE), turned, 200_000);
        assertThat(read.parts().rows()).isEqualTo(120_000);
        assertThat(read.parts().areHeld()).isFalse();
        long[] litres = {0};
        read.parts().each((rows, all) -> {}, part -> {
            for (int row = 0; row < part.rows(); row++) litres[0] += ((WholeColumn) part.column("litres")).get(row);
        });
        assertThat(litres[0]).isEqualTo(40_000 * 6);
    }
}
