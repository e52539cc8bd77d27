package sarnik.app.live;

import java.net.InetAddress;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sarnik.app.outside.AllowedHosts;
import sarnik.app.secret.Secrets;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads feeds from their brokers. Of several instances one reads a feed, the one that holds its lock in the database;
 * when it ends, another takes over under the same name at the broker, which goes on where that one was.
 */
@Component
class Subscriptions implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(Subscriptions.class);

    private final LiveFeedRepository stored;
    private final RunningFeeds running;
    private final LiveConnections connections;
    private final AllowedHosts hosts;
    private final Intake intake;
    private final Secrets secrets;
    private final JsonMapper mapper;
    private final Map<Long, Subscription> subscriptions = new ConcurrentHashMap<>();
    private final Set<Long> held = ConcurrentHashMap.newKeySet();
    private Connection locks;
    private boolean isClosed;

    Subscriptions(
            LiveFeedRepository stored,
            RunningFeeds running,
            LiveConnections connections,
            AllowedHosts hosts,
            Intake intake,
            Secrets secrets,
            JsonMapper mapper) {
        this.stored = stored;
        this.running = running;
        this.connections = connections;
        this.hosts = hosts;
        this.intake = intake;
        this.secrets = secrets;
        this.mapper = mapper;
    }

    /** How the reading of a feed stands; empty where it is read from no broker. */
    Optional<Subscription.Standing> standing(long feed) {
        return Optional.ofNullable(subscriptions.get(feed)).map(Subscription::standing);
    }

    @Scheduled(fixedDelay = 1000)
    synchronized void look() {
        if (isClosed) return;
        Map<Long, LiveFeed> wanted = new HashMap<>();
        try {
            for (LiveFeed feed : stored.findAll()) if (feed.getBroker() != null) wanted.put(feed.getId(), feed);
            hold(wanted.keySet());
        } catch (RuntimeException | SQLException away) {
            // The database is away: what is read is read on, and waits on the disk. Nothing new is begun.
            forgetLocks();
            return;
        }
        for (Map.Entry<Long, Subscription> entry : Map.copyOf(subscriptions).entrySet()) {
            LiveFeed feed = wanted.get(entry.getKey());
            if (feed != null && entry.getValue().is(broker(feed), feed.getBrokerWord())) continue;
            subscriptions.remove(entry.getKey()).close();
        }
        wanted.forEach((id, feed) -> subscriptions.computeIfAbsent(id, i -> begin(feed)));
    }

    private Broker broker(LiveFeed feed) {
        return mapper.readValue(feed.getBroker(), Broker.class);
    }

    private Subscription begin(LiveFeed feed) {
        Broker broker = broker(feed);
        long id = feed.getId();
        Subscription subscription = new Subscription(
                id,
                broker,
                feed.getBrokerWord(),
                () -> word(feed.getBrokerWord()),
                () -> address(broker),
                () -> held.contains(id),
                i -> running.find(i).orElse(null),
                intake);
        subscription.begin();
        return subscription;
    }

    private String word(String sealed) {
        if (sealed == null) return null;
        return secrets.open(sealed)
                .orElseThrow(() -> new IllegalStateException(
                        "the password was kept under another key than this installation has; write it again"));
    }

    private InetAddress address(Broker broker) {
        return hosts.addresses(broker.host(), broker.port())[0];
    }

    // --- which instance ---------------------------------------------------------------------------------

    /** Takes the locks of feeds that no other instance holds. They are held for as long as this connection lasts. */
    private void hold(Set<Long> feeds) throws SQLException {
        if (locks == null && feeds.isEmpty()) return;
        if (locks == null || !locks.isValid(2)) {
            forgetLocks();
            locks = connections.open();
            locks.setAutoCommit(true);
        }
        Set<Long> left = new HashSet<>(held);
        left.removeAll(feeds);
        for (long feed : left) {
            ask("SELECT pg_advisory_unlock(hashtext('live broker'), ?)", feed);
            held.remove(feed);
        }
        for (long feed : feeds)
            if (!held.contains(feed) && ask("SELECT pg_try_advisory_lock(hashtext('live broker'), ?)", feed))
                held.add(feed);
    }

    private boolean ask(String sql, long feed) throws SQLException {
        try (PreparedStatement statement = locks.prepareStatement(sql)) {
            statement.setInt(1, (int) feed);
            try (ResultSet found = statement.executeQuery()) {
                return found.next() && found.getBoolean(1);
            }
        }
    }

    private void forgetLocks() {
        held.clear();
        if (locks == null) return;
        try (Connection old = locks;
                PreparedStatement unlock = old.prepareStatement("SELECT pg_advisory_unlock_all()")) {
            // The pool hands the connection on.
            unlock.execute();
        } catch (SQLException gone) {
            LOG.debug("The connection of the locks had ended", gone);
        }
        locks = null;
    }

    @Override
    public synchronized void close() {
        isClosed = true;
        subscriptions.values().forEach(Subscription::close);
        subscriptions.clear();
        forgetLocks();
    }
}
