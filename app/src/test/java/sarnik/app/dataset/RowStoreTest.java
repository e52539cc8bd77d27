package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.LongStream;
import javax.sql.DataSource;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.testing.RunningSarnik;
import sarnik.table.Column;
import sarnik.table.Table;
import sarnik.table.TableParts;
import sarnik.table.WholeColumn;

@ExtendWith(RunningSarnik.class)
@DisplayName("Rows in the database")
class RowStoreTest {

    /** Of no version that there is. */
    private static final long VERSION = 999_999_001;
    /** Enough for a table that PostgreSQL lets several read together, one from where another is. */
    private static final int ROWS = 25_000;

    @Test
    void ofSeveralTablesBelongTogetherWhoeverElseReadsThem(RunningSarnik sarnik) throws Exception {
        Map<String, Column> columns = new LinkedHashMap<>();
        for (int c = 0; c <= RowStore.WIDEST; c++) {
            int column = c;
            columns.put(
                    "n" + c,
                    new WholeColumn(LongStream.range(0, ROWS)
                            .map(row -> row * 1_000 + column)
                            .toArray()));
        }
        Table table = new Table(columns);
        List<StoredColumn> stored = table.names().stream()
                .map(n -> StoredColumn.of(n, table.column(n)))
                .toList();
        RowStore store = sarnik.bean(RowStore.class);
        TransactionTemplate transaction = sarnik.bean(TransactionTemplate.class);
        transaction.executeWithoutResult(t -> store.write(VERSION, stored, TableParts.of(table), (done, all) -> {}));
        try (Connection other = sarnik.bean(DataSource.class).getConnection()) {
            other.setAutoCommit(false);
            try (var statement = other.createStatement()) {
                statement.setFetchSize(100);
                var read = statement.executeQuery("SELECT * FROM " + RowStore.table(VERSION));
                for (int row = 0; row < ROWS / 2; row++) assertThat(read.next()).isTrue();
                Table found = transaction.execute(t -> store.read(VERSION, stored, ROWS));
                WholeColumn first = (WholeColumn) found.column("n0");
                WholeColumn last = (WholeColumn) found.column("n" + RowStore.WIDEST);
                for (int row = 0; row < ROWS; row++)
                    assertThat(last.get(row) - first.get(row)).as("row %d", row).isEqualTo(RowStore.WIDEST);
            }
            other.rollback();
        } finally {
            transaction.executeWithoutResult(t -> store.drop(VERSION));
        }
    }
}
