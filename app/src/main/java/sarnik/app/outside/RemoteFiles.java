package sarnik.app.outside;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Locale;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import sarnik.app.SarnikProperties;
import sarnik.app.web.RefusedException;

/**
 * Fetches files from outside, within limits: http and https only, a few redirects, a size and a time, and no address of this
 * machine or a private network unless a steward has allowed that host. Every redirect is held to the same.
 */
@Service
public class RemoteFiles {

    private static final int MOST_REDIRECTS = 5;
    private static final Duration FIRST_BYTE = Duration.ofSeconds(20);
    private static final Duration WHOLE = Duration.ofMinutes(3);

    private final AllowedHosts hosts;
    private final long largest;
    private final HttpClient http = HttpClient.newBuilder().followRedirects(HttpClient.Redirect.NEVER).connectTimeout(Duration.ofSeconds(10)).build();

    RemoteFiles(AllowedHosts hosts, SarnikProperties properties) {
        this.hosts = hosts;
        this.largest = properties.largestFile().toBytes();
    }

    /**
     * Fetches what lies at an address.
     *
     * @param file where it is written
     * @throws RefusedException when the address is not allowed, does not answer as it should, or goes over a limit; the
     *     message says which
     */
    public void fetch(String address, Path file) {
        long deadline = System.nanoTime() + WHOLE.toNanos();
        ask(address, null, (body, host) -> {
            copy(body, file, deadline, host);
            return file;
        });
    }

    /**
     * Fetches something small.
     *
     * @param most bytes
     * @throws RefusedException as {@link #fetch}
     */
    public byte[] bytes(String address, int most) {
        return ask(address, null, (body, host) -> read(body, most, host));
    }

    /**
     * Fetches a part of what lies at an address (RFC 9110, range requests).
     *
     * @param from the first byte
     * @param length how many bytes; fewer come where the end is nearer
     * @throws RefusedException as {@link #fetch}, and when the host does not send parts
     */
    public byte[] bytes(String address, long from, int length) {
        return ask(address, "bytes=" + from + "-" + (from + length - 1), (body, host) -> read(body, length, host));
    }

    private static byte[] read(InputStream body, int most, String host) throws IOException {
        byte[] bytes = body.readNBytes(most + 1);
        if (bytes.length > most) throw new RefusedException("What %s sends is larger than the %,d bytes that were asked for.".formatted(host, most));
        return bytes;
    }

    private interface Reader<T> {
        T read(InputStream body, String host) throws IOException;
    }

    private <T> T ask(String address, String range, Reader<T> reader) {
        URI at = checked(address);
        int wanted = range == null ? 200 : 206;
        try {
            for (int hop = 0; hop <= MOST_REDIRECTS; hop++) {
                HttpRequest.Builder request = HttpRequest.newBuilder(at).timeout(FIRST_BYTE).header("User-Agent", "Sarnik").header("Accept", "*/*").GET();
                if (range != null) request.header("Range", range);
                HttpResponse<InputStream> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
                try (InputStream body = answer.body()) {
                    int status = answer.statusCode();
                    if (status >= 300 && status < 400 && answer.headers().firstValue("Location").isPresent()) {
                        at = checked(at.resolve(answer.headers().firstValue("Location").get()).toString());
                        continue;
                    }
                    HttpStatus told = status == 404 || status == 410 ? HttpStatus.NOT_FOUND : HttpStatus.BAD_REQUEST;
                    if (status != wanted) throw new RefusedException(told, "%s answered with status %d instead of %s.".formatted(at.getHost(), status, range == null ? "a file" : "a part of a file"));
                    return reader.read(body, at.getHost());
                }
            }
            throw new RefusedException("The address leads on and on: more than %d redirects.".formatted(MOST_REDIRECTS));
        } catch (HttpTimeoutException slow) {
            throw new RefusedException("%s did not answer within %d seconds.".formatted(at.getHost(), FIRST_BYTE.toSeconds()));
        } catch (IOException failed) {
            throw new RefusedException("%s cannot be reached or broke off.".formatted(at.getHost()));
        } catch (IllegalArgumentException odd) {
            throw new RefusedException("“" + address + "” leads to something that is no address.");
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new RefusedException("Fetching was stopped.");
        }
    }

    private void copy(InputStream body, Path file, long deadline, String host) throws IOException {
        byte[] buffer = new byte[1 << 16];
        long bytes = 0;
        try (OutputStream out = Files.newOutputStream(file)) {
            for (int n = body.read(buffer); n >= 0; n = body.read(buffer)) {
                bytes += n;
                if (bytes > largest) throw new RefusedException("What %s sends is larger than %d MB, the most that can be brought in.".formatted(host, largest >> 20));
                if (System.nanoTime() > deadline) throw new RefusedException("%s sends too slowly: it took more than %d minutes.".formatted(host, WHOLE.toMinutes()));
                out.write(buffer, 0, n);
            }
        }
    }

    /**
     * The address, if it may be asked.
     *
     * @throws RefusedException when it may not; the message says why
     */
    public URI checked(String address) {
        URI at;
        try {
            at = new URI(address.strip());
        } catch (java.net.URISyntaxException | NullPointerException odd) {
            throw new RefusedException("“" + address + "” is no address. Write it whole, such as https://example.org/table.csv.");
        }
        String scheme = at.getScheme() == null ? "" : at.getScheme().toLowerCase(Locale.ROOT);
        if (!scheme.equals("http") && !scheme.equals("https") || at.getHost() == null) {
            throw new RefusedException("“" + address + "” is no address that is asked: it has to begin with http:// or https:// and name a host.");
        }
        if (at.getUserInfo() != null) throw new RefusedException("The address holds a name or a password. Leave them out.");
        int port = at.getPort() > 0 ? at.getPort() : scheme.equals("http") ? 80 : 443;
        if (!hosts.allows(at.getHost(), port)) {
            try {
                for (InetAddress ip : InetAddress.getAllByName(at.getHost())) {
                    if (isInside(ip)) {
                        throw new RefusedException("“%s” is this machine or lies in a private network, which is not asked unless a steward allows “%s”.".formatted(at.getHost(), at.getHost() + ":" + port));
                    }
                }
            } catch (UnknownHostException unknown) {
                throw new RefusedException("There is no host called “" + at.getHost() + "”.");
            }
        }
        return at;
    }

    /** Loopback, private, link-local, multicast, carrier-grade NAT, unique local (RFC 4193) and unspecified addresses. */
    static boolean isInside(InetAddress ip) {
        byte[] bytes = ip.getAddress();
        boolean shared = bytes.length == 4 && (bytes[0] & 0xFF) == 100 && (bytes[1] & 0xC0) == 64;
        boolean uniqueLocal = bytes.length == 16 && (bytes[0] & 0xFE) == 0xFC;
        boolean thisNetwork = bytes.length == 4 && bytes[0] == 0;
        return ip.isLoopbackAddress() || ip.isSiteLocalAddress() || ip.isLinkLocalAddress() || ip.isAnyLocalAddress() || ip.isMulticastAddress()
                || shared || uniqueLocal || thisNetwork;
    }
}
