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

    private final Pattern proxies;
    private final long patience;
    private final Map<String, Standing> standings = new ConcurrentHashMap<>();
    private volatile GuardedProtocol protocol;

    /** What a connection is about. Written by its thread, read by the sweep: a little late is no harm. */
    private static final class Standing {

        private final String address;
        private volatile long since = Uptime.millis();
        private volatile org.apache.coyote.Request answering;

        Standing(String address) {
            this.address = address;
        }

        /** How long the body of the request has been on its way, ms; -1 where it is whole or there is none. */
        long onItsWay(long now) {
            org.apache.coyote.Request request = answering;
            if (request == null || request.getBytesRead() >= request.getContentLengthLong()) return -1;
            return now - since;
        }

        boolean isTooSlow(long now, long patience) {
            org.apache.coyote.Request request = answering;
            if (request == null) return now - since > HEADERS * patience;
            long body = onItsWay(now);
            return body > patience + 1000 * request.getContentLengthLong() / BYTES_A_SECOND;
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
            if (standing.answering == null) {
                standing.since = Uptime.millis();
                standing.answering = request.getCoyoteRequest();
            }
            try {
                getNext().invoke(request, response);
            } finally {
                // One that is answered later comes by here again.
                if (!request.isAsync()) {
                    standing.answering = null;
                    standing.since = Uptime.millis();
                }
            }
        }
    }

    @Scheduled(fixedDelay = 1000)
    void sweep() {
        if (protocol == null) return;
        long now = Uptime.millis();
        Set<String> open = new HashSet<>();
        Map<String, List<SocketWrapperBase<NioChannel>>> bodies = new HashMap<>();
        for (SocketWrapperBase<NioChannel> connection : protocol.connections()) {
            String key = connection.getRemoteAddr() + ":" + connection.getRemotePort();
            open.add(key);
            Standing standing = standings.computeIfAbsent(key, k -> new Standing(connection.getRemoteAddr()));
            if (standing.isTooSlow(now, patience)) connection.close();
            else if (standing.onItsWay(now) >= 0 && !isProxy(standing.address))
                bodies.computeIfAbsent(standing.address, a -> new ArrayList<>()).add(connection);
        }
        standings.keySet().retainAll(open);
        for (List<SocketWrapperBase<NioChannel>> ofOne : bodies.values()) {
            if (ofOne.size() <= MOST_BODIES) continue;
            ofOne.sort(Comparator.comparingLong(c -> -standings
                    .getOrDefault(c.getRemoteAddr() + ":" + c.getRemotePort(), new Standing(""))
                    .onItsWay(now)));
            ofOne.subList(0, ofOne.size() - MOST_BODIES).forEach(SocketWrapperBase::close);
        }
    }
}
