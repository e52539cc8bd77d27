package sarnik.app.database;

import com.zaxxer.hikari.HikariDataSource;
import com.zaxxer.hikari.HikariPoolMXBean;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.Properties;
import sarnik.app.Uptime;

/**
 * The connections to the database in which everything is kept. While it cannot be reached, whoever asks for one is told
 * at once, instead of after all the time for which one is waited when all are in use: a page asks for several.
 */
class OwnConnections extends HikariDataSource {

    /** So long it holds that the database could not be reached, before it is tried anew. */
    private static final long HOLDS_MILLIS = 500;

    private static final String TRY_SECONDS = "2";

    private SQLException refused;
    private long refusedAt;

    @Override
    public Connection getConnection() throws SQLException {
        HikariPoolMXBean pool = isRunning() ? getHikariPoolMXBean() : null;
        if (pool != null && pool.getTotalConnections() == 0) reach();
        return super.getConnection();
    }

    /** @throws SQLTransientConnectionException when the database cannot be reached */
    private synchronized void reach() throws SQLTransientConnectionException {
        if (refused == null || Uptime.millis() - refusedAt > HOLDS_MILLIS) {
            Properties login = new Properties();
            login.setProperty("user", getUsername());
            login.setProperty("password", getPassword());
            login.setProperty("connectTimeout", TRY_SECONDS);
            login.setProperty("loginTimeout", TRY_SECONDS);
            try (Connection tried = DriverManager.getConnection(getJdbcUrl(), login)) {
                refused = null;
            } catch (SQLException away) {
                refused = away;
                refusedAt = Uptime.millis();
            }
        }
        if (refused != null)
            throw new SQLTransientConnectionException(refused.getMessage(), refused.getSQLState(), refused);
    }
}
