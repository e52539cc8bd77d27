package sarnik.app.dataset;

import jakarta.persistence.EntityManager;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.hibernate.Session;
import org.springframework.stereotype.Component;
import sarnik.app.web.RefusedException;
import sarnik.table.ColumnType;
import sarnik.table.Table;
import sarnik.table.TableDiff;
import sarnik.table.TableParts;
import sarnik.table.TableReader;

/**
 * Newer rows beside those of a version that stands in one table, compared and put below them in the database, so that
 * neither has to be held. Gives what {@link TableDiff} does. Called within a transaction.
 */
@Component
class RowsBeside {

    /** Where newer rows stand until the transaction ends, with their number in the file. */
    private static final String NEWER = "newer_rows";

    /** Rows of which there are more among the newer ones, put together. */
    private static final String MORE = "more_rows";

    /** So much a sort or a table of groups may take before it goes to disk. */
    private static final String WORKING = "64MB";

    private final EntityManager entities;

    RowsBeside(EntityManager entities) {
        this.entities = entities;
    }

    /**
     * A column that both have.
     *
     * @param before its number in the version
     * @param after its number among those that are shared
     */
    private record Shared(String name, int before, int after, ColumnType type, ColumnType newerType) {

        /** Its value; where it is of another type in the other table, as text. */
        private String sql(int column) {
            return "c" + column + (type == newerType ? "" : "::text");
        }

        boolean isText() {
            return type == ColumnType.TEXT && newerType == ColumnType.TEXT;
        }
    }

    /**
     * Columns by their names, in the order of the version.
     *
     * @throws RefusedException when there is none
     */
    private static List<Shared> shared(List<StoredColumn> columns, Table newer) {
        List<Shared> shared = new ArrayList<>();
        for (int c = 0; c < columns.size(); c++) {
            String name = columns.get(c).name();
            if (newer.find(name).isPresent())
                shared.add(new Shared(
                        name,
                        c,
                        shared.size(),
                        columns.get(c).type(),
                        newer.column(name).type()));
        }
        if (shared.isEmpty())
            throw new RefusedException("The file has none of the columns that are served now. Choose another file.");
        return shared;
    }

    /**
     * What differs, and how many newer rows do not stand in the version.
     *
     * @param below rows that stand more often among the newer ones, compared whole
     */
    record Compared(TableDiff diff, long below) {}

    /** Compares newer rows with those of a version. */
    Compared compare(long version, List<StoredColumn> columns, TableParts newer, TableReader.Progress progress) {
        List<Shared> shared = shared(columns, newer.sample());
        List<String> before = columns.stream().map(StoredColumn::name).toList();
        List<String> after = newer.sample().names();
        return entities.unwrap(Session.class).doReturningWork(connection -> {
            try (Statement statement = connection.createStatement()) {
                stage(connection, statement, shared, newer, progress);
                String rows = RowStore.table(version);
                long[] whole = numbers(
                        statement,
                        "SELECT coalesce(sum(least(b, a)), 0), coalesce(sum(b), 0), coalesce(sum(a), 0) FROM "
                                + groups(shared, rows));
                Optional<Shared> key = key(statement, shared, rows);
                long same = whole[0];
                long changed = 0;
                if (key.isPresent()) {
                    long[] met = numbers(
                            statement,
                            "SELECT count(*) FILTER (WHERE ROW(" + values("b.", shared, true)
                                    + ") IS NOT DISTINCT FROM ROW("
                                    + values("a.", shared, false) + ")), count(*), 0 FROM " + rows + " AS b JOIN "
                                    + NEWER
                                    + " AS a ON b.c" + key.get().before() + " = a.c"
                                    + key.get().after());
                    same = met[0];
                    changed = met[1] - met[0];
                }
                return new Compared(
                        new TableDiff(
                                same,
                                changed,
                                whole[2] - same - changed,
                                whole[1] - same - changed,
                                key.map(Shared::name).orElse(null),
                                after.stream().filter(n -> !before.contains(n)).toList(),
                                before.stream().filter(n -> !after.contains(n)).toList()),
                        whole[2] - whole[0]);
            }
        });
    }

    /** A column of texts of which none is missing or occurs twice, here or there. */
    private static Optional<Shared> key(Statement statement, List<Shared> shared, String rows) throws SQLException {
        for (Shared column : shared)
            if (column.isText() && isKey(statement, NEWER, column.after()) && isKey(statement, rows, column.before()))
                return Optional.of(column);
        return Optional.empty();
    }

    private static boolean isKey(Statement statement, String table, int column) throws SQLException {
        // The first rows tell of nearly every column that it is none.
        for (String some : List.of(" LIMIT 10000", ""))
            if (numbers(
                            statement,
                            "SELECT (count(*) = count(k) AND count(*) = count(DISTINCT k))::int, 0, 0 FROM (SELECT c"
                                    + column + " AS k FROM " + table + some + ") AS s")[0]
                    == 0) return false;
        return true;
    }

