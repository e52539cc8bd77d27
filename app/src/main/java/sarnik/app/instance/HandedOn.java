package sarnik.app.instance;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Hands a request on to the instance that holds what it is about, with the session of whoever asks, which holds there
 * as well; so it does not matter to which of them a balancer sends it. Where that one has ended this one answers.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 20)
class HandedOn extends OncePerRequestFilter {

    private static final Logger LOG = LoggerFactory.getLogger(HandedOn.class);

    /** What was handed on once is not handed on again. */
    private static final String MARK = "Sarnik-Handed-On";

    private static final String FORWARDED = "x-forwarded-";
    private static final Duration LONGEST = Duration.ofMinutes(2);

    /** Headers that belong to one connection (RFC 9110, 7.6.1), or that the client writes itself. */
    private static final Set<String> OF_CONNECTION = Set.of(
            "connection",
            "keep-alive",
            "proxy-connection",
            "te",
            "trailer",
            "transfer-encoding",
            "upgrade",
            "host",
            "content-length",
            "expect");

    private final List<HeldBy> kinds;
    private final Instances instances;
    private final HttpClient http = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .connectTimeout(Duration.ofSeconds(3))
            .build();

    HandedOn(List<HeldBy> kinds, Instances instances) {
        this.kinds = kinds;
        this.instances = instances;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        Optional<UUID> holder = request.getHeader(MARK) != null
                ? Optional.empty()
                : kinds.stream()
                        .flatMap(kind -> kind.holder(request.getRequestURI()).stream())
                        .findFirst();
        Optional<String> address = holder.flatMap(instances::addressOf);
        if (address.isEmpty()) {
            chain.doFilter(request, response);
            return;
        }
        byte[] body = request.getInputStream().readAllBytes();
        if (hand(address.get(), body, request, response)) return;
        instances.ended(holder.get());
        chain.doFilter(new ReadAlready(request, body), response);
    }

    /** @return false where nobody listens at that address: nothing of the request was read there */
    private boolean hand(String address, byte[] body, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        String query = request.getQueryString();
        HttpRequest.Builder onwards = HttpRequest.newBuilder(
                        URI.create(address + request.getRequestURI() + (query == null ? "" : "?" + query)))
                .timeout(LONGEST)
                .method(request.getMethod(), HttpRequest.BodyPublishers.ofByteArray(body));
        for (String name : Collections.list(request.getHeaderNames()))
            if (isHanded(name)) onwards.header(name, String.join(", ", Collections.list(request.getHeaders(name))));
        onwards.setHeader(MARK, instances.own().toString());
        // What whoever asks says of itself there is not believed: this instance may be believed by the other.
        onwards.setHeader(FORWARDED + "for", request.getRemoteAddr());
        onwards.setHeader(FORWARDED + "proto", request.getScheme());
        try {
            HttpResponse<InputStream> answer = http.send(onwards.build(), HttpResponse.BodyHandlers.ofInputStream());
            response.setStatus(answer.statusCode());
            answer.headers().map().forEach((name, values) -> {
                if (isHanded(name)) values.forEach(value -> response.addHeader(name, value));
            });
            try (InputStream in = answer.body()) {
                in.transferTo(response.getOutputStream());
            }
            return true;
        } catch (ConnectException ended) {
            LOG.info("The instance at {} has ended", address);
            return false;
        } catch (IOException broken) {
            LOG.info("The instance at {} ended while it was asked: {}", address, broken.getMessage());
            if (response.isCommitted()) throw broken;
            // Whether it has done what was asked is not known; asked again, whoever is there then says.
            return later(response);
        } catch (InterruptedException ending) {
            Thread.currentThread().interrupt();
            return later(response);
        }
    }

    private static boolean later(HttpServletResponse response) throws IOException {
        response.setHeader(HttpHeaders.RETRY_AFTER, "2");
        response.sendError(HttpServletResponse.SC_SERVICE_UNAVAILABLE);
        return true;
    }

    /** A request whose body was read and is read once more. */
    private static final class ReadAlready extends HttpServletRequestWrapper {

        private final ByteArrayInputStream body;

        ReadAlready(HttpServletRequest request, byte[] body) {
            super(request);
            this.body = new ByteArrayInputStream(body);
        }

        @Override
        public ServletInputStream getInputStream() {
            return new ServletInputStream() {
                @Override
                public boolean isFinished() {
                    return body.available() == 0;
                }

                @Override
                public boolean isReady() {
                    return true;
                }

                @Override
                public void setReadListener(ReadListener listener) {
                    throw new UnsupportedOperationException("The body is at hand");
                }

                @Override
                public int read() {
                    return body.read();
                }

                @Override
                public int read(byte[] into, int from, int length) {
                    return body.read(into, from, length);
                }
            };
        }

        @Override
        public BufferedReader getReader() {
            return new BufferedReader(new InputStreamReader(body, StandardCharsets.UTF_8));
        }
    }

    private static boolean isHanded(String header) {
        String name = header.toLowerCase(Locale.ROOT);
        return !OF_CONNECTION.contains(name)
                && !name.startsWith(FORWARDED)
                && !name.equals("forwarded")
                && !name.startsWith(":");
    }
}
