package sarnik.app.live;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** The states that devices have turned to, in the database. */
@Component
class Turns {

    private static final Logger LOG = LoggerFactory.getLogger(Turns.class);

    private final LiveConnections connections;

    Turns(LiveConnections connections) {
        this.connections = connections;
    }

    /** Keeps states that devices turned to. What is lost of them is found again when the feed is read the next time. */
    void keep(RunningFeed feed, List<RunningFeed.Turned> turned) {
        if (turned.isEmpty()) return;
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement("""
                        WITH ended AS (UPDATE live_turns SET until = to_timestamp(?) WHERE feed = ? AND device = ?
                                         AND until IS NULL AND state <> ? RETURNING 1)
                        INSERT INTO live_turns (feed, device, state, since, why)
                          SELECT ?, ?, ?, to_timestamp(?), ? FROM (SELECT count(*) FROM ended) e
                          WHERE NOT EXISTS (SELECT 1 FROM live_turns WHERE feed = ? AND device = ? AND until IS NULL AND state = ?)
                          ON CONFLICT DO NOTHING""")) {
            for (RunningFeed.Turned one : turned) {
                double since = one.turn().since() / 1000.0;
                String state = one.turn().state().name();
                int p = 1;
                statement.setDouble(p++, since);
                statement.setLong(p++, feed.id);
                statement.setInt(p++, one.device());
                statement.setString(p++, state);
                statement.setLong(p++, feed.id);
                statement.setInt(p++, one.device());
                statement.setString(p++, state);
                statement.setDouble(p++, since);
                statement.setString(p++, one.turn().why());
                statement.setLong(p++, feed.id);
                statement.setInt(p++, one.device());
                statement.setString(p, state);
                statement.execute();
            }
            connection.commit();
        } catch (SQLException failed) {
            LOG.warn("States of devices could not be kept: {}", failed.getMessage());
        }
    }
}
