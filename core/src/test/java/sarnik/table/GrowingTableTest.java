package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("A table that grows")
class GrowingTableTest {

    private static final Map<String, ColumnType> TYPES = new LinkedHashMap<>();

    static {
        TYPES.put("device", ColumnType.TEXT);
        TYPES.put("time", ColumnType.TIME);
        TYPES.put("value", ColumnType.DECIMAL);
        TYPES.put("count", ColumnType.WHOLE);
        TYPES.put("open", ColumnType.YES_NO);
        TYPES.put("day", ColumnType.DATE);
    }

    private static Object[] row(Random random) {
        return new Object[] {
            random.nextInt(5) == 0 ? null : "device " + random.nextInt(300),
            (long) random.nextInt(1_000_000),
            random.nextInt(5) == 0 ? null : random.nextInt(100) / 10.0,
            random.nextInt(5) == 0 ? null : (long) random.nextInt(50),
            random.nextInt(3) == 0 ? null : random.nextBoolean(),
            random.nextInt(3) == 0 ? null : random.nextInt(20_000)
        };
    }

    private static void assertHolds(Table table, List<Object[]> rows) {
        assertThat(table.rows()).isEqualTo(rows.size());
        int column = 0;
        for (Map.Entry<String, ColumnType> entry : TYPES.entrySet()) {
            ColumnValues values = new ColumnValues(entry.getValue(), rows.size());
            for (Object[] row : rows) values.add(row[column]);
            Column expected = values.build();
            Column found = table.column(entry.getKey());
            for (int row = 0; row < rows.size(); row++)
                assertThat(found.text(row)).isEqualTo(expected.text(row));
            column++;
        }
    }

    @Test
    void handsOutItsRowsAsTheyStandAndLaterOnesDoNotChangeThem() {
        Random random = new Random(4);
        GrowingTable growing = new GrowingTable(TYPES);
        List<Object[]> rows = new ArrayList<>();
        Map<Table, List<Object[]>> handedOut = new LinkedHashMap<>();
        for (int step = 0; step < 60; step++) {
            for (int i = random.nextInt(120); i > 0; i--) {
                Object[] row = row(random);
                growing.add(row);
                rows.add(row);
            }
            if (!rows.isEmpty() && random.nextInt(3) == 0) {
                int at = random.nextInt(rows.size());
                Object[] more = row(random);
                growing.fill(at, more);
                Object[] filled = rows.get(at).clone();
                for (int c = 0; c < filled.length; c++) if (filled[c] == null) filled[c] = more[c];
                rows.set(at, filled);
            }
            if (step % 10 == 9) {
                int leave = random.nextInt(rows.size());
                growing.dropFirst(leave);
                rows = new ArrayList<>(rows.subList(leave, rows.size()));
            }
            handedOut.put(growing.table(), List.copyOf(rows));
        }
        assertThat(growing.rows()).isEqualTo(rows.size());
        handedOut.forEach(GrowingTableTest::assertHolds);
        assertThat(growing.names()).isEqualTo(List.copyOf(TYPES.keySet()));
        assertThat(Arrays.asList(row(random))).hasSize(growing.names().size());
    }
}
