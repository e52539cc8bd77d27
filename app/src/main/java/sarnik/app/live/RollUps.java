package sarnik.app.live;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sarnik.live.Field;
import sarnik.table.ColumnType;
import sarnik.table.GrowingTable;
import sarnik.table.Table;

/**
 * Puts readings together by minute, hour and day (of UTC), for views over long times: how many, the lowest, the highest and the
 * sum of each number, and the last position. What readings came for since the last time is worked out anew from all that is
 * there, so late ones count and nothing counts twice, whenever it is stopped.
 */
@Component
class RollUps {

    private static final Logger LOG = LoggerFactory.getLogger(RollUps.class);

    /** So many rows of a feed are shown at most, the newest. */
    static final int MOST_SHOWN = 1_000_000;

    /** What was begun to be written before so long is committed by now, or never will be: batches are numbered before they are. */
    private static final long SETTLED_MILLIS = 45_000;

    private final LiveFeedRepository stored;
    private final RunningFeeds running;
    private final LiveConnections connections;

    /** By moment the newest number of a batch then. */
    private final Map<Long, Long> horizons = new LinkedHashMap<>();

    /** Of which feeds the tables are known to be there, with so many columns. */
    private final Set<String> known = ConcurrentHashMap.newKeySet();

    RollUps(LiveFeedRepository stored, RunningFeeds running, LiveConnections connections) {
        this.stored = stored;
        this.running = running;
        this.connections = connections;
        running.rolled(this);
    }

    // --- putting together ------------------------------------------------------------------------------

    @Scheduled(fixedDelay = 20_000, initialDelay = 10_000)
    void roll() {
        try (Connection connection = connections.open()) {
            long newest = number(connection, "SELECT last_value FROM live_batches");
            connection.commit();
            long now = System.currentTimeMillis();
            horizons.put(now, newest);
            Long horizon = null;
            for (Map.Entry<Long, Long> each : horizons.entrySet())
                if (now - each.getKey() >= SETTLED_MILLIS) horizon = each.getValue();
            if (horizon == null) return;
            horizons.keySet().removeIf(at -> now - at > 10 * SETTLED_MILLIS);
            roll(horizon);
        } catch (SQLException away) {
            LOG.debug("Readings are not put together just now", away);
        }
    }

    /** Puts together what has come in all feeds up to a batch. */
    void roll(long horizon) {
        for (LiveFeed kept : stored.findAll()) {
            RunningFeed feed =
                    kept.getShape() == null ? null : running.find(kept.getId()).orElse(null);
            if (feed == null) continue;
            try (Connection connection = connections.open()) {
                if (roll(connection, feed, horizon)) feed.rolled();
            } catch (SQLException failed) {
                LOG.warn("Readings of “{}” could not be put together: {}", feed.name, failed.getMessage());
            }
        }
    }

