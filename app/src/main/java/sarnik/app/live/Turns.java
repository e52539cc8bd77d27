package sarnik.app.live;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import sarnik.live.DeviceState;
import sarnik.table.ColumnType;
import sarnik.table.GrowingTable;
import sarnik.table.Table;

/**
 * Keeps the states that devices turn to, with what people have noted of them, and what is to be told of them. Several
 * instances may find the same turn; it is kept, and told, once.
 */
@Component
class Turns {

    private static final Logger LOG = LoggerFactory.getLogger(Turns.class);

    /** So many of a feed are shown at most, the newest. */
    static final int MOST_SHOWN = 50_000;

    private static final String KEEP = """
            WITH ended AS (UPDATE live_turns SET until = to_timestamp(?) WHERE feed = ? AND device = ?
                             AND until IS NULL AND state <> ? RETURNING state),
                 made AS (INSERT INTO live_turns (feed, device, state, since, why)
                   SELECT ?, ?, ?, to_timestamp(?), ? FROM (SELECT count(*) FROM ended) e
                   WHERE NOT EXISTS (SELECT 1 FROM live_turns WHERE feed = ? AND device = ? AND until IS NULL AND state = ?)
                   ON CONFLICT DO NOTHING RETURNING id)
            SELECT made.id, (SELECT state FROM ended) FROM made""";

    private final LiveConnections connections;

    Turns(LiveConnections connections) {
        this.connections = connections;
    }

    // --- keeping ---------------------------------------------------------------------------------------

    /** Keeps states that devices turned to. What is lost of them is found again when the feed is read the next time. */
    void keep(RunningFeed feed, List<RunningFeed.Turned> turned) {
        if (turned.isEmpty()) return;
        try (Connection connection = connections.open()) {
            boolean any = false;
            try (PreparedStatement statement = connection.prepareStatement(KEEP)) {
                for (RunningFeed.Turned one : turned) any |= keep(connection, statement, feed, one);
            }
            if (any) tell(connection, feed.id);
            connection.commit();
            if (any) feed.turned();
        } catch (SQLException failed) {
            LOG.warn("States of devices could not be kept: {}", failed.getMessage());
        }
    }

    /** @return whether it was not known */
    private static boolean keep(
            Connection connection, PreparedStatement statement, RunningFeed feed, RunningFeed.Turned one)
            throws SQLException {
        double since = one.turn().since() / 1000.0;
        DeviceState state = one.turn().state();
        int p = 1;
        statement.setDouble(p++, since);
        for (int twice = 0; twice < 2; twice++) {
            statement.setLong(p++, feed.id);
            statement.setInt(p++, one.device());
            statement.setString(p++, state.name());
        }
        statement.setDouble(p++, since);
        statement.setString(p++, shortened(one.turn().why()));
        statement.setLong(p++, feed.id);
        statement.setInt(p++, one.device());
        statement.setString(p, state.name());
        try (ResultSet found = statement.executeQuery()) {
            if (!found.next()) return false;
            String before = found.getString(2);
            notices(connection, feed, found.getLong(1), state, before == null ? null : DeviceState.valueOf(before));
            return true;
        }
    }

    private static String shortened(String words) {
        return words.length() <= 400 ? words : words.substring(0, 399) + "…";
    }

    private static void notices(
            Connection connection, RunningFeed feed, long turn, DeviceState state, DeviceState before)
            throws SQLException {
        Notices notices = feed.settings.notices();
        if (notices == null || !notices.tell(state, before)) return;
        Timestamp due = Timestamp.from(notices.due(Instant.now()));
        try (PreparedStatement insert = connection.prepareStatement(
                "INSERT INTO live_notices (feed, turn, way, address, due_at) VALUES (?, ?, ?, ?, ?)")) {
            Map<String, String> to = new LinkedHashMap<>();
            notices.mails().forEach(mail -> to.put(mail, "MAIL"));
            if (notices.hook() != null) to.put(notices.hook(), "HOOK");
            for (Map.Entry<String, String> one : to.entrySet()) {
                insert.setLong(1, feed.id);
                insert.setLong(2, turn);
                insert.setString(3, one.getValue());
                insert.setString(4, one.getKey());
                insert.setTimestamp(5, due);
                insert.addBatch();
            }
            insert.executeBatch();
        }
    }

    /** Other instances hear that turns of a feed, or what is noted of them, are others now. */
    private void tell(Connection connection, long feed) throws SQLException {
        try (PreparedStatement notify = connection.prepareStatement("SELECT pg_notify('live', ?)")) {
            notify.setString(1, feed + " turns " + connections.instance());
            notify.execute();
        }
    }

    // --- noting ----------------------------------------------------------------------------------------

    /**
     * A state that a device is in which is not good.
     *
     * @param seenBy who has seen it; null for nobody
     */
    record Open(
            long id,
            int device,
            DeviceState state,
            Instant since,
            String why,
            Long seenBy,
            Instant seenAt,
            String note) {}

    /** What was amiss after so many turns of a feed. */
    private record Amiss(long revision, long turns, List<Open> open) {}

    private final Map<Long, Amiss> amiss = new ConcurrentHashMap<>();

    /** What is amiss now, the longest first. Many pages ask; it is read anew once something has turned or is noted. */
    List<Open> amiss(RunningFeed feed) {
        long turns = feed.turns();
        Amiss known = amiss.get(feed.id);
        if (known != null && known.turns == turns && known.revision == feed.revision) return known.open;
        List<Open> open = readAmiss(feed.id);
        amiss.put(feed.id, new Amiss(feed.revision, turns, open));
        return open;
    }

