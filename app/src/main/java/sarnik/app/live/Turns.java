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
import sarnik.live.StateKeeper;
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

    /**
     * Ends the state that a device was in and begins another, unless the one it is in is newer than what this instance
     * knows of: another instance has read on. Of a state that is worked out anew with other thresholds the beginning may
     * lie before that of the one it was in; it begins no earlier, so that no two overlap.
     */
    private static final String KEEP = """
            WITH now AS (SELECT ?::bigint AS feed, ?::int AS device, ?::varchar AS state, to_timestamp(?) AS since,
                           to_timestamp(?) AS known, ?::varchar AS why),
                 held AS (SELECT t.id, t.state, t.since FROM live_turns t JOIN now USING (feed, device)
                   WHERE t.until IS NULL FOR UPDATE OF t),
                 ended AS (UPDATE live_turns t SET until = greatest(now.since, held.since) FROM held, now
                   WHERE t.id = held.id AND held.state <> now.state AND held.since <= now.known
                   RETURNING held.state, held.since),
                 made AS (INSERT INTO live_turns (feed, device, state, since, why)
                   SELECT feed, device, state, greatest(since, e.after), why
                   FROM now, (SELECT count(*) AS many, max(ended.since) AS after FROM ended) e
                   WHERE e.many > 0 OR NOT EXISTS (SELECT 1 FROM held)
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
        DeviceState state = one.turn().state();
        statement.setLong(1, feed.id);
        statement.setInt(2, one.device());
        statement.setString(3, state.name());
        statement.setDouble(4, one.turn().since() / 1000.0);
        statement.setDouble(5, one.known() / 1000.0);
        statement.setString(6, shortened(one.turn().why()));
        try (ResultSet found = statement.executeQuery()) {
            if (!found.next()) return keepReasons(connection, feed, one);
            String before = found.getString(2);
            notices(connection, feed, found.getLong(1), state, before == null ? null : DeviceState.valueOf(before));
            return true;
        }
    }

    /** Keeps what a device is in its state for besides what is kept of it. @return whether there is anything */
    private static boolean keepReasons(Connection connection, RunningFeed feed, RunningFeed.Turned one)
            throws SQLException {
        if (one.turn().reasons().isEmpty()) return false;
        long turn;
        String why;
        try (PreparedStatement held = connection.prepareStatement(
                "SELECT id, why FROM live_turns WHERE feed = ? AND device = ? AND until IS NULL AND state = ? FOR UPDATE")) {
            held.setLong(1, feed.id);
            held.setInt(2, one.device());
            held.setString(3, one.turn().state().name());
            try (ResultSet found = held.executeQuery()) {
                if (!found.next()) return false;
                turn = found.getLong(1);
                why = found.getString(2);
            }
        }
        List<String> lacking = StateKeeper.lacking(one.turn().reasons(), why);
        String both = shortened(StateKeeper.both(why, lacking));
        if (lacking.isEmpty() || both.equals(why)) return false;
        try (PreparedStatement update = connection.prepareStatement("UPDATE live_turns SET why = ? WHERE id = ?")) {
            update.setString(1, both);
            update.setLong(2, turn);
            update.executeUpdate();
        }
        notices(connection, feed, turn, one.turn().state(), null);
        return true;
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
                // What waits to be told is told with all its reasons.
                """
                INSERT INTO live_notices (feed, turn, way, address, due_at) SELECT ?, ?, ?, ?, ?
                WHERE NOT EXISTS (SELECT 1 FROM live_notices WHERE turn = ? AND way = ? AND address = ?
                  AND sent_at IS NULL AND NOT given_up)""")) {
            Map<String, String> to = new LinkedHashMap<>();
            notices.mails().forEach(mail -> to.put(mail, "MAIL"));
            if (notices.hook() != null) to.put(notices.hook(), "HOOK");
            for (Map.Entry<String, String> one : to.entrySet()) {
                insert.setLong(1, feed.id);
                insert.setLong(2, turn);
                insert.setString(3, one.getValue());
                insert.setString(4, one.getKey());
                insert.setTimestamp(5, due);
                insert.setLong(6, turn);
                insert.setString(7, one.getValue());
                insert.setString(8, one.getKey());
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
