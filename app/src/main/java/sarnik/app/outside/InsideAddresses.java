package sarnik.app.outside;

import java.math.BigInteger;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Arrays;
import java.util.List;

/**
 * The addresses that lie on this machine, in a private network, or nowhere that is public: the special-purpose
 * registries of
 * IANA for IPv4 and IPv6 (RFC 6890 and its successors). An IPv4 address is found in every mapping into IPv6.
 */
final class InsideAddresses {

    private static final List<Range> INSIDE = ranges(
            "0.0.0.0/8",
            "10.0.0.0/8",
            "100.64.0.0/10",
            "127.0.0.0/8",
            "169.254.0.0/16",
            "172.16.0.0/12",
            "192.0.0.0/24",
            "192.0.2.0/24",
            "192.88.99.0/24",
            "192.168.0.0/16",
            "198.18.0.0/15",
            "198.51.100.0/24",
            "203.0.113.0/24",
            "224.0.0.0/4",
            "240.0.0.0/4",
            "::/128",
            "::1/128",
            "100::/64",
            "64:ff9b:1::/48",
            "2001::/23",
            "2001:db8::/32",
            "3fff::/20",
            "5f00::/16",
            "fc00::/7",
            "fe80::/10",
            "fec0::/10",
            "ff00::/8");

    /** Where an IPv4 address stands in an IPv6 one: the byte at which it begins. */
    private static final List<Mapping> MAPPINGS = List.of(
            new Mapping(range("::/96"), 12),
            new Mapping(range("::ffff:0:0:0/96"), 12),
            new Mapping(range("64:ff9b::/96"), 12),
            new Mapping(range("2002::/16"), 2));

    private record Range(byte[] from, int bits) {

        boolean holds(byte[] address) {
            if (address.length != from.length) return false;
            int drop = address.length * 8 - bits;
            return new BigInteger(1, address).shiftRight(drop).equals(new BigInteger(1, from).shiftRight(drop));
        }
    }

    private record Mapping(Range range, int at) {}

    private InsideAddresses() {}

    private static List<Range> ranges(String... written) {
        return Arrays.stream(written).map(InsideAddresses::range).toList();
    }

    private static Range range(String written) {
        String[] parts = written.split("/");
        try {
            return new Range(InetAddress.getByName(parts[0]).getAddress(), Integer.parseInt(parts[1]));
        } catch (UnknownHostException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    static boolean isInside(InetAddress ip) {
        return isInside(ip.getAddress());
    }

    private static boolean isInside(byte[] address) {
        if (INSIDE.stream().anyMatch(r -> r.holds(address))) return true;
        return MAPPINGS.stream()
                .anyMatch(m -> m.range.holds(address) && isInside(Arrays.copyOfRange(address, m.at, m.at + 4)));
    }
}