    private static long number(Connection connection, String sql) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery(sql)) {
            return found.next() ? found.getLong(1) : 0;
        }
    }

    private boolean roll(Connection connection, RunningFeed feed, long horizon) throws SQLException {
        make(connection, feed);
        // One instance at a time, from where the last one came to.
        long from =
                number(connection, "SELECT rolled_batch FROM live_feeds WHERE id = %d FOR UPDATE".formatted(feed.id));
        if (from >= horizon) {
            connection.commit();
            return false;
        }
        boolean any;
        try (Statement statement = connection.createStatement()) {
            statement.execute("""
                    CREATE TEMP TABLE touched ON COMMIT DROP AS
                    SELECT DISTINCT device, %s AS at FROM %s WHERE batch > %d AND batch <= %d""".formatted(bin(Rolled.MINUTES, "at"), ReadingStore.table(feed.id), from, horizon));
            any = number(connection, "SELECT count(*) FROM touched") > 0;
            if (any) {
                statement.execute("ANALYZE touched");
                statement.execute(minutes(feed));
                for (Rolled next : List.of(Rolled.HOURS, Rolled.DAYS)) {
                    statement.execute(
                            "CREATE TEMP TABLE coarser ON COMMIT DROP AS SELECT DISTINCT device, %s AS at FROM touched"
                                    .formatted(bin(next, "at")));
                    statement.execute("DROP TABLE touched");
                    statement.execute("ALTER TABLE coarser RENAME TO touched");
                    statement.execute("ANALYZE touched");
                    statement.execute(coarser(feed, next, next == Rolled.HOURS ? Rolled.MINUTES : Rolled.HOURS));
                }
            }
            statement.execute("UPDATE live_feeds SET rolled_batch = %d WHERE id = %d".formatted(horizon, feed.id));
        }
        if (any) tell(connection, feed.id);
        connection.commit();
        return any;
    }

    private void tell(Connection connection, long feed) throws SQLException {
        try (PreparedStatement notify = connection.prepareStatement("SELECT pg_notify('live', ?)")) {
            notify.setString(1, feed + " rolled " + connections.instance());
            notify.execute();
        }
    }

    /** Days are those of UTC. */
    private static String bin(Rolled span, String column) {
        return "date_bin('%s', %s, timestamptz '2000-01-01 00:00+00')".formatted(span.span, column);
    }

    /** The columns of its table that hold numbers. */
    private static List<Integer> numbers(RunningFeed feed) {
        List<Integer> numbers = new ArrayList<>();
        for (Field field : feed.shape.fields())
            if (field.type().isNumber()) numbers.add(feed.columns.indexOf(field.name()));
        return numbers;
    }

    private void make(Connection connection, RunningFeed feed) throws SQLException {
        List<Integer> numbers = numbers(feed);
        if (!known.add(feed.id + " " + numbers)) return;
        try (Statement statement = connection.createStatement()) {
            for (Rolled each : Rolled.values()) {
                statement.execute("""
                        CREATE TABLE IF NOT EXISTS %s (device int NOT NULL, at timestamptz NOT NULL, readings bigint NOT NULL,
                          lon float8, lat float8, PRIMARY KEY (device, at))""".formatted(each.table(feed.id)));
                statement.execute("CREATE INDEX IF NOT EXISTS %s_at ON %s (at)"
                        .formatted(each.table(feed.id).substring("live.".length()), each.table(feed.id)));
                for (int c : numbers)
                    statement.execute(
                            "ALTER TABLE %s ADD COLUMN IF NOT EXISTS n%2$d bigint, ADD COLUMN IF NOT EXISTS lo%2$d float8, ADD COLUMN IF NOT EXISTS hi%2$d float8, ADD COLUMN IF NOT EXISTS s%2$d float8"
                                    .formatted(each.table(feed.id), c));
            }
        } catch (SQLException failed) {
            known.clear();
            throw failed;
        }
    }

    private static String minutes(RunningFeed feed) {
        return kept(feed, Rolled.MINUTES, """
                SELECT r.device, t.at, count(*), (array_agg(r.lon ORDER BY r.at DESC) FILTER (WHERE r.lon IS NOT NULL))[1],
                  (array_agg(r.lat ORDER BY r.at DESC) FILTER (WHERE r.lat IS NOT NULL))[1]%s
                FROM touched t JOIN %s r ON r.device = t.device AND r.at >= t.at AND r.at < t.at + interval '1 minute'
                GROUP BY 1, 2""".formatted(
                each(feed, ", count(r.c%1$d), min(r.c%1$d), max(r.c%1$d), sum(r.c%1$d)"), ReadingStore.table(feed.id)));
    }

    private static String coarser(RunningFeed feed, Rolled to, Rolled from) {
        return kept(feed, to, """
                SELECT r.device, t.at, sum(r.readings), (array_agg(r.lon ORDER BY r.at DESC) FILTER (WHERE r.lon IS NOT NULL))[1],
                  (array_agg(r.lat ORDER BY r.at DESC) FILTER (WHERE r.lat IS NOT NULL))[1]%s
                FROM touched t JOIN %s r ON r.device = t.device AND r.at >= t.at AND r.at < t.at + interval '%s'
                GROUP BY 1, 2""".formatted(
                        each(feed, ", sum(r.n%1$d), min(r.lo%1$d), max(r.hi%1$d), sum(r.s%1$d)"),
                        from.table(feed.id),
                        to.span));
    }

    private static String each(RunningFeed feed, String sql) {
        return numbers(feed).stream().map(sql::formatted).collect(Collectors.joining());
    }

    private static String kept(RunningFeed feed, Rolled to, String select) {
        return "INSERT INTO %s (device, at, readings, lon, lat%s) %s ON CONFLICT (device, at) DO UPDATE SET readings = excluded.readings, lon = excluded.lon, lat = excluded.lat%s"
                .formatted(
                        to.table(feed.id),
                        each(feed, ", n%1$d, lo%1$d, hi%1$d, s%1$d"),
                        select,
                        each(
                                feed,
                                ", n%1$d = excluded.n%1$d, lo%1$d = excluded.lo%1$d, hi%1$d = excluded.hi%1$d, s%1$d = excluded.s%1$d"));
    }

    /** Takes away what is older than it is kept. */
    void forget(Connection connection, RunningFeed feed, Instant minutesBefore, Instant othersBefore)
            throws SQLException {
        make(connection, feed);
        for (Rolled each : Rolled.values())
            try (PreparedStatement delete =
                    connection.prepareStatement("DELETE FROM %s WHERE at < ?".formatted(each.table(feed.id)))) {
                delete.setTimestamp(1, Timestamp.from(each == Rolled.MINUTES ? minutesBefore : othersBefore));
                delete.executeUpdate();
            }
    }

    void drop(Connection connection, long feed) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            for (Rolled each : Rolled.values()) statement.execute("DROP TABLE IF EXISTS " + each.table(feed));
        }
        known.removeIf(k -> k.startsWith(feed + " "));
    }

    // --- showing ---------------------------------------------------------------------------------------

    /** The columns of what is put together. */
    static Map<String, ColumnType> columns(RunningFeed feed) {
        Map<String, ColumnType> types = new LinkedHashMap<>();
        types.put(RunningFeed.DEVICE, ColumnType.TEXT);
        types.put(RunningFeed.TIME, ColumnType.TIME);
        if (feed.shape == null) return types;
        if (feed.shape.isMoving()) {
            types.put(RunningFeed.LON, ColumnType.DECIMAL);
            types.put(RunningFeed.LAT, ColumnType.DECIMAL);
        }
        types.put("readings", ColumnType.WHOLE);
        for (Field field : feed.shape.fields()) {
            if (!field.type().isNumber()) continue;
            types.put(field.name(), ColumnType.DECIMAL);
            types.put(field.name() + " lowest", ColumnType.DECIMAL);
            types.put(field.name() + " highest", ColumnType.DECIMAL);
        }
        return types;
    }

    /** What is put together, the oldest first: a measure is the mean of its readings. */
    Table table(RunningFeed feed, Rolled of) {
        GrowingTable table = new GrowingTable(columns(feed));
        List<Integer> numbers = numbers(feed);
        try (Connection connection = connections.open()) {
            make(connection, feed);
            try (PreparedStatement statement = connection.prepareStatement("""
                    SELECT * FROM (SELECT d.code, r.at, r.lon, r.lat, r.readings%s FROM %s r
                      JOIN live_devices d ON d.feed = ? AND d.number = r.device ORDER BY r.at DESC LIMIT %d) newest ORDER BY at""".formatted(
                    each(feed, ", r.s%1$d / nullif(r.n%1$d, 0), r.lo%1$d, r.hi%1$d"), of.table(feed.id), MOST_SHOWN))) {
                statement.setLong(1, feed.id);
                statement.setFetchSize(10_000);
                try (ResultSet found = statement.executeQuery()) {
                    while (found.next()) {
                        List<Object> values = new ArrayList<>();
                        values.add(found.getString(1));
                        values.add(Math.floorDiv(found.getTimestamp(2).getTime(), 1000L));
                        if (feed.shape.isMoving()) {
                            values.add(found.getObject(3));
                            values.add(found.getObject(4));
                        }
                        values.add(found.getLong(5));
                        for (int c = 0; c < 3 * numbers.size(); c++) values.add(found.getObject(6 + c));
                        table.add(values.toArray());
                    }
                }
            }
            connection.commit();
        } catch (SQLException failed) {
            throw new IllegalStateException("What is put together of readings cannot be read", failed);
        }
        return table.table();
    }
}
