package sarnik.app.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import javax.sql.DataSource;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;

@ExtendWith(RunningSarnik.class)
@DisplayName("Connections to the database in which everything is kept")
class OwnConnectionsTest {

    /** A way to the database that goes away and comes back. */
    private static final class Way implements AutoCloseable {
        private final URI database;
        private final Queue<Socket> open = new ConcurrentLinkedQueue<>();
        private ServerSocket door;
        private int port;

        Way(URI database) throws IOException {
            this.database = database;
            open();
        }

        void open() throws IOException {
            ServerSocket server = new ServerSocket(port, 50, InetAddress.getLoopbackAddress());
            door = server;
            port = server.getLocalPort();
            thread(() -> {
                while (true) {
                    Socket from = server.accept();
                    Socket to = new Socket(database.getHost(), database.getPort());
                    open.add(from);
                    open.add(to);
                    thread(() -> from.getInputStream().transferTo(to.getOutputStream()));
                    thread(() -> to.getInputStream().transferTo(from.getOutputStream()));
                }
            });
        }

        private interface Carrying {
            void run() throws IOException;
        }

        private static void thread(Carrying carrying) {
            Thread thread = new Thread(() -> {
                try {
                    carrying.run();
                } catch (IOException closed) {
                    // It has gone away.
                }
            });
            thread.setDaemon(true);
            thread.start();
        }

        @Override
        public void close() throws IOException {
            door.close();
            for (Socket socket : open) socket.close();
            open.clear();
        }
    }

    @Test
    @Timeout(60)
    void saysAtOnceThatTheDatabaseIsAwayAndServesAgainOnceItIsThere(RunningSarnik sarnik) throws Exception {
        HikariDataSource as = sarnik.bean(DataSource.class).unwrap(HikariDataSource.class);
        assertThat(as).as("what the application asks").isInstanceOf(OwnConnections.class);
        URI real = URI.create(as.getJdbcUrl().substring("jdbc:".length()));
        try (Way way = new Way(real);
                OwnConnections connections = new OwnConnections()) {
            connections.setJdbcUrl("jdbc:postgresql://127.0.0.1:" + way.port + real.getPath());
            connections.setUsername(as.getUsername());
            connections.setPassword(as.getPassword());
            connections.setMaximumPoolSize(2);
            // Far more than this test may take.
            connections.setConnectionTimeout(600_000);
            answers(connections);
            // None is on its way any more.
            while (connections.getHikariPoolMXBean().getTotalConnections() < 2) Thread.onSpinWait();

            way.close();
            // What was open is seen to be gone when it is next asked for.
            connections.getHikariPoolMXBean().softEvictConnections();
            for (int ask = 0; ask < 20; ask++)
                assertThatThrownBy(connections::getConnection)
                        .isInstanceOf(SQLTransientConnectionException.class)
                        .hasMessageContaining("refused");

            way.open();
            while (true) {
                try {
                    answers(connections);
                    break;
                } catch (SQLTransientConnectionException held) {
                    // What was found out a moment ago still holds.
                    Thread.onSpinWait();
                }
            }
        }
    }

    private static void answers(DataSource connections) throws SQLException {
        try (Connection connection = connections.getConnection();
                ResultSet row = connection.createStatement().executeQuery("SELECT 7")) {
            assertThat(row.next()).isTrue();
            assertThat(row.getInt(1)).isEqualTo(7);
        }
    }
}