    private List<Open> readAmiss(long feed) {
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement("""
                        SELECT id, device, state, since, why, noted_by, noted_at, note FROM live_turns
                        WHERE feed = ? AND until IS NULL AND state <> 'GOOD' ORDER BY since, id""")) {
            statement.setLong(1, feed);
            List<Open> open = new ArrayList<>();
            try (ResultSet found = statement.executeQuery()) {
                while (found.next())
                    open.add(new Open(
                            found.getLong(1),
                            found.getInt(2),
                            DeviceState.valueOf(found.getString(3)),
                            found.getTimestamp(4).toInstant(),
                            found.getString(5),
                            found.getObject(6) == null ? null : found.getLong(6),
                            found.getTimestamp(7) == null
                                    ? null
                                    : found.getTimestamp(7).toInstant(),
                            found.getString(8)));
            }
            connection.commit();
            return open;
        } catch (SQLException failed) {
            throw new IllegalStateException("What is amiss cannot be read", failed);
        }
    }

    /** Notes that somebody has seen a turn. @return whether it still holds */
    boolean note(RunningFeed feed, long turn, long person, String note) {
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement("""
                        UPDATE live_turns SET noted_by = ?, noted_at = now(), note = ?
                        WHERE id = ? AND feed = ? AND until IS NULL""")) {
            statement.setLong(1, person);
            statement.setString(2, note);
            statement.setLong(3, turn);
            statement.setLong(4, feed.id);
            boolean any = statement.executeUpdate() > 0;
            if (any) {
                read(feed, connection);
                tell(connection, feed.id);
            }
            connection.commit();
            if (any) feed.turned();
            return any;
        } catch (SQLException failed) {
            throw new IllegalStateException("The note could not be kept", failed);
        }
    }

    /** Lets a feed know what is noted of the states its devices are in. */
    void read(RunningFeed feed, Connection connection) throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement("""
                SELECT t.device, coalesce(nullif(p.name, ''), p.sign_in) || coalesce(': ' || nullif(t.note, ''), '')
                FROM live_turns t JOIN people p ON p.id = t.noted_by WHERE t.feed = ? AND t.until IS NULL""")) {
            statement.setLong(1, feed.id);
            Map<Integer, String> notes = new HashMap<>();
            try (ResultSet found = statement.executeQuery()) {
                while (found.next()) notes.put(found.getInt(1), found.getString(2));
            }
            feed.noted(notes);
        }
    }

    /** Reads anew what another instance has kept. */
    void heard(RunningFeed feed) {
        try (Connection connection = connections.open()) {
            read(feed, connection);
            connection.commit();
            feed.turned();
        } catch (SQLException away) {
            LOG.warn("What is noted of devices could not be read: {}", away.getMessage());
        }
    }

    // --- showing ---------------------------------------------------------------------------------------

    static final Map<String, ColumnType> COLUMNS = new LinkedHashMap<>();

    static {
        COLUMNS.put(RunningFeed.DEVICE, ColumnType.TEXT);
        COLUMNS.put(RunningFeed.NAME, ColumnType.TEXT);
        COLUMNS.put(RunningFeed.KIND, ColumnType.TEXT);
        COLUMNS.put(RunningFeed.STATE, ColumnType.TEXT);
        COLUMNS.put(RunningFeed.SINCE, ColumnType.TIME);
        COLUMNS.put("until", ColumnType.TIME);
        COLUMNS.put("minutes", ColumnType.DECIMAL);
        COLUMNS.put(RunningFeed.WHY, ColumnType.TEXT);
        COLUMNS.put("seen by", ColumnType.TEXT);
        COLUMNS.put("note", ColumnType.TEXT);
    }

    /** The turns of a feed as rows, the newest first; one that holds has no end and no length. */
    Table table(RunningFeed feed) {
        GrowingTable table = new GrowingTable(COLUMNS);
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement("""
                        SELECT t.device, d.code, t.state, t.since, t.until, t.why, coalesce(nullif(p.name, ''), p.sign_in), t.note
                        FROM live_turns t JOIN live_devices d ON d.feed = t.feed AND d.number = t.device
                        LEFT JOIN people p ON p.id = t.noted_by
                        WHERE t.feed = ? ORDER BY t.since DESC, t.id DESC LIMIT\s""" + MOST_SHOWN)) {
            statement.setLong(1, feed.id);
            try (ResultSet found = statement.executeQuery()) {
                while (found.next()) {
                    RunningFeed.Listed listed = feed.listed(found.getString(2));
                    long since = found.getTimestamp(4).getTime();
                    Timestamp until = found.getTimestamp(5);
                    table.add(
                            found.getString(2),
                            listed == null || listed.name() == null ? found.getString(2) : listed.name(),
                            listed == null ? null : listed.kind(),
                            DeviceState.valueOf(found.getString(3)).words(),
                            Math.floorDiv(since, 1000L),
                            until == null ? null : (Object) Math.floorDiv(until.getTime(), 1000L),
                            until == null ? null : (Object) ((until.getTime() - since) / 60_000.0),
                            found.getString(6).isEmpty() ? null : found.getString(6),
                            found.getString(7),
                            found.getString(8));
                }
            }
            connection.commit();
        } catch (SQLException failed) {
            throw new IllegalStateException("The states of devices cannot be read", failed);
        }
        return table.table();
    }
}
