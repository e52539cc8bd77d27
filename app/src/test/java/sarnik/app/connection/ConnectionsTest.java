package sarnik.app.connection;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;

@ExtendWith(RunningSarnik.class)
@DisplayName("Connections")
class ConnectionsTest {

    private static final String SLOW = "POST /sign-in HTTP/1.1\r\nHost: localhost\r\nContent-Type: "
            + "application/x-www-form-urlencoded\r\nContent-Length: 200\r\n\r\nu";

    private static Socket open(RunningSarnik sarnik, String from, String sent) throws IOException {
        Socket socket = new Socket();
        socket.bind(new InetSocketAddress(InetAddress.getByName(from), 0));
        socket.connect(new InetSocketAddress(
                InetAddress.getByName("127.0.0.1"), URI.create(sarnik.base()).getPort()));
        socket.getOutputStream().write(sent.getBytes(StandardCharsets.US_ASCII));
        socket.setSoTimeout(60_000);
        return socket;
    }

    /** All that is answered until the connection is closed; empty where it is cut. */
    static String answer(Socket socket) throws IOException {
        try {
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        } catch (java.net.SocketException reset) {
            return "";
        }
    }

    @Test
    void thatSendSlowlyKeepNobodyFromSigningInAndAreClosed(RunningSarnik sarnik) throws Exception {
        List<Socket> slow = new ArrayList<>();
        try {
            for (int i = 0; i < 250; i++) slow.add(open(sarnik, "127.0.0.1", SLOW));
            assertThat(new SarnikClient(sarnik.base()).signIn("rui", RunningSarnik.PASSWORD))
                    .isTrue();
            for (Socket socket : slow)
                assertThat(answer(socket))
                        .as("closed without an answer, or told that it was too slow")
                        .doesNotContain(" 200 ")
                        .doesNotContain(" 302 ");
        } finally {
            for (Socket socket : slow) socket.close();
        }
    }

    @Test
    void whoseHeadersNeverEndAreClosed(RunningSarnik sarnik) throws Exception {
        try (Socket socket = open(sarnik, "127.0.0.1", "GET /sign-in HTTP/1.1\r\nHost: localhost\r\nX-Slow: ")) {
            int sent = 0;
            // A byte now and then keeps the connection busy for ever, unless the whole has an end.
            while (sent < 100) {
                try {
                    socket.getOutputStream().write('a');
                    sent++;
                    socket.setSoTimeout(400);
                    if (socket.getInputStream().read() < 0) break;
                } catch (java.net.SocketTimeoutException stillOpen) {
                    // It goes on being slow.
                } catch (java.net.SocketException closed) {
                    break;
                }
            }
            assertThat(sent).isLessThan(100);
        }
    }

    @Test
    void areBelievedAboutWhomTheyForwardOnlyWhereTheProxyIsNamed(RunningSarnik sarnik) throws Exception {
        String forwarded = "GET /sign-in HTTP/1.1\r\nHost: localhost\r\nX-Forwarded-Proto: https\r\nX-Forwarded-For: "
                + "192.0.2.7\r\nConnection: close\r\n\r\n";
        try (Socket proxy = open(sarnik, RunningSarnik.PROXY, forwarded);
                Socket stranger = open(sarnik, "127.0.0.1", forwarded)) {
            assertThat(answer(proxy))
                    .contains("Set-Cookie")
                    .containsPattern("(?i)set-cookie: sarnik-session=[^\r]*; Secure");
            assertThat(answer(stranger))
                    .contains("Set-Cookie")
                    .doesNotContainPattern("(?i)set-cookie: sarnik-session=[^\r]*; Secure");
        }
    }

    @Test
    void haveToSayHowLongABodyIs(RunningSarnik sarnik) throws Exception {
        try (Socket socket = open(
                sarnik,
                "127.0.0.1",
                "POST /sign-in HTTP/1.1\r\nHost: localhost\r\nTransfer-Encoding: chunked\r\nConnection: "
                        + "close\r\n\r\n0\r\n\r\n")) {
            assertThat(answer(socket)).startsWith("HTTP/1.1 411");
        }
    }
}
