package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.testing.RunningSarnik;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;
import sarnik.table.TableDiff;
import sarnik.table.TableParts;
import sarnik.table.TableReader;

@ExtendWith(RunningSarnik.class)
@DisplayName("Newer rows beside others in the database")
class RowsBesideTest {

    private static final long BEFORE = 9_000_001;
    private static final long AFTER = 9_000_002;
    private static final int TABLES = 30;
    private static final TableReader.Progress NOBODY = (done, all) -> {};

    private RowStore store;
    private RowsBeside beside;
    private TransactionTemplate transaction;

    @BeforeEach
    void running(RunningSarnik sarnik) {
        store = sarnik.bean(RowStore.class);
        beside = sarnik.bean(RowsBeside.class);
        transaction = sarnik.bean(TransactionTemplate.class);
    }

    /** A table in two parts, neither of which is all. */
    private record InTwo(Table whole) implements TableParts {

        @Override
        public Table sample() {
            return whole.pick(IntStream.range(0, (whole.rows() + 1) / 2).toArray());
        }

        @Override
        public long rows() {
            return whole.rows();
        }

        @Override
        public long bytes() {
            return whole.bytes();
        }

        @Override
        public void each(TableReader.Progress progress, Taker taker) throws java.io.IOException {
            int half = whole.rows() / 2;
            taker.take(whole.pick(IntStream.range(0, half).toArray()));
            taker.take(whole.pick(IntStream.range(half, whole.rows()).toArray()));
        }
    }

    private static List<StoredColumn> stored(Table table) {
        return table.names().stream()
                .map(n -> StoredColumn.of(n, table.column(n)))
                .toList();
    }

    private static Table table(SplittableRandom random, int rows, int values, boolean isKeyed) {
        Map<String, List<String>> cells = new LinkedHashMap<>();
        Map<String, ColumnType> types = new LinkedHashMap<>();
        types.put("code", ColumnType.TEXT);
        types.put("day", ColumnType.DATE);
        types.put("at", ColumnType.TIME);
        types.put("litres", ColumnType.DECIMAL);
        types.put("visits", ColumnType.WHOLE);
        types.put("open", ColumnType.YES_NO);
        types.keySet().forEach(name -> cells.put(name, new ArrayList<>()));
        int code = random.nextInt(5);
        for (int row = 0; row < rows; row++) {
            code += 1 + random.nextInt(3);
            int value = random.nextInt(values);
            cells.get("code").add(isKeyed ? "K" + code : random.nextInt(4) == 0 ? null : "ü" + value % 3);
            cells.get("day").add(value == 0 ? null : "2025-01-0" + (1 + value % 9));
            cells.get("at").add(value == 1 ? null : "2025-01-01T00:00:0" + value % 3);
            cells.get("litres").add(random.nextInt(9) == 0 ? null : String.valueOf(value / 4.0));
            cells.get("visits").add(String.valueOf(value));
            cells.get("open").add(value % 3 == 0 ? null : value % 2 == 0 ? "yes" : "no");
        }
        Map<String, Column> columns = new LinkedHashMap<>();
        types.forEach((name, type) -> columns.put(name, Column.of(type, cells.get(name))));
        return new Table(columns);
    }

    private static List<String> texts(Table table) {
        return IntStream.range(0, table.rows())
                .mapToObj(row -> table.names().stream()
                        .map(name -> String.valueOf(table.column(name).text(row)))
                        .toList()
                        .toString())
                .toList();
    }

    /** What does not stand in another table of the same columns, put below it. */
    private static Table below(Table before, Table newer) {
        return before.followedBy(newer.pick(TableDiff.rowsNotIn(before, newer)));
    }

    private void beside(Table before, Table newer) {
        transaction.executeWithoutResult(t -> {
            store.write(BEFORE, stored(before), TableParts.of(before), NOBODY);
            RowsBeside.Compared compared = beside.compare(BEFORE, stored(before), new InTwo(newer), NOBODY);
            assertThat(compared.diff()).isEqualTo(TableDiff.of(before, newer));
            assertThat(compared.below()).isEqualTo(TableDiff.rowsNotIn(before, newer).length);
            t.setRollbackOnly();
        });
        for (boolean isHeld : new boolean[] {true, false})
            transaction.executeWithoutResult(t -> {
                store.write(BEFORE, stored(before), TableParts.of(before), NOBODY);
                long rows = beside.writeBelow(AFTER, BEFORE, stored(before), isHeld, new InTwo(newer), NOBODY);
                List<String> found = texts(store.read(AFTER, stored(before), rows));
                List<String> wanted = texts(below(before, newer));
                if (isHeld) assertThat(found).containsExactlyElementsOf(wanted);
                else assertThat(found).containsExactlyInAnyOrderElementsOf(wanted);
                t.setRollbackOnly();
            });
    }

    @Test
    void areComparedAsTheyAreInMemoryAndPutBelow() {
        SplittableRandom random = new SplittableRandom(30);
        int keyed = 0;
        for (int n = 0; n < TABLES; n++) {
            boolean isKeyed = n % 3 == 0;
            Table before = table(random, random.nextInt(40), 1 + random.nextInt(6), isKeyed);
            Table newer = table(random, 1 + random.nextInt(40), 1 + random.nextInt(6), isKeyed);
            if (n % 4 == 1) newer = newer.only(List.of("litres", "code", "day", "open"));
            if (n % 5 == 2) newer = newer.with(Map.of("more", newer.column("litres")));
            // Some of the rows that are there already, some of them twice.
            Table again = before.pick(
                    IntStream.range(0, before.rows()).filter(row -> row % 3 > 0).toArray());
            if (n % 2 == 0 && !isKeyed) newer = newer.followedBy(again).followedBy(again);
            if (TableDiff.of(before, newer).key() != null) keyed++;
            beside(before, newer);
        }
        assertThat(keyed).isBetween(5, TABLES / 2);
    }

    @Test
    void ofAColumnThatHasBecomeTextAreComparedByWhatIsWritten() {
        Table before = new Table(Map.of("n", Column.of(ColumnType.WHOLE, List.of("1", "2", "3"))));
        Table newer = new Table(Map.of("n", Column.of(ColumnType.TEXT, List.of("2", "3", "x", "x"))));
        transaction.executeWithoutResult(t -> {
            store.write(BEFORE, stored(before), TableParts.of(before), NOBODY);
            RowsBeside.Compared compared = beside.compare(BEFORE, stored(before), new InTwo(newer), NOBODY);
            assertThat(compared.diff()).isEqualTo(TableDiff.of(before, newer));
            assertThat(compared.diff().same()).isEqualTo(2);
            t.setRollbackOnly();
        });
    }
}
