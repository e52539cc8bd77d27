package sarnik.app.outside;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Locale;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.classic.methods.HttpPost;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.HttpResponse;
import org.apache.hc.core5.http.io.entity.StringEntity;
import org.apache.hc.core5.util.TimeValue;
import org.apache.hc.core5.util.Timeout;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import sarnik.app.SarnikProperties;
import sarnik.app.web.RefusedException;

/**
 * Fetches files from outside, within limits: http and https only, a few redirects, a size and a time, and no address
 * of this
 * machine or a private network unless a steward has allowed that host. Every redirect is held to the same.
 */
@Service
public class RemoteFiles implements AutoCloseable {

    private static final int MOST_REDIRECTS = 5;
    private static final int MOST_AT_ONCE = 40;
    private static final int MOST_OF_A_HOST = 10;
    private static final Duration FIRST_BYTE = Duration.ofSeconds(20);
    private static final Duration WHOLE = Duration.ofMinutes(3);

    private final AllowedHosts hosts;
    private final long largest;
    private final CloseableHttpClient http;
    private final ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "outside");
        thread.setDaemon(true);
        return thread;
    });

    /**
     * Where the request that this thread makes goes: names are not looked up a second time, which could lead elsewhere.
     */
    private static final ThreadLocal<InetAddress[]> ADDRESSES = new ThreadLocal<>();

    RemoteFiles(AllowedHosts hosts, SarnikProperties properties) {
        this.hosts = hosts;
        this.largest = properties.largestFile().toBytes();
        this.http = HttpClients.custom()
                .disableRedirectHandling()
                .disableAutomaticRetries()
                .disableCookieManagement()
                .disableAuthCaching()
                .setUserAgent("Sarnik")
                .setDefaultRequestConfig(RequestConfig.custom()
                        .setResponseTimeout(Timeout.of(FIRST_BYTE))
                        .build())
                .setConnectionManager(PoolingHttpClientConnectionManagerBuilder.create()
                        .setMaxConnTotal(MOST_AT_ONCE)
                        .setMaxConnPerRoute(MOST_OF_A_HOST)
                        .setDefaultConnectionConfig(ConnectionConfig.custom()
                                .setConnectTimeout(Timeout.ofSeconds(10))
                                .setSocketTimeout(Timeout.of(FIRST_BYTE))
                                .setTimeToLive(TimeValue.ofSeconds(1))
                                .build())
                        .setDnsResolver(new DnsResolver() {
                            @Override
                            public InetAddress[] resolve(String host) throws UnknownHostException {
                                InetAddress[] checked = ADDRESSES.get();
                                if (checked == null) throw new UnknownHostException(host);
                                return checked;
                            }

                            @Override
                            public String resolveCanonicalHostname(String host) {
                                return host;
                            }
                        })
                        .build())
                .build();
    }

    @Override
    public void close() throws IOException {
        clock.shutdownNow();
        http.close();
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

    /**
     * Sends JSON to an address; where it leads on is not followed.
     *
     * @throws RefusedException when the address is not allowed, cannot be reached, or does not answer with a status
     *     from 200 to 299
     */
    public void post(String address, String json) {
        Checked at = checked(address);
        HttpPost request = new HttpPost(at.uri);
        request.setEntity(new StringEntity(json, ContentType.APPLICATION_JSON));
        ScheduledFuture<?> end = clock.schedule(request::cancel, FIRST_BYTE.toMillis(), TimeUnit.MILLISECONDS);
        ADDRESSES.set(at.addresses);
        try {
            int status = http.execute(request, HttpResponse::getCode);
            if (status < 200 || status > 299)
                throw new RefusedException("%s answered with status %d.".formatted(at.uri.getHost(), status));
        } catch (IOException failed) {
            throw new RefusedException("%s cannot be reached or broke off.".formatted(at.uri.getHost()));
        } finally {
            ADDRESSES.remove();
            end.cancel(false);
        }
    }

    private static byte[] read(InputStream body, int most, String host) throws IOException {
        byte[] bytes = body.readNBytes(most + 1);
        if (bytes.length > most)
            throw new RefusedException(
                    "What %s sends is larger than the %,d bytes that were asked for.".formatted(host, most));
        return bytes;
    }

    private interface Reader<T> {
        T read(InputStream body, String host) throws IOException;
    }

    /** What one hop came to: where it leads on, or what was read. */
    private record Hop<T>(String onTo, T result) {}

    private <T> T ask(String address, String range, Reader<T> reader) {
        Checked at = checked(address);
        try {
            for (int hop = 0; hop <= MOST_REDIRECTS; hop++) {
                Hop<T> came = hop(at, range, reader);
                if (came.onTo == null) return came.result;
                at = checked(at.uri.resolve(came.onTo).toString());
            }
            throw new RefusedException(
                    "The address leads on and on: more than %d redirects.".formatted(MOST_REDIRECTS));
        } catch (SocketTimeoutException slow) {
            throw new RefusedException(
                    "%s did not answer within %d seconds.".formatted(at.uri.getHost(), FIRST_BYTE.toSeconds()));
        } catch (IOException failed) {
            throw new RefusedException("%s cannot be reached or broke off.".formatted(at.uri.getHost()));
        } catch (IllegalArgumentException odd) {
            throw new RefusedException("“" + address + "” leads to something that is no address.");
        }
    }

    private <T> Hop<T> hop(Checked at, String range, Reader<T> reader) throws IOException {
        HttpGet request = new HttpGet(at.uri);
        request.setHeader("Accept", "*/*");
        if (range != null) request.setHeader("Range", range);
        // However slowly it sends, it is given up in the end.
        ScheduledFuture<?> end = clock.schedule(request::cancel, WHOLE.toMillis() + 1000, TimeUnit.MILLISECONDS);
        ADDRESSES.set(at.addresses);
        try {
            return http.execute(request, answer -> {
                int status = answer.getCode();
                Header onTo = answer.getFirstHeader("Location");
                if (status >= 300 && status < 400 && onTo != null) return new Hop<>(onTo.getValue(), null);
                HttpStatus told = status == 404 || status == 410 ? HttpStatus.NOT_FOUND : HttpStatus.BAD_REQUEST;
                if (status != (range == null ? 200 : 206))
                    throw new RefusedException(
                            told,
                            "%s answered with status %d instead of %s."
                                    .formatted(
                                            at.uri.getHost(), status, range == null ? "a file" : "a part of a file"));
                HttpEntity entity = answer.getEntity();
                try (InputStream body = entity == null ? InputStream.nullInputStream() : entity.getContent()) {
                    return new Hop<>(null, reader.read(body, at.uri.getHost()));
                } finally {
                    // Whatever is left is not waited for.
                    request.cancel();
                }
            });
        } finally {
            ADDRESSES.remove();
            end.cancel(false);
        }
    }

    private void copy(InputStream body, Path file, long deadline, String host) throws IOException {
        byte[] buffer = new byte[1 << 16];
        long bytes = 0;
        try (OutputStream out = Files.newOutputStream(file)) {
            for (int n = body.read(buffer); n >= 0; n = body.read(buffer)) {
                bytes += n;
                if (bytes > largest)
                    throw new RefusedException("What %s sends is larger than %d MB, the most that can be brought in."
                            .formatted(host, largest >> 20));
                if (System.nanoTime() > deadline)
                    throw new RefusedException(
                            "%s sends too slowly: it took more than %d minutes.".formatted(host, WHOLE.toMinutes()));
                out.write(buffer, 0, n);
            }
        }
    }

    /**
     * An address that may be asked.
     *
     * @param addresses the very addresses that were looked at; the connection goes to one of them
     */
    public record Checked(URI uri, InetAddress[] addresses) {}

    /**
     * The address, if it may be asked.
     *
     * @throws RefusedException when it may not; the message says why
     */
    public Checked checked(String address) {
        URI at;
        try {
            at = new URI(address.strip());
        } catch (java.net.URISyntaxException | NullPointerException odd) {
            throw new RefusedException(
                    "“" + address + "” is no address. Write it whole, such as https://example.org/table.csv.");
        }
        String scheme = at.getScheme() == null ? "" : at.getScheme().toLowerCase(Locale.ROOT);
        if (!scheme.equals("http") && !scheme.equals("https") || at.getHost() == null) {
            throw new RefusedException("“" + address
                    + "” is no address that is asked: it has to begin with http:// or https:// and name a host.");
        }
        if (at.getUserInfo() != null)
            throw new RefusedException("The address holds a name or a password. Leave them out.");
        int port = at.getPort() > 0 ? at.getPort() : scheme.equals("http") ? 80 : 443;
        return new Checked(at, hosts.addresses(at.getHost(), port));
    }
}
