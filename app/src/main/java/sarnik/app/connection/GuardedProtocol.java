package sarnik.app.connection;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.channels.SelectionKey;
import java.nio.channels.SocketChannel;
import java.util.Set;
import java.util.function.Predicate;
import org.apache.coyote.http11.Http11NioProtocol;
import org.apache.tomcat.util.net.NioChannel;
import org.apache.tomcat.util.net.NioEndpoint;
import org.apache.tomcat.util.net.SocketWrapperBase;

/**
 * Tomcat's HTTP/1.1 with a bound on the connections of one address: what comes beyond it is closed at once. Made by
 * name.
 */
public final class GuardedProtocol extends Http11NioProtocol {

    private final Endpoint endpoint;

    public GuardedProtocol() {
        this(new Endpoint());
    }

    private GuardedProtocol(Endpoint endpoint) {
        super(endpoint);
        this.endpoint = endpoint;
    }

    /**
     * @param most connections of one address
     * @param free whether an address has no bound, as a proxy through which all come
     */
    void bound(int most, Predicate<String> free) {
        endpoint.most = most;
        endpoint.free = free;
    }

    /** The connections that are open. */
    Set<SocketWrapperBase<NioChannel>> connections() {
        return endpoint.getConnections();
    }

    /**
     * Whether the server waits for what the other side sends: it has asked to be told of it, and nothing that has come
     * lies there unread.
     */
    static boolean isWaitedFor(SocketWrapperBase<NioChannel> connection) {
        if (!(connection instanceof NioEndpoint.NioSocketWrapper asked)
                || (asked.interestOps() & SelectionKey.OP_READ) == 0) return false;
        try {
            return connection
                            .getSocket()
                            .getIOChannel()
                            .socket()
                            .getInputStream()
                            .available()
                    == 0;
        } catch (IOException gone) {
            return false;
        }
    }

    private static final class Endpoint extends NioEndpoint {

        private volatile int most = Integer.MAX_VALUE;
        private volatile Predicate<String> free = address -> true;

        @Override
        protected boolean setSocketOptions(SocketChannel socket) {
            return !isOneTooMany(socket) && super.setSocketOptions(socket);
        }

        private boolean isOneTooMany(SocketChannel socket) {
            try {
                if (!(socket.getRemoteAddress() instanceof InetSocketAddress remote)) return false;
                String address = remote.getAddress().getHostAddress();
                return !free.test(address)
                        && getConnections().stream()
                                        .filter(c -> address.equals(c.getRemoteAddr()))
                                        .count()
                                >= most;
            } catch (IOException gone) {
                return true;
            }
        }
    }
}
