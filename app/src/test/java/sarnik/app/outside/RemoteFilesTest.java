package sarnik.app.outside;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.net.UnknownHostException;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("An address of the network")
class RemoteFilesTest {

    @ParameterizedTest
    @ValueSource(strings = {"127.0.0.1", "127.255.0.9", "10.0.0.1", "172.16.0.1", "172.31.255.255", "192.168.1.1", "169.254.169.254", "0.0.0.0", "0.1.2.3", "100.64.0.1", "100.127.255.255", "224.0.0.1",
        "::1", "::", "fe80::1", "fc00::1", "fdff::1", "ff02::1", "::ffff:127.0.0.1", "::ffff:10.0.0.1"})
    void insideIsNotAskedWithoutAStewardsWord(String address) throws UnknownHostException {
        assertThat(RemoteFiles.isInside(InetAddress.getByName(address))).isTrue();
    }

    @ParameterizedTest
    @ValueSource(strings = {"1.1.1.1", "172.15.0.1", "172.32.0.1", "192.167.1.1", "100.63.255.255", "100.128.0.1", "169.253.0.1", "2001:4860::8888", "fbff::1"})
    void outsideMayBeAsked(String address) throws UnknownHostException {
        assertThat(RemoteFiles.isInside(InetAddress.getByName(address))).isFalse();
    }
}
