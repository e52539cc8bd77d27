package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

@DisplayName("A file that has been read as text")
class TextRowsTest {

    @TempDir
    Path directory;

    private RowSource file(String text) throws IOException {
        return CsvFile.open(Files.writeString(directory.resolve("f.csv"), text), FileChoices.NONE);
    }

    @Test
    void keepsEveryCellAndEveryRowTotalsTooAndGrowsAsFarAsItHasTo() throws IOException {
        String rows = IntStream.range(0, 5000)
                .mapToObj(i -> "t" + i % 7 + ",0" + i + ",\n")
                .collect(Collectors.joining());
        Table text = new TableReader().readAsText(file("a,b,c\n" + rows + "Total,9,\n"));
        assertThat(text.rows()).isEqualTo(5001);
        assertThat(text.column("b").text(4999)).isEqualTo("04999");
        assertThat(text.column("c").isMissing(0)).isTrue();
        assertThat(text.column("a").text(5000)).isEqualTo("Total");
        assertThatThrownBy(() -> new TableReader().readAsText(file("a,b\n")))
                .isInstanceOf(UnreadableTableException.class)
                .hasMessageContaining("no row below");
    }

    @Test
    void isReadAgainWithTypesFromAllRowsOrFromSomeSpreadOverThem() throws IOException {
        RowSource file = file("a,b\n"
                + IntStream.range(0, 1000).mapToObj(i -> i + ",x" + i + "\n").collect(Collectors.joining()));
        Table text = new TableReader().readAsText(file);
        Table all = new TableReader()
                .read(new TextRows(text, file, 1000), Shaping.NONE)
                .table();
        assertThat(all.rows()).isEqualTo(1000);
        assertThat(all.column("a").type()).isEqualTo(ColumnType.WHOLE);
        Table some = new TableReader()
                .read(new TextRows(text, file, 300), Shaping.NONE)
                .table();
        assertThat(some.rows()).isEqualTo(250);
        assertThat(List.of(some.column("b").text(0), some.column("b").text(249)))
                .containsExactly("x0", "x996");
    }

    @Test
    void valuesThatWereMetLatelyAreTheSameAsWorkedOutAnew() throws IOException {
        // Many repeats first, then none: what is kept of texts is let go of on the way.
        Random random = new Random(4);
        List<String> dates = new ArrayList<>();
        List<String> numbers = new ArrayList<>();
        for (int i = 0; i < 30_000; i++) {
            dates.add("%02d/%02d/%d"
                    .formatted(
                            1 + random.nextInt(28),
                            1 + random.nextInt(12),
                            i < 10_000 ? 2026 : 1000 + random.nextInt(2000)));
            numbers.add(
                    i < 10_000
                            ? random.nextInt(50) + "," + random.nextInt(10)
                            : random.nextInt(1_000_000) + "," + random.nextInt(1000));
        }
        StringBuilder rows = new StringBuilder("d;n\n");
        for (int i = 0; i < dates.size(); i++)
            rows.append(dates.get(i)).append(';').append(numbers.get(i)).append('\n');
        Table table =
                new TableReader().read(file(rows.toString()), Shaping.NONE).table();
        for (int i = 0; i < dates.size(); i++) {
            String[] day = dates.get(i).split("/");
            assertThat(table.column("d").text(i)).isEqualTo(day[2] + "-" + day[1] + "-" + day[0]);
            assertThat(((DecimalColumn) table.column("n")).get(i))
                    .isEqualTo(Double.parseDouble(numbers.get(i).replace(',', '.')));
        }
    }
}
