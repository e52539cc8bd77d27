package sarnik.app.connection;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServer;
import org.springframework.util.unit.DataSize;
import sarnik.app.SarnikProperties;

@DisplayName("The guard of connections")
class ConnectionGuardTest {

    private static final String BODY = "a body of twenty-two b";
    private static final String HEADERS =
            "POST /read HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\nContent-Length: 22\r\n\r\n";

    /** Far more than anything may take. */
    private static final long LONG = 100_000;

    private final CountDownLatch begun = new CountDownLatch(1);
    private final CountDownLatch reads = new CountDownLatch(1);
    private ConnectionGuard guard;
    private WebServer server;

    /** Reads its body when it is let to, and says what it has read. */
    private final class Late extends HttpServlet {

        private static final long serialVersionUID = 1;

        @Override
        protected void doPost(HttpServletRequest request, HttpServletResponse response) throws IOException {
            begun.countDown();
            try {
                reads.await();
            } catch (InterruptedException stopped) {
                throw new IOException(stopped);
            }
            byte[] read = request.getInputStream().readAllBytes();
            response.getOutputStream().write(read);
        }
    }

    @BeforeEach
    void start() {
        guard = new ConnectionGuard(new SarnikProperties(
                DataSize.ofMegabytes(1), Path.of("."), 0.5, 1, "none", Duration.ofSeconds(1), null, null));
        TomcatServletWebServerFactory factory = new TomcatServletWebServerFactory(0);
        guard.customize(factory);
        server = factory.getWebServer(
                context -> context.addServlet("late", new Late()).addMapping("/read"));
        server.start();
    }

    @AfterEach
    void stop() {
        reads.countDown();
        server.stop();
    }

    private Socket send(String text) throws IOException {
        Socket socket = new Socket(InetAddress.getLoopbackAddress(), server.getPort());
        socket.setSoTimeout(30_000);
        socket.getOutputStream().write(text.getBytes(StandardCharsets.US_ASCII));
        return socket;
    }

    @Test
    void letsABodyBeReadLateByTheServerItself() throws Exception {
        try (Socket socket = send(HEADERS + BODY)) {
            begun.await();
            guard.sweep(LONG);
            guard.sweep(LONG);
            reads.countDown();
            assertThat(ConnectionsTest.answer(socket))
                    .startsWith("HTTP/1.1 200")
                    .endsWith(BODY);
        }
    }

    @Test
    void doesNotCountWhatTheServerTookBeforeItReadTheRest() throws Exception {
        try (Socket socket = send(HEADERS + BODY.substring(0, 10))) {
            begun.await();
            guard.sweep(LONG);
            reads.countDown();
            guard.sweep(1);
            socket.getOutputStream().write(BODY.substring(10).getBytes(StandardCharsets.US_ASCII));
            assertThat(ConnectionsTest.answer(socket))
                    .startsWith("HTTP/1.1 200")
                    .endsWith(BODY);
        }
    }

    @Test
    void closesABodyThatIsWaitedForTooLong() throws Exception {
        try (Socket socket = send(HEADERS + BODY.substring(0, 10))) {
            begun.await();
            reads.countDown();
            assertThat(whenClosed(socket)).doesNotContain(" 200 ");
        }
    }

    @Test
    void closesHeadersThatDoNotEnd() throws Exception {
        try (Socket socket = send(HEADERS.substring(0, 30))) {
            assertThat(whenClosed(socket)).doesNotContain(" 200 ");
        }
    }

    @Test
    void closesAConnectionOnWhichNothingMoreIsAsked() throws Exception {
        reads.countDown();
        try (Socket socket = send(HEADERS.replace("Connection: close\r\n", "") + BODY)) {
            assertThat(whenClosed(socket)).startsWith("HTTP/1.1 200").endsWith(BODY);
        }
    }

    /** When the server comes to wait is its own affair; until it has closed the connection it is swept again. */
    private String whenClosed(Socket socket) throws Exception {
        Thread sweeper = new Thread(() -> {
            while (!Thread.currentThread().isInterrupted()) guard.sweep(2_000);
        });
        sweeper.start();
        try {
            return ConnectionsTest.answer(socket);
        } finally {
            sweeper.interrupt();
            sweeper.join();
        }
    }
}
