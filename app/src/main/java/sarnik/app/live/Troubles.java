package sarnik.app.live;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** What could not be read of messages, or not as it was sent: kept for whoever looks after a feed, alike ones once. */
@Component
class Troubles {

    private static final Logger LOG = LoggerFactory.getLogger(Troubles.class);
    private static final int MOST = 300;
    private static final int LONGEST_WORDS = 400;
    private static final int LONGEST_MESSAGE = 4000;

    private final LiveConnections connections;
    private final Map<Of, Met> met = new LinkedHashMap<>();

    private record Of(long feed, String words) {}

    private static final class Met {
        String message;
        boolean lost;
        long times;
    }

    /**
     * A trouble as people see it.
     *
     * @param message one of the messages that it was met in, shortened
     */
    record Told(String words, String message, boolean lost, long times, Instant first, Instant last) {}

    Troubles(LiveConnections connections) {
        this.connections = connections;
    }

    void met(long feed, String words, String message, boolean lost) {
        String clean = shortened(words, LONGEST_WORDS);
        synchronized (met) {
            Of of = new Of(feed, clean);
            // So many different ones within a second are of one kind; the first say it.
            if (met.size() >= MOST && !met.containsKey(of)) return;
            Met now = met.computeIfAbsent(of, o -> new Met());
            now.message = shortened(message, LONGEST_MESSAGE);
            now.lost |= lost;
            now.times++;
        }
    }

    private static String shortened(String text, int most) {
        String clean = text.replace('\0', ' ');
        return clean.length() > most ? clean.substring(0, most - 1) + "…" : clean;
    }

    /** Writes down what was met. While the database is away it is kept in memory. */
    @Scheduled(fixedDelay = 1000)
    void keep() {
        Map<Of, Met> now;
        synchronized (met) {
            if (met.isEmpty()) return;
            now = new LinkedHashMap<>(met);
            met.clear();
        }
        try (Connection connection = connections.open();
                PreparedStatement insert = connection.prepareStatement("""
                        INSERT INTO live_troubles (feed, words, message, lost, times, first_at, last_at)
                          SELECT ?, ?, ?, ?, ?, now(), now() WHERE EXISTS (SELECT 1 FROM live_feeds WHERE id = ?)
                          ON CONFLICT (feed, words) DO UPDATE SET message = EXCLUDED.message, last_at = now(),
                            lost = live_troubles.lost OR EXCLUDED.lost, times = live_troubles.times + EXCLUDED.times""");
                PreparedStatement forget = connection.prepareStatement("""
                        DELETE FROM live_troubles WHERE feed = ? AND words NOT IN
                          (SELECT words FROM live_troubles WHERE feed = ? ORDER BY last_at DESC LIMIT ?)""")) {
            for (Map.Entry<Of, Met> entry : now.entrySet()) {
                insert.setLong(1, entry.getKey().feed);
                insert.setString(2, entry.getKey().words);
                insert.setString(3, entry.getValue().message);
                insert.setBoolean(4, entry.getValue().lost);
                insert.setLong(5, entry.getValue().times);
                insert.setLong(6, entry.getKey().feed);
                insert.addBatch();
            }
            insert.executeBatch();
            for (long feed : now.keySet().stream().map(Of::feed).distinct().toList()) {
                forget.setLong(1, feed);
                forget.setLong(2, feed);
                forget.setInt(3, MOST);
                forget.executeUpdate();
            }
            connection.commit();
        } catch (SQLException away) {
            LOG.warn("Troubles of feeds are not written yet: {}", away.getMessage());
            synchronized (met) {
                now.forEach((of, one) -> met.merge(of, one, (newer, older) -> {
                    newer.times += older.times;
                    return newer;
                }));
            }
        }
    }

    /** The troubles of a feed, the newest first. */
    List<Told> of(long feed) {
        List<Told> told = new ArrayList<>();
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement(
                        "SELECT words, message, lost, times, first_at, last_at FROM live_troubles WHERE feed = ? ORDER BY last_at DESC, words")) {
            statement.setLong(1, feed);
            try (ResultSet found = statement.executeQuery()) {
                while (found.next())
                    told.add(new Told(
                            found.getString(1),
                            found.getString(2),
                            found.getBoolean(3),
                            found.getLong(4),
                            found.getTimestamp(5).toInstant(),
                            found.getTimestamp(6).toInstant()));
            }
            connection.commit();
        } catch (SQLException away) {
            throw new IllegalStateException("Troubles could not be read", away);
        }
        return told;
    }

    /** Forgets the troubles of a feed: somebody has seen them. */
    void forget(long feed) {
        try (Connection connection = connections.open();
                PreparedStatement statement =
                        connection.prepareStatement("DELETE FROM live_troubles WHERE feed = ? AND first_at <= ?")) {
            statement.setLong(1, feed);
            statement.setTimestamp(2, Timestamp.from(Instant.now()));
            statement.executeUpdate();
            connection.commit();
        } catch (SQLException away) {
            throw new IllegalStateException("Troubles could not be forgotten", away);
        }
    }
}
