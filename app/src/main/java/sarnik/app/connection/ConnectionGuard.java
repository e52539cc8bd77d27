package sarnik.app.connection;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Pattern;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.tomcat.util.net.NioChannel;
import org.apache.tomcat.util.net.SocketWrapperBase;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sarnik.app.SarnikProperties;
import sarnik.app.Uptime;

/**
 * Keeps slow senders from holding what others need. A request's headers have to be there, and its body to go on
 * coming, within
 * bounds; one address has a bound of connections, and of requests whose bodies are still on their way. What goes over
 * is closed.
 */
@Component
class ConnectionGuard implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    /** Headers, and the next request on a connection that stays open, may take so many times as long as a body. */
    private static final long HEADERS = 2;

    /** A body may take a second more for so many bytes. */
    private static final long BYTES_A_SECOND = 32_768;

    /** Requests of one address whose bodies are on their way: each holds a thread until it is whole. */
    private static final int MOST_BODIES = 100;

    private static final int MOST_CONNECTIONS = 1000;

    /** How often it is looked who is waited for, ms. */
    private static final long SWEEP = 1000;

    private final Pattern proxies;
    private final long patience;
    private final Map<String, Standing> standings = new ConcurrentHashMap<>();
    private volatile GuardedProtocol protocol;
    private long swept = Uptime.millis();

    /** What a connection is about. */
    private static final class Standing {

        private final String address;

        /** How long its sender has been waited for since the request, or the pause before it, began, ms. */
        private final AtomicLong waited = new AtomicLong();

        /** Written by the connection's thread, read by the sweep: a little late is no harm. */
        private volatile org.apache.coyote.Request answering;

        Standing(String address) {
            this.address = address;
        }

        void begin(org.apache.coyote.Request request) {
            answering = request;
            waited.set(0);
        }

        /** Whether the body of the request is on its way. */
        boolean isSending() {
            org.apache.coyote.Request request = answering;
            return request != null && request.getBytesRead() < request.getContentLengthLong();
        }

        boolean isTooSlow(long patience) {
            org.apache.coyote.Request request = answering;
            if (request == null) return waited.get() > HEADERS * patience;
            return isSending() && waited.get() > patience + 1000 * request.getContentLengthLong() / BYTES_A_SECOND;
        }
    }

    ConnectionGuard(SarnikProperties properties) {
        patience = properties.patience().toMillis();
        proxies = Pattern.compile(properties.proxies());
    }

    private boolean isProxy(String address) {
        return proxies.matcher(address).matches();
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.setProtocol(GuardedProtocol.class.getName());
        factory.addConnectorCustomizers(connector -> {
            protocol = (GuardedProtocol) connector.getProtocolHandler();
            protocol.bound(MOST_CONNECTIONS, this::isProxy);
        });
        factory.addEngineValves(new Watch());
    }

    /** Notes when a request begins and when its answer is given. */
    private final class Watch extends ValveBase {

        Watch() {
            super(true);
        }

        @Override
        public void invoke(Request request, Response response) throws IOException, ServletException {
            Standing standing = standings.computeIfAbsent(
                    request.getPeerAddr() + ":" + request.getRemotePort(), k -> new Standing(request.getPeerAddr()));
            if (standing.answering == null) standing.begin(request.getCoyoteRequest());
            try {
                getNext().invoke(request, response);
            } finally {
                // One that is answered later comes by here again.
                if (!request.isAsync()) standing.begin(null);
            }
        }
    }

    @Scheduled(fixedDelay = SWEEP)
    void sweep() {
        long now = Uptime.millis();
        // What stood still as a whole has not waited for anybody.
        sweep(Math.min(now - swept, 2 * SWEEP));
        swept = now;
    }

    /**
     * Closes what is too slow. Only what the server waits for counts: a body that it reads late itself, being busy or
     * waiting for a database, is not a slow one.
     *
     * @param passed since the last sweep, ms
     */
    void sweep(long passed) {
        if (protocol == null) return;
        Set<String> open = new HashSet<>();
        Map<String, List<Map.Entry<Long, SocketWrapperBase<NioChannel>>>> bodies = new HashMap<>();
        for (SocketWrapperBase<NioChannel> connection : protocol.connections()) {
            String key = connection.getRemoteAddr() + ":" + connection.getRemotePort();
            open.add(key);
            Standing standing = standings.computeIfAbsent(key, k -> new Standing(connection.getRemoteAddr()));
            if (!GuardedProtocol.isWaitedFor(connection)) continue;
            long waited = standing.waited.addAndGet(passed);
            if (standing.isTooSlow(patience)) connection.close();
            else if (standing.isSending() && !isProxy(standing.address))
                bodies.computeIfAbsent(standing.address, a -> new ArrayList<>()).add(Map.entry(waited, connection));
        }
        standings.keySet().retainAll(open);
        for (List<Map.Entry<Long, SocketWrapperBase<NioChannel>>> ofOne : bodies.values()) {
            if (ofOne.size() <= MOST_BODIES) continue;
            ofOne.sort(Map.Entry.comparingByKey(Comparator.reverseOrder()));
            ofOne.subList(0, ofOne.size() - MOST_BODIES)
                    .forEach(body -> body.getValue().close());
        }
    }
}
