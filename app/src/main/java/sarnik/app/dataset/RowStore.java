package sarnik.app.dataset;

import jakarta.persistence.EntityManager;
import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.hibernate.Session;
import org.postgresql.PGConnection;
import org.postgresql.copy.PGCopyInputStream;
import org.postgresql.copy.PGCopyOutputStream;
import org.springframework.stereotype.Component;
import sarnik.table.Column;
import sarnik.table.Table;
import sarnik.table.TableParts;
import sarnik.table.TableReader;

/** Keeps the rows of versions in the database, in typed tables of their own, written and read by COPY. */
@Component
class RowStore {

    /**
     * So many columns stand in one table: a row has to fit a page of 8 kB, in which a long text leaves a pointer of 18
     * bytes
     * (PostgreSQL documentation, "TOAST"). Wider versions stand in several tables whose rows are in one order.
     */
    static final int WIDEST = 200;

    private final EntityManager entities;
    private final HeldRows held;

    RowStore(EntityManager entities, HeldRows held) {
        this.entities = entities;
        this.held = held;
    }

    /**
     * Makes the version's tables and fills them, in the running transaction. Where it will be asked there, its table is
     * parted.
     *
     * @param progress told how far it has come where the rows are read for it
     */
    void write(long version, List<StoredColumn> columns, TableParts rows, TableReader.Progress progress) {
        entities.unwrap(Session.class).doWork(connection -> {
            Optional<RowPartitions> partitions =
                    isHeld(rows, columns) ? Optional.empty() : RowPartitions.of(columns, rows);
            for (int part = 0; part < parts(columns); part++) {
                String name = name(version, part);
                make(connection, name, part(columns, part), partitions);
                copy(connection, name, part(columns, part), rows, progress);
                if (partitions.isPresent()) analyse(connection, name);
            }
        });
    }

    private boolean isHeld(TableParts rows, List<StoredColumn> columns) {
        return held.holds(rows.bytes(), columns.size());
    }

