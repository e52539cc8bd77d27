package sarnik.app.dataset;

import jakarta.persistence.EntityManager;
import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.hibernate.Session;
import org.postgresql.PGConnection;
import org.postgresql.copy.PGCopyInputStream;
import org.postgresql.copy.PGCopyOutputStream;
import org.springframework.stereotype.Component;
import sarnik.table.Table;

/** Keeps the rows of versions in the database, a typed table each, written and read by COPY. */
@Component
class RowStore {

    private final EntityManager entities;

    RowStore(EntityManager entities) {
        this.entities = entities;
    }

    /** Makes the version's table and fills it, in the running transaction. */
    void write(long version, List<StoredColumn> columns, Table table) {
        entities.unwrap(Session.class).doWork(connection -> {
            String definitions = IntStream.range(0, columns.size())
                    .mapToObj(c -> "c" + c + " " + StoredColumn.sqlType(columns.get(c).type()))
                    .collect(Collectors.joining(", "));
            try (var statement = connection.createStatement()) {
                statement.execute("CREATE TABLE " + name(version) + " (" + definitions + ")");
            }
            try (OutputStream out = new PGCopyOutputStream(connection.unwrap(PGConnection.class), "COPY " + name(version) + " FROM STDIN (FORMAT binary)")) {
                CopyWriter.write(table, out);
            } catch (IOException failed) {
                throw new SQLException("The rows could not be written", failed);
            }
        });
    }

    /** Reads a version's rows. */
    Table read(long version, List<StoredColumn> columns, long rows) {
        return entities.unwrap(Session.class).doReturningWork(connection -> read(connection, version, columns, rows));
    }

    private static Table read(Connection connection, long version, List<StoredColumn> columns, long rows) throws SQLException {
        String query = "COPY " + name(version) + " TO STDOUT (FORMAT binary)";
        try (var in = new DataInputStream(new BufferedInputStream(new PGCopyInputStream(connection.unwrap(PGConnection.class), query), 1 << 16))) {
            return CopyReader.read(columns, Math.toIntExact(rows), in);
        } catch (IOException failed) {
            throw new SQLException("The rows of version " + version + " could not be read", failed);
        }
    }

    /** Takes a version's table away. */
    void drop(long version) {
        entities.unwrap(Session.class).doWork(connection -> {
            try (var statement = connection.createStatement()) {
                statement.execute("DROP TABLE IF EXISTS " + name(version));
            }
        });
    }

    private static String name(long version) {
        return "rows.v" + version;
    }
}
