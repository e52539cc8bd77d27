package sarnik.app.outside;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.web.RefusedException;

@DisplayName("Files from outside")
@ExtendWith(RunningSarnik.class)
class RemoteFilesTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "127.0.0.1",
                "127.9.9.9",
                "::1",
                "10.0.0.1",
                "172.16.0.1",
                "172.31.255.255",
                "192.168.1.1",
                "169.254.169.254",
                "0.0.0.0",
                "0.1.2.3",
                "100.64.0.1",
                "100.127.255.255",
                "224.0.0.1",
                "239.255.255.250",
                "240.0.0.1",
                "255.255.255.255",
                "198.18.0.1",
                "198.19.255.255",
                "192.0.0.1",
                "192.0.2.1",
                "198.51.100.7",
                "203.0.113.9",
                "fd00::1",
                "fc00::1",
                "fe80::1",
                "fec0::1",
                "ff02::1",
                "::",
                "64:ff9b::7f00:1",
                "64:ff9b::a00:1",
                "64:ff9b:1::1",
                "2002:7f00:1::",
                "2002:a00:1::",
                "2002:c0a8:101::1",
                "::127.0.0.1",
                "::10.0.0.1",
                "::ffff:192.168.0.1",
                "2001::1",
                "2001:db8::1",
                "100::1"
            })
    void thisMachineAndPrivateNetworksAreInsideByEveryMapping(String address) throws Exception {
        assertThat(InsideAddresses.isInside(InetAddress.getByName(address)))
                .as(address)
                .isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "9.9.9.9",
                "172.15.0.1",
                "172.32.0.1",
                "100.63.255.255",
                "100.128.0.1",
                "198.17.255.255",
                "198.20.0.1",
                "192.0.1.1",
                "192.1.0.1",
                "223.255.255.255",
                "2606:4700::1111",
                "64:ff9b::909:909",
                "2002:909:909::",
                "2a00::1"
            })
    void whatIsPublicIsNot(String address) throws Exception {
        assertThat(InsideAddresses.isInside(InetAddress.getByName(address)))
                .as(address)
                .isFalse();
    }

    @Test
    void theConnectionGoesToTheAddressThatWasChecked(RunningSarnik sarnik) throws Exception {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getByName("127.0.0.1"), 0), 4);
        server.createContext("/", exchange -> {
            byte[] body = exchange.getRequestHeaders().getFirst("Host").getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(200, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        server.start();
        try {
            int port = server.getAddress().getPort();
            RemoteFiles files = sarnik.bean(RemoteFiles.class);
            assertThatThrownBy(() -> files.bytes("http://localhost:" + port + "/", 100))
                    .isInstanceOf(RefusedException.class)
                    .hasMessageContaining("unless a steward allows “localhost:" + port + "”");
            sarnik.client("marta")
                    .send("POST", "/hosts", "application/x-www-form-urlencoded", "host=localhost%3A" + port);
            RemoteFiles.Checked checked = files.checked("http://localhost:" + port + "/");
            assertThat(checked.addresses()).isNotEmpty().allMatch(InetAddress::isLoopbackAddress);
            assertThat(new String(files.bytes("http://localhost:" + port + "/", 100), StandardCharsets.UTF_8))
                    .as("asked by its name")
                    .isEqualTo("localhost:" + port);
        } finally {
            server.stop(0);
        }
    }
}
