package sarnik.app.live;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.UUID;
import javax.sql.DataSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import sarnik.app.instance.Instances;

/** The feeds' own connections to the database, so that readers do not hold up devices, nor devices readers. */
@Component
class LiveConnections implements AutoCloseable {

    private final HikariDataSource connections;

    /** Tells what this instance of the program has written from what others have. */
    private final String instance;

    @Autowired
    LiveConnections(DataSource shared, Instances instances) throws SQLException {
        this(shared, instances.own());
    }

    LiveConnections(DataSource shared, UUID own) throws SQLException {
        instance = own.toString();
        HikariDataSource as = shared.unwrap(HikariDataSource.class);
        HikariConfig config = new HikariConfig();
        config.setJdbcUrl(as.getJdbcUrl());
        config.setUsername(as.getUsername());
        config.setPassword(as.getPassword());
        config.setMaximumPoolSize(6);
        config.setConnectionTimeout(2000);
        config.setValidationTimeout(1000);
        config.setInitializationFailTimeout(-1);
        config.setAutoCommit(false);
        config.setPoolName("live");
        // A server that has gone without a word is told from a slow one.
        config.addDataSourceProperty("socketTimeout", "30");
        // Plans over a year of partitions take minutes to compile and a second to run; what nobody waits for any more
        // ends.
        config.setConnectionInitSql("""
                SELECT set_config(name, CASE name WHEN 'jit' THEN 'off' ELSE '5000' END, false) FROM pg_settings
                WHERE name IN ('jit', 'client_connection_check_interval')""");
        connections = new HikariDataSource(config);
    }

    /** A connection without auto-commit. */
    Connection open() throws SQLException {
        return connections.getConnection();
    }

    String instance() {
        return instance;
    }

    @Override
    public void close() {
        connections.close();
    }
}
