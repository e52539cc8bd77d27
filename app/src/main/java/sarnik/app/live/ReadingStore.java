package sarnik.app.live;

import java.io.IOException;
import java.io.StringReader;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.postgresql.PGConnection;
import org.springframework.stereotype.Component;
import sarnik.live.MessageShape;
import sarnik.table.ColumnType;

/**
 * Readings in the database: a table for each feed, in partitions by day of UTC, one row for a device and a moment. All
 * is plain SQL over a connection that the caller has begun a transaction on.
 */
@Component
class ReadingStore {

    private static final long DAY = 86_400_000L;

    /** Partitions that are known to be there. */
    private final Set<String> partitions = ConcurrentHashMap.newKeySet();

    /**
     * A reading as it is kept.
     *
     * @param device the device's number
     * @param values by the columns of the feed's table
     */
    record Row(int device, long millis, double lon, double lat, Object[] values) {

        Key key() {
            return new Key(device, millis);
        }
    }

    record Key(int device, long millis) {}

    static String table(long feed) {
        return "live.r" + feed;
    }

    // --- tables ----------------------------------------------------------------------------------------

    /** Makes the table of a feed, or adds columns to it that it lacks. */
    void make(Connection connection, long feed, List<String> columns, MessageShape shape) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("""
                    CREATE TABLE IF NOT EXISTS %s (device int NOT NULL, at timestamptz NOT NULL, batch bigint NOT NULL,
                      lon float8, lat float8, PRIMARY KEY (device, at)) PARTITION BY RANGE (at)""".formatted(table(feed)));
            // What is new lies in few pages next to each other: a small index finds it.
            statement.execute(
                    "CREATE INDEX IF NOT EXISTS r%d_batch ON %s USING brin (batch)".formatted(feed, table(feed)));
            for (int c = 0; c < columns.size(); c++) {
                int field = shape.field(columns.get(c));
                // What is not said any more has its column already.
                if (field >= 0)
                    statement.execute("ALTER TABLE %s ADD COLUMN IF NOT EXISTS c%d %s"
                            .formatted(
                                    table(feed),
                                    c,
                                    sqlType(shape.fields().get(field).type())));
            }
        }
    }

    private static String sqlType(ColumnType type) {
        return switch (type) {
            case TEXT -> "text";
            case YES_NO -> "boolean";
            default -> "float8";
        };
    }

    void drop(Connection connection, long feed) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("DROP TABLE IF EXISTS " + table(feed));
        }
        partitions.removeIf(name -> name.startsWith("r" + feed + "_"));
    }

    private static String partition(long feed, LocalDate day) {
        return "r%d_%d%02d%02d".formatted(feed, day.getYear(), day.getMonthValue(), day.getDayOfMonth());
    }

    private static LocalDate day(long millis) {
        return LocalDate.ofEpochDay(Math.floorDiv(millis, DAY));
    }

    /** Makes the partitions that some moments lie in, each for itself: another instance may make them too. */
    void prepare(Connection connection, long feed, Collection<Row> rows) throws SQLException {
        Set<LocalDate> days = rows.stream().map(r -> day(r.millis())).collect(Collectors.toCollection(TreeSet::new));
        for (LocalDate day : days) {
            String name = partition(feed, day);
            if (partitions.contains(name)) continue;
            try (Statement statement = connection.createStatement()) {
                // One at a time: two that make the same partition at once would both fail but one.
                statement.execute("SELECT pg_advisory_xact_lock(hashtext('live partitions'))");
                statement.execute(
                        "CREATE TABLE IF NOT EXISTS live.%s PARTITION OF %s FOR VALUES FROM ('%s 00:00+00') TO ('%s 00:00+00')"
                                .formatted(name, table(feed), day, day.plusDays(1)));
            }
            partitions.add(name);
        }
    }

    /** Takes away the days that are older than a moment. @return how many */
    int forget(Connection connection, long feed, Instant before) throws SQLException {
        String last = partition(feed, before.atZone(ZoneOffset.UTC).toLocalDate());
        List<String> old = new ArrayList<>();
        try (PreparedStatement statement = connection.prepareStatement(
                "SELECT c.relname FROM pg_inherits i JOIN pg_class c ON c.oid = i.inhrelid WHERE i.inhparent = to_regclass(?)")) {
            statement.setString(1, table(feed));
            try (ResultSet found = statement.executeQuery()) {
                while (found.next()) if (found.getString(1).compareTo(last) < 0) old.add(found.getString(1));
            }
        }
        try (Statement statement = connection.createStatement()) {
            for (String name : old) statement.execute("DROP TABLE live." + name);
        }
        partitions.removeAll(old);
        return old.size();
    }

    // --- writing ---------------------------------------------------------------------------------------

    /**
     * What came of rows that were written.
     *
     * @param batch the number by which other instances find them
     * @param fresh rows that were not there
     * @param filled rows that were there and now hold more, as they are now
     */
    record Written(long batch, List<Row> fresh, List<Row> filled) {}

    /**
     * Writes rows. Of a device and a moment there is one: what is missing in it is filled in, and what has a value
     * keeps it.
     */
    Written write(Connection connection, long feed, int columns, List<Row> rows) throws SQLException {
        Map<Key, Row> merged = new LinkedHashMap<>();
        for (Row row : rows) merged.merge(row.key(), row, ReadingStore::together);
        List<Row> distinct = List.copyOf(merged.values());
        long batch;
        String names = IntStream.range(0, columns).mapToObj(c -> ", c" + c).collect(Collectors.joining());
        String incoming = "incoming_" + feed;
        try (Statement statement = connection.createStatement()) {
            try (ResultSet next = statement.executeQuery("SELECT nextval('live_batches')")) {
                next.next();
                batch = next.getLong(1);
            }
            statement.execute(
                    "CREATE TEMP TABLE %s ON COMMIT DROP AS SELECT device, at, batch, lon, lat%s FROM %s LIMIT 0"
                            .formatted(incoming, names, table(feed)));
        }
        copy(connection, incoming, names, batch, distinct);
        List<Row> fresh = new ArrayList<>();
        List<Row> filled = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery("""
                        INSERT INTO %1$s (device, at, batch, lon, lat%2$s) SELECT device, at, batch, lon, lat%2$s FROM %3$s
                        ON CONFLICT (device, at) DO NOTHING RETURNING device, at""".formatted(table(feed), names, incoming))) {
            while (found.next())
                fresh.add(merged.get(
                        new Key(found.getInt(1), found.getTimestamp(2).getTime())));
        }
        if (fresh.size() < distinct.size()) fill(connection, feed, columns, incoming, batch, filled);
        return new Written(batch, fresh, filled);
    }

    /** Fills in what is missing in rows that were there; one that is told nothing new is left as it is. */
    private static void fill(
            Connection connection, long feed, int columns, String incoming, long batch, List<Row> filled)
            throws SQLException {
        List<String> all = new ArrayList<>(List.of("lon", "lat"));
        for (int c = 0; c < columns; c++) all.add("c" + c);
        String update = """
                UPDATE %1$s r SET batch = i.batch, %2$s FROM %3$s i
                WHERE r.device = i.device AND r.at = i.at AND r.batch <> %4$d AND (%5$s) RETURNING r.device, r.at, %6$s""".formatted(
                table(feed),
                all.stream().map("%1$s = coalesce(r.%1$s, i.%1$s)"::formatted).collect(Collectors.joining(", ")),
                incoming,
                batch,
                all.stream()
                        .map("r.%1$s IS NULL AND i.%1$s IS NOT NULL"::formatted)
                        .collect(Collectors.joining(" OR ")),
                all.stream().map("r."::concat).collect(Collectors.joining(", ")));
        try (Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery(update)) {
            while (found.next()) filled.add(row(found, 1, columns));
        }
    }

    /** Two rows of one device and moment as one: what the first lacks is the second's. */
    private static Row together(Row first, Row second) {
        Object[] values = first.values().clone();
        for (int c = 0; c < values.length; c++) if (values[c] == null) values[c] = second.values()[c];
        boolean hasPlace = !Double.isNaN(first.lon());
        return new Row(
                first.device(),
                first.millis(),
                hasPlace ? first.lon() : second.lon(),
                hasPlace ? first.lat() : second.lat(),
                values);
    }

    private static void copy(Connection connection, String table, String names, long batch, List<Row> rows)
            throws SQLException {
        StringBuilder text = new StringBuilder(rows.size() * 80);
        for (Row row : rows) {
            text.append(row.device())
                    .append('\t')
                    .append(Instant.ofEpochMilli(row.millis()))
                    .append('\t')
                    .append(batch);
            number(row.lon(), text);
            number(row.lat(), text);
            for (Object value : row.values()) {
                if (value instanceof Number number) number(number.doubleValue(), text);
                else if (value == null) text.append("\t\\N");
                else escaped(value.toString(), text.append('\t'));
            }
            text.append('\n');
        }
        try {
            connection
                    .unwrap(PGConnection.class)
                    .getCopyAPI()
                    .copyIn(
                            "COPY %s (device, at, batch, lon, lat%s) FROM STDIN".formatted(table, names),
                            new StringReader(text.toString()));
        } catch (IOException failed) {
            throw new SQLException("The readings could not be written", failed);
        }
    }

    private static void number(double number, StringBuilder text) {
        if (Double.isNaN(number)) text.append("\t\\N");
        else text.append('\t').append(number);
    }

    private static void escaped(String value, StringBuilder text) {
        for (int i = 0; i < value.length(); i++) {
            char c = value.charAt(i);
            switch (c) {
                case '\\' -> text.append("\\\\");
                case '\t' -> text.append("\\t");
                case '\n' -> text.append("\\n");
                case '\r' -> text.append("\\r");
                // The database keeps no such character in texts.
                case '\0' -> text.append(' ');
                default -> text.append(c);
            }
        }
    }

    // --- reading ---------------------------------------------------------------------------------------

    private static Row row(ResultSet found, int first, int columns) throws SQLException {
        Object[] values = new Object[columns];
        for (int c = 0; c < columns; c++) values[c] = found.getObject(first + 4 + c);
        return new Row(
                found.getInt(first),
                found.getTimestamp(first + 1).getTime(),
                number(found, first + 2),
                number(found, first + 3),
                values);
    }

    private static double number(ResultSet found, int column) throws SQLException {
        double number = found.getDouble(column);
        return found.wasNull() ? Double.NaN : number;
    }

    /**
     * Reads readings, the oldest first.
     *
     * @param where a condition on device, at and batch, with a question mark for each parameter
     */
    void read(Connection connection, long feed, int columns, String where, Consumer<Row> taken, Object... parameters)
            throws SQLException {
        String names = IntStream.range(0, columns).mapToObj(c -> ", c" + c).collect(Collectors.joining());
        try (PreparedStatement statement = connection.prepareStatement(
                "SELECT device, at, lon, lat%s FROM %s WHERE %s".formatted(names, table(feed), where))) {
            statement.setFetchSize(5000);
            for (int p = 0; p < parameters.length; p++) statement.setObject(p + 1, parameters[p]);
            try (ResultSet found = statement.executeQuery()) {
                while (found.next()) taken.accept(row(found, 1, columns));
            }
        }
    }

    /** How many readings there are. @param where as for reading */
    long count(Connection connection, long feed, String where, Object... parameters) throws SQLException {
        try (PreparedStatement statement =
                connection.prepareStatement("SELECT count(*) FROM %s WHERE %s".formatted(table(feed), where))) {
            for (int p = 0; p < parameters.length; p++) statement.setObject(p + 1, parameters[p]);
            try (ResultSet found = statement.executeQuery()) {
                found.next();
                return found.getLong(1);
            }
        }
    }
}