    /**
     * Makes the table of a version out of that of another and, below it, the newer rows that do not stand there.
     *
     * @param columns of both versions
     * @param isHeld whether it will be held; if not, it is parted
     * @return how many rows it has
     */
    long writeBelow(
            long version,
            long before,
            List<StoredColumn> columns,
            boolean isHeld,
            TableParts newer,
            TableReader.Progress progress) {
        List<Shared> shared = shared(columns, newer.sample());
        return entities.unwrap(Session.class).doReturningWork(connection -> {
            try (Statement statement = connection.createStatement()) {
                stage(connection, statement, shared, newer, progress);
                String rows = RowStore.table(before);
                String into = RowStore.table(version);
                long most = numbers(statement, "SELECT (SELECT count(*) FROM " + rows + "), 0, 0")[0] + newer.rows();
                double percent = Math.min(100, 100.0 * RowPartitions.SAMPLE / most);
                Optional<RowPartitions> partitions = isHeld
                        ? Optional.empty()
                        : RowPartitions.of(
                                columns, most, column -> some(statement, shared, rows, column, columns, percent));
                RowStore.make(connection, into, columns, partitions);
                long kept = statement.executeLargeUpdate("INSERT INTO " + into + " SELECT * FROM " + rows);
                statement.execute("CREATE TEMP TABLE " + MORE + " ON COMMIT DROP AS SELECT h, i, b FROM "
                        + groups(shared, rows) + " WHERE a > b");
                RowStore.analyse(connection, MORE);
                kept += statement.executeLargeUpdate("INSERT INTO " + into + " ("
                        + shared.stream().map(s -> "c" + s.before()).collect(Collectors.joining(", "))
                        + ") SELECT "
                        + shared.stream().map(s -> "c" + s.after()).collect(Collectors.joining(", "))
                        // Of equal rows the first ones are those that are there.
                        + " FROM (SELECT s.*, m.b, row_number() OVER (PARTITION BY m.h, m.i ORDER BY s.n) AS nth FROM (SELECT *, "
                        + hashes(shared, false) + " FROM " + NEWER + ") AS s JOIN " + MORE
                        + " AS m ON s.h = m.h AND s.i = m.i) AS numbered WHERE nth > b ORDER BY n");
                RowStore.analyse(connection, into);
                return kept;
            }
        });
    }

    /** Some values of a column of days or times, as days or seconds since 1970-01-01, of both. */
    private static List<Long> some(
            Statement statement,
            List<Shared> shared,
            String rows,
            int column,
            List<StoredColumn> columns,
            double percent)
            throws SQLException {
        String number = columns.get(column).type() == ColumnType.DATE
                ? "c%d - DATE '1970-01-01'"
                : "floor(extract(epoch FROM c%d))::bigint";
        String sampled = " TABLESAMPLE BERNOULLI (" + percent + ")";
        String asked = "SELECT " + number.formatted(column) + " FROM " + rows + sampled;
        for (Shared both : shared)
            if (both.before() == column)
                asked += " UNION ALL SELECT " + number.formatted(both.after()) + " FROM " + NEWER + sampled;
        List<Long> some = new ArrayList<>();
        try (var answer = statement.executeQuery(asked)) {
            while (answer.next()) {
                long value = answer.getLong(1);
                some.add(answer.wasNull() ? null : value);
            }
        }
        return some;
    }

    /** Writes the shared columns of newer rows down. */
    private static void stage(
            Connection connection,
            Statement statement,
            List<Shared> shared,
            TableParts newer,
            TableReader.Progress progress)
            throws SQLException {
        List<StoredColumn> columns = shared.stream()
                .map(s -> new StoredColumn(s.name(), s.newerType(), false))
                .toList();
        statement.execute("SET LOCAL work_mem = '" + WORKING + "'");
        statement.execute("CREATE TEMP TABLE " + NEWER + " (" + RowStore.definitions(columns)
                + ", n bigint GENERATED ALWAYS AS IDENTITY) ON COMMIT DROP");
        RowStore.copy(connection, NEWER, columns, newer, progress);
        RowStore.analyse(connection, NEWER);
    }

    /** Rows that are equal put together: their hashes h and i, how many there are before, b, and after, a. */
    private static String groups(List<Shared> shared, String rows) {
        return "(SELECT h, i, count(*) FILTER (WHERE w) AS b, count(*) FILTER (WHERE NOT w) AS a FROM (SELECT true AS w, "
                + hashes(shared, true) + " FROM " + rows + " UNION ALL SELECT false, " + hashes(shared, false)
                + " FROM " + NEWER + ") AS u GROUP BY h, i) AS g";
    }

    /** Two of 64 bits, since groups of whole rows would take many times as much: of ten thousand million rows no two share both. */
    private static String hashes(List<Shared> shared, boolean before) {
        String row = "ROW(" + values("", shared, before) + ")";
        return "hash_record_extended(" + row + ", 0) AS h, hash_record_extended(" + row + ", 1) AS i";
    }

    /** The values of one of the tables. @param of its alias with a point, or nothing */
    private static String values(String of, List<Shared> shared, boolean before) {
        return shared.stream()
                .map(s -> of + s.sql(before ? s.before() : s.after()))
                .collect(Collectors.joining(", "));
    }

    private static long[] numbers(Statement statement, String asked) throws SQLException {
        try (var answer = statement.executeQuery(asked)) {
            answer.next();
            return new long[] {answer.getLong(1), answer.getLong(2), answer.getLong(3)};
        }
    }
}
