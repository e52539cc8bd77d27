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
import sarnik.app.Uptime;
import sarnik.live.Field;
import sarnik.table.ColumnType;
import sarnik.table.GrowingTable;
import sarnik.table.Table;

/**
 * Puts readings together by minute, hour and day (of UTC), for views over long times: how many, the lowest, the highest
 * and the sum of each number, and the last position. What readings came for since the last time is worked out anew from
 * all that is there, so late ones count and nothing counts twice, whenever it is stopped.
 */
@Component
class RollUps {

    private static final Logger LOG = LoggerFactory.getLogger(RollUps.class);

    /** So many rows of a feed are shown at most, the newest. */
    static final int MOST_SHOWN = 1_000_000;

    /**
     * What was begun to be written before so long is committed by now, or never will be: batches are numbered before
     * they are.
     */
    private static final long SETTLED_MILLIS = 45_000;

    /**
     * Hours and days are put together so often: of many devices each of theirs would be written anew three times a
     * minute.
     */
    private static final long COARSER_MILLIS = 300_000;

    /** So many readings are put together in one transaction. */
    volatile long atOnce = 400_000;

    private static final long FEWEST_AT_ONCE = 10_000;

    /** Where a statement says between which moments it looks. */
    private static final String BOUNDS = "@bounds";

    private final LiveFeedRepository stored;
    private final RunningFeeds running;
    private final LiveConnections connections;

    /** By moment the newest number of a batch then. */
    private final Map<Long, Long> horizons = new LinkedHashMap<>();

    /** When hours and days were put together the last time. */
    private long coarser;

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
            long now = Uptime.millis();
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

    /** Puts together what has come in all feeds up to a batch, by minute, and now and then by hour and day. */
    private void roll(long horizon) {
        boolean isCoarser = Uptime.millis() - coarser >= COARSER_MILLIS;
        if (isCoarser) coarser = Uptime.millis();
        roll(horizon, isCoarser);
    }

    /** @param isCoarser whether by hour and day as well */
    void roll(long horizon, boolean isCoarser) {
        for (LiveFeed kept : stored.findAll()) {
            RunningFeed feed =
                    kept.getShape() == null ? null : running.find(kept.getId()).orElse(null);
            if (feed == null) continue;
            try (Connection connection = connections.open()) {
                if (roll(connection, feed, horizon, isCoarser)) feed.rolled();
            } catch (SQLException failed) {
                LOG.warn("Readings of “{}” could not be put together: {}", feed.name, failed.getMessage());
                // What took too long is tried with less.
                atOnce = Math.max(Math.min(FEWEST_AT_ONCE, atOnce), atOnce / 2);
            }
        }
    }

