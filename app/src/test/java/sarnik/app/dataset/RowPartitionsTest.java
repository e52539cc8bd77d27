package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.Table;
import sarnik.table.TableParts;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

@DisplayName("How rows are parted in the database")
class RowPartitionsTest {

    private static final int ROWS = 1_000;

    private static Optional<RowPartitions> of(Map<String, Column> columns) {
        Table table = new Table(new LinkedHashMap<>(columns));
        try {
            return RowPartitions.of(
                    table.names().stream()
                            .map(n -> StoredColumn.of(n, table.column(n)))
                            .toList(),
                    TableParts.of(table));
        } catch (SQLException asked) {
            throw new AssertionError("nothing is asked", asked);
        }
    }

    private static DateColumn days(java.util.function.IntUnaryOperator day) {
        return new DateColumn(IntStream.range(0, ROWS).map(day).toArray());
    }

    @Test
    void itIsByDaysOfWhichEachPartHoldsAsMany() {
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("n", new WholeColumn(LongStream.range(0, ROWS).toArray()));
        columns.put("day", days(row -> 20_000 + row * row / ROWS));
        RowPartitions parts = of(columns).orElseThrow();
        assertThat(parts.column()).isEqualTo(1);
        // A quarter of the rows lies before (ROWS / 4)², and so on.
        assertThat(parts.bounds()).containsExactly(20_062L, 20_250L, 20_562L);
        assertThat(parts.clause()).isEqualTo(" PARTITION BY RANGE (c1)");
        assertThat(parts.made("rows.v7"))
                .hasSize(5)
                .startsWith(
                        "CREATE TABLE rows.v7p0 PARTITION OF rows.v7 FOR VALUES FROM (MINVALUE) TO (DATE '1970-01-01' + 20062)")
                .endsWith("CREATE TABLE rows.v7p PARTITION OF rows.v7 DEFAULT");
    }

    @Test
    void aColumnThatMostRowsLackOrThatIsAlwaysTheSamePartsNothing() {
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("seldom", days(row -> row % 3 == 0 ? row : DateColumn.MISSING));
        columns.put("same", days(row -> (int) LocalDate.of(2026, 1, 1).toEpochDay()));
        assertThat(of(columns)).isEmpty();
        long[] seconds = LongStream.range(0, ROWS).map(row -> row * 60).toArray();
        Arrays.fill(seconds, 0, ROWS / 4, TimeColumn.MISSING);
        columns.put("at", new TimeColumn(seconds));
        RowPartitions parts = of(columns).orElseThrow();
        assertThat(parts.column()).isEqualTo(2);
        assertThat(parts.made("t").get(1))
                .contains("FROM (TIMESTAMP '1970-01-01' + ")
                .contains("INTERVAL '1 second'");
    }

    @Test
    void fewDaysMakeFewParts() {
        assertThat(of(Map.of("day", days(row -> row < ROWS / 2 ? 5 : 9)))
                        .orElseThrow()
                        .bounds())
                .isEqualTo(List.of(9L));
    }
}
