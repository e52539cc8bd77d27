package sarnik.app.instance;

import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.HashSet;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * What only one of all instances does at a time, and only once: whoever does it holds a lock in the database (an
 * advisory one of PostgreSQL), on a connection of this instance that does nothing else. It ends with the instance,
 * whichever way that ends, so another can go on at once.
 */
@Component
public class Alone implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Alone.class);
    private static final int VALID_SECONDS = 2;

    private final String url;
    private final Properties login = new Properties();
    private final Set<Turn> held = new HashSet<>();
    private Connection connection;

    public Alone(DataSource shared) throws SQLException {
        HikariDataSource as = shared.unwrap(HikariDataSource.class);
        url = as.getJdbcUrl();
        login.setProperty("user", as.getUsername());
        login.setProperty("password", as.getPassword());
        // A server that has gone without a word is told from a slow one.
        login.setProperty("socketTimeout", "30");
    }

    /** Somebody's turn at something; it lasts until it is closed, or until the database is away. */
    public final class Turn implements AutoCloseable {

        private final String what;
        private final long id;

        private Turn(String what, long id) {
            this.what = what;
            this.id = id;
        }

        /** Whether it still lasts: nobody else does the same. */
        public boolean lasts() {
            synchronized (Alone.this) {
                return held.contains(this);
            }
        }

        private boolean is(String other, long of) {
            return what.equals(other) && id == of;
        }

        @Override
        public void close() {
            synchronized (Alone.this) {
                if (!held.remove(this)) return;
                try {
                    ask("SELECT pg_advisory_unlock(hashtext(?), ?)", what, id);
                    if (held.isEmpty()) forget();
                } catch (SQLException gone) {
                    forget();
                }
            }
        }
    }

    /**
     * Takes a turn.
     *
     * @param what is done
     * @param id of what it is done to, a number of 32 bits
     * @return empty where somebody is at it, here or elsewhere
     * @throws SQLException where the database is away; no turn of this instance lasts then
     */
    public synchronized Optional<Turn> at(String what, long id) throws SQLException {
        check();
        if (held.stream().anyMatch(turn -> turn.is(what, id))) return Optional.empty();
        if (connection == null) connection = DriverManager.getConnection(url, login);
        if (!ask("SELECT pg_try_advisory_lock(hashtext(?), ?)", what, id)) {
            if (held.isEmpty()) forget();
            return Optional.empty();
        }
        Turn turn = new Turn(what, id);
        held.add(turn);
        return Optional.of(turn);
    }

    /** Looks whether the database is there; where it is not, no turn lasts any more. */
    public synchronized void check() throws SQLException {
        if (connection != null && !connection.isValid(VALID_SECONDS)) forget();
    }

    private boolean ask(String sql, String what, long id) throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement(sql)) {
            statement.setString(1, what);
            statement.setInt(2, Math.toIntExact(id));
            try (ResultSet found = statement.executeQuery()) {
                return found.next() && found.getBoolean(1);
            }
        } catch (SQLException gone) {
            forget();
            throw gone;
        }
    }

    private void forget() {
        held.clear();
        if (connection == null) return;
        try {
            connection.close();
        } catch (SQLException gone) {
            LOG.debug("The connection of the locks had ended", gone);
        }
        connection = null;
    }

    @Override
    public synchronized void close() {
        forget();
    }
}