    /** Makes a table. */
    static void make(Connection connection, String name, List<StoredColumn> columns, Optional<RowPartitions> partitions)
            throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute("CREATE TABLE " + name + " (" + definitions(columns) + ")"
                    + partitions.map(RowPartitions::clause).orElse(""));
            for (String made : partitions.map(p -> p.made(name)).orElse(List.of())) statement.execute(made);
        }
    }

    /** The columns of a table, as where it is made. */
    static String definitions(List<StoredColumn> columns) {
        return IntStream.range(0, columns.size())
                .mapToObj(
                        c -> "c" + c + " " + StoredColumn.sqlType(columns.get(c).type()))
                .collect(Collectors.joining(", "));
    }

    /** Writes rows into a table. @param columns of the rows, which the table has as its first ones */
    static void copy(
            Connection connection,
            String name,
            List<StoredColumn> columns,
            TableParts rows,
            TableReader.Progress progress)
            throws SQLException {
        List<String> names = columns.stream().map(StoredColumn::name).toList();
        String into = IntStream.range(0, columns.size()).mapToObj(c -> "c" + c).collect(Collectors.joining(", "));
        try (OutputStream out = new PGCopyOutputStream(
                        connection.unwrap(PGConnection.class),
                        "COPY " + name + " (" + into + ") FROM STDIN (FORMAT binary)");
                CopyWriter writer = new CopyWriter(out)) {
            rows.each(progress, part -> writer.write(part.only(names)));
        } catch (IOException failed) {
            throw new SQLException("The rows could not be written", failed);
        }
    }

    /** Nobody else does it for a table that has partitions, and without it no plan knows how many rows they hold. */
    static void analyse(Connection connection, String name) throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute("ANALYZE " + name);
        }
    }

    /**
     * How many different values there are in some columns of a version that stands in one table.
     *
     * @param columns their numbers
     * @param most when there are more, the answer is one more than this
     */
    long distinct(long version, List<Integer> columns, long most) {
        String names = columns.stream().map(c -> "c" + c).collect(Collectors.joining(", "));
        return entities.unwrap(Session.class).doReturningWork(connection -> {
            try (var statement = connection.createStatement();
                    var answer = statement.executeQuery("SELECT count(*) FROM (SELECT DISTINCT " + names + " FROM "
                            + name(version, 0) + " LIMIT " + (most + 1) + ") AS met")) {
                answer.next();
                return answer.getLong(1);
            }
        });
    }

    /** Reads a version's rows. */
    Table read(long version, List<StoredColumn> columns, long rows) {
        return entities.unwrap(Session.class).doReturningWork(connection -> {
            try (var statement = connection.createStatement()) {
                // Every table from its first row on, whoever else reads it: rows of several tables belong together.
                statement.execute("SET LOCAL synchronize_seqscans = off");
            }
            // A wide version of an older program stands in one table.
            if (parts(columns) == 1 || !exists(connection, name(version, 1)))
                return read(connection, name(version, 0), columns, rows);
            Map<String, Column> whole = new LinkedHashMap<>();
            for (int part = 0; part < parts(columns); part++) {
                Table read = read(connection, name(version, part), part(columns, part), rows);
                read.names().forEach(n -> whole.put(n, read.column(n)));
            }
            return new Table(whole);
        });
    }

    private static Table read(Connection connection, String name, List<StoredColumn> columns, long rows)
            throws SQLException {
        try (var in = new DataInputStream(new BufferedInputStream(
                new PGCopyInputStream(
                        connection.unwrap(PGConnection.class),
                        // Of a table that has partitions only what is selected can be copied.
                        "COPY " + (isParted(connection, name) ? "(SELECT * FROM " + name + ")" : name)
                                + " TO STDOUT (FORMAT binary)"),
                1 << 16))) {
            return CopyReader.read(columns, Math.toIntExact(rows), in);
        } catch (IOException failed) {
            throw new SQLException("The rows of " + name + " could not be read", failed);
        }
    }

    private static boolean isParted(Connection connection, String name) throws SQLException {
        return isSo(connection, "SELECT relkind = 'p' FROM pg_class WHERE oid = to_regclass(?)", name);
    }

    private static boolean exists(Connection connection, String name) throws SQLException {
        return isSo(connection, "SELECT to_regclass(?) IS NOT NULL", name);
    }

    private static boolean isSo(Connection connection, String asked, String name) throws SQLException {
        try (var statement = connection.prepareStatement(asked)) {
            statement.setString(1, name);
            try (var answer = statement.executeQuery()) {
                return answer.next() && answer.getBoolean(1);
            }
        }
    }

    /**
     * Which of some values occur in a column of a version, found in the database without loading its rows.
     *
     * @param column the column's number
     */
    Set<String> occurring(long version, int columnCount, int column, Set<String> values) {
        return entities.unwrap(Session.class).doReturningWork(connection -> {
            int part = columnCount > WIDEST && exists(connection, name(version, 1)) ? column / WIDEST : 0;
            String name = "c" + (part == 0 ? column : column % WIDEST);
            Set<String> found = new HashSet<>();
            try (var statement = connection.prepareStatement(
                    "SELECT " + name + " FROM " + name(version, part) + " WHERE " + name + " = ANY (?)")) {
                statement.setArray(1, connection.createArrayOf("text", values.toArray()));
                try (var answer = statement.executeQuery()) {
                    while (answer.next()) found.add(answer.getString(1));
                }
            }
            return found;
        });
    }

    /** Takes a version's tables away. */
    void drop(long version) {
        entities.unwrap(Session.class).doWork(connection -> {
            try (var statement = connection.createStatement()) {
                for (int part = 0; part == 0 || exists(connection, name(version, part)); part++)
                    statement.execute("DROP TABLE IF EXISTS " + name(version, part));
            }
        });
    }

    private static int parts(List<StoredColumn> columns) {
        return Math.max(1, (columns.size() + WIDEST - 1) / WIDEST);
    }

    private static List<StoredColumn> part(List<StoredColumn> columns, int part) {
        return columns.subList(part * WIDEST, Math.min(columns.size(), (part + 1) * WIDEST));
    }

    /** The table of a version that has no more columns than fit one. */
    static String table(long version) {
        return name(version, 0);
    }

    private static String name(long version, int part) {
        return "rows.v" + version + (part == 0 ? "" : "_" + part);
    }
}
