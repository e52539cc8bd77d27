package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

@DisplayName("PostgreSQL's binary COPY format")
class CopyFormatTest {

    private static byte[] written(Table table) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (CopyWriter writer = new CopyWriter(out)) {
            writer.write(table);
        }
        return out.toByteArray();
    }

    private static Table read(byte[] bytes, ColumnType type, int rows) throws IOException {
        return CopyReader.read(
                List.of(new StoredColumn("c", type, null)), rows, new DataInputStream(new ByteArrayInputStream(bytes)));
    }

    @Test
    void aRowIsWrittenAsTheManualSays() throws IOException {
        byte[] bytes = written(new Table(Map.of("c", new WholeColumn(new long[] {258, WholeColumn.MISSING}))));
        // Signature, flags, no extension; one field of 8 bytes; one field that is missing; the trailer.
        assertThat(bytes)
                .containsExactly(
                        'P', 'G', 'C', 'O', 'P', 'Y', '\n', 0xFF, '\r', '\n', 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0,
                        8, 0, 0, 0, 0, 0, 0, 1, 2, 0, 1, 0xFF, 0xFF, 0xFF, 0xFF, 0xFF, 0xFF);
    }

    @Test
    void daysAndTimesAreCountedFromTheYear2000() throws IOException {
        byte[] day = written(new Table(Map.of("c", new DateColumn(new int[] {10_957 + 3}))));
        assertThat(day[day.length - 3]).as("the third day after 2000-01-01").isEqualTo((byte) 3);
        Table times = new Table(Map.of("c", new TimeColumn(new long[] {946_684_800L + 1, -5, 0})));
        Table back = read(written(times), ColumnType.TIME, 3);
        for (int row = 0; row < 3; row++)
            assertThat(back.column("c").text(row)).isEqualTo(times.column("c").text(row));
    }

    @Test
    void datesBeforeAndAfterComeBack() throws IOException {
        Table days = new Table(Map.of("c", new DateColumn(new int[] {-100_000, 0, 50_000, DateColumn.MISSING})));
        Table back = read(written(days), ColumnType.DATE, 4);
        for (int row = 0; row < 4; row++)
            assertThat(back.column("c").text(row)).isEqualTo(days.column("c").text(row));
    }

    @Test
    void fewerRowsThanSaidOrABrokenStreamAreNoticed() throws IOException {
        byte[] bytes = written(new Table(Map.of("c", new WholeColumn(new long[] {1, 2}))));
        assertThatThrownBy(() -> read(bytes, ColumnType.WHOLE, 3))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("2 rows where 3");
        assertThatThrownBy(() -> read(java.util.Arrays.copyOf(bytes, bytes.length - 10), ColumnType.WHOLE, 2))
                .isInstanceOf(IOException.class);
    }
}