    private static long number(Connection connection, String sql) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery(sql)) {
            return found.next() ? found.getLong(1) : 0;
        }
    }

    private boolean roll(Connection connection, RunningFeed feed, long horizon, boolean isCoarser) throws SQLException {
        make(connection, feed);
        connection.commit();
        boolean any = roll(connection, feed, Rolled.MINUTES, horizon);
        // What a feed begins with is seen by hour and day at once.
        boolean isFirst = number(connection, "SELECT rolled_coarser_batch FROM live_feeds WHERE id = " + feed.id) == 0;
        if (isCoarser || isFirst) any |= roll(connection, feed, Rolled.HOURS, horizon);
        return any;
    }

    /** Goes on from where the last time came to, so much at once that nothing is held up for long. */
    private boolean roll(Connection connection, RunningFeed feed, Rolled span, long horizon) throws SQLException {
        String kept = span == Rolled.MINUTES ? "rolled_batch" : "rolled_coarser_batch";
        boolean any = false;
        long step = horizon;
        while (true) {
            // One instance at a time.
            long from =
                    number(connection, "SELECT %s FROM live_feeds WHERE id = %d FOR UPDATE".formatted(kept, feed.id));
            if (from >= horizon) break;
            long left = horizon - from;
            step = Math.min(left, step);
            while (step > 1 && comes(connection, feed, from, from + step) > atOnce) step /= 2;
            if (comes(connection, feed, from, from + step) > 0) {
                roll(connection, feed, span, from, from + step);
                any = true;
            }
            try (Statement statement = connection.createStatement()) {
                statement.execute("UPDATE live_feeds SET %s = %d WHERE id = %d".formatted(kept, from + step, feed.id));
            }
            if (any) tell(connection, feed.id);
            connection.commit();
            step *= 2;
        }
        connection.commit();
        return any;
    }

    /** How many readings came by some batches. */
    private static long comes(Connection connection, RunningFeed feed, long from, long upTo) throws SQLException {
        return number(
                connection,
                "SELECT count(*) FROM %s WHERE batch > %d AND batch <= %d"
                        .formatted(ReadingStore.table(feed.id), from, upTo));
    }

    /** Works out anew every span that readings of some batches lie in. */
    private void roll(Connection connection, RunningFeed feed, Rolled span, long from, long upTo) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("""
                    CREATE TEMP TABLE touched ON COMMIT DROP AS
                    SELECT DISTINCT device, %s AS at FROM %s WHERE batch > %d AND batch <= %d""".formatted(bin(span, "at"), ReadingStore.table(feed.id), from, upTo));
            statement.execute("ANALYZE touched");
            if (span == Rolled.MINUTES) {
                statement.execute(within(statement, minutes(feed), Rolled.MINUTES));
                return;
            }
            statement.execute(within(statement, coarser(feed, Rolled.HOURS, Rolled.MINUTES), Rolled.HOURS));
            statement.execute("CREATE TEMP TABLE days ON COMMIT DROP AS SELECT DISTINCT device, %s AS at FROM touched"
                    .formatted(bin(Rolled.DAYS, "at")));
            statement.execute("DROP TABLE touched");
            statement.execute("ALTER TABLE days RENAME TO touched");
            statement.execute("ANALYZE touched");
            statement.execute(within(statement, coarser(feed, Rolled.DAYS, Rolled.HOURS), Rolled.DAYS));
        }
    }

    /** Says between which moments all that is touched lies, so that other partitions are not looked at. */
    private static String within(Statement statement, String sql, Rolled span) throws SQLException {
        try (ResultSet found =
                statement.executeQuery("SELECT min(at), max(at) + interval '%s' FROM touched".formatted(span.span))) {
            found.next();
            return sql.replace(
                    BOUNDS,
                    "r.at >= '%s' AND r.at < '%s'"
                            .formatted(
                                    found.getTimestamp(1).toInstant(),
                                    found.getTimestamp(2).toInstant()));
        }
    }

    /**
     * Looks each span that is touched up by its key, whatever the planner supposes of how many there are: of readings
     * that have just come it knows nothing.
     */
    private static String lookedUp(String sums, String table, Rolled span) {
        return """
                SELECT t.device, t.at, x.* FROM touched t CROSS JOIN LATERAL (SELECT %s FROM %s r
                  WHERE r.device = t.device AND r.at >= t.at AND r.at < t.at + interval '%s' AND %s) x WHERE x.readings > 0""".formatted(sums, table, span.span, BOUNDS);
    }

    /** The newest place of those that have one. */
    private static final String PLACE =
            "(array_agg(r.lon ORDER BY r.at DESC) FILTER (WHERE r.lon IS NOT NULL))[1], (array_agg(r.lat ORDER BY r.at DESC) FILTER (WHERE r.lat IS NOT NULL))[1]";

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
        return kept(
                feed,
                Rolled.MINUTES,
                lookedUp(
                        "count(*) AS readings, " + PLACE
                                + each(feed, ", count(r.c%1$d), min(r.c%1$d), max(r.c%1$d), sum(r.c%1$d)"),
                        ReadingStore.table(feed.id),
                        Rolled.MINUTES));
    }

    private static String coarser(RunningFeed feed, Rolled to, Rolled from) {
        return kept(
                feed,
                to,
                lookedUp(
                        "sum(r.readings) AS readings, " + PLACE
                                + each(feed, ", sum(r.n%1$d), min(r.lo%1$d), max(r.hi%1$d), sum(r.s%1$d)"),
                        from.table(feed.id),
                        to));
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
