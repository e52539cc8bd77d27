package sarnik.app.live;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** The newest messages of each feed, as they came: what a person looks at who says how they become readings. */
@Component
class Samples {

    private static final Logger LOG = LoggerFactory.getLogger(Samples.class);
    private static final int EACH = 20;
    private static final int LONGEST = 20_000;

    /** A message as it came. */
    record Sample(String topic, String message) {}

    private final LiveConnections connections;
    private final Map<Long, Deque<Sample>> newest = new HashMap<>();
    private final Map<Long, Long> metAt = new HashMap<>();

    Samples(LiveConnections connections) {
        this.connections = connections;
    }

    /** Keeps a message; one that is too long to look at is left out. */
    void met(long feed, String topic, byte[] message) {
        if (message.length > LONGEST) return;
        long now = System.currentTimeMillis();
        synchronized (newest) {
            // Of a feed that sends a lot a few a second are enough to look at.
            if (now - metAt.getOrDefault(feed, 0L) < 100) return;
            metAt.put(feed, now);
            Deque<Sample> of = newest.computeIfAbsent(feed, f -> new ArrayDeque<>());
            if (of.size() == EACH) of.removeFirst();
            of.addLast(new Sample(topic, new String(message, StandardCharsets.UTF_8).replace('\0', ' ')));
        }
    }

    @Scheduled(fixedDelay = 2000)
    void keep() {
        Map<Long, List<Sample>> now = new HashMap<>();
        synchronized (newest) {
            newest.forEach((feed, of) -> now.put(feed, List.copyOf(of)));
            newest.clear();
        }
        now.forEach((feed, of) -> {
            try {
                keep(feed, of);
            } catch (SQLException away) {
                LOG.debug("Samples of messages are not written: {}", away.getMessage());
            }
        });
    }

    private void keep(long feed, List<Sample> samples) throws SQLException {
        try (Connection connection = connections.open();
                PreparedStatement insert = connection.prepareStatement("""
                        INSERT INTO live_samples (feed, number, topic, message, at)
                          SELECT f.id, coalesce((SELECT max(number) FROM live_samples WHERE feed = f.id), 0) + 1, ?, ?, now()
                          FROM live_feeds f WHERE f.id = ?
                          -- what another instance keeps at the same moment stays
                          ON CONFLICT DO NOTHING""");
                PreparedStatement forget = connection.prepareStatement("""
                        DELETE FROM live_samples WHERE feed = ? AND number NOT IN
                          (SELECT number FROM live_samples WHERE feed = ? ORDER BY number DESC LIMIT ?)""")) {
            for (Sample sample : samples) {
                insert.setString(1, sample.topic());
                insert.setString(2, sample.message());
                insert.setLong(3, feed);
                insert.addBatch();
            }
            insert.executeBatch();
            forget.setLong(1, feed);
            forget.setLong(2, feed);
            forget.setInt(3, EACH);
            forget.executeUpdate();
            connection.commit();
        }
    }

    /** The newest messages of a feed, the newest first. */
    List<Sample> of(long feed) {
        keep();
        List<Sample> found = new ArrayList<>();
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement(
                        "SELECT topic, message FROM live_samples WHERE feed = ? ORDER BY number DESC")) {
            statement.setLong(1, feed);
            try (ResultSet rows = statement.executeQuery()) {
                while (rows.next()) found.add(new Sample(rows.getString(1), rows.getString(2)));
            }
            connection.commit();
        } catch (SQLException away) {
            throw new IllegalStateException("Messages could not be read", away);
        }
        return found;
    }
}
