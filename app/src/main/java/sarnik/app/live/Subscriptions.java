package sarnik.app.live;

import java.net.InetAddress;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sarnik.app.instance.Alone;
import sarnik.app.outside.AllowedHosts;
import sarnik.app.secret.Secrets;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads feeds from their brokers. Of several instances one reads a feed, the one that holds its lock in the database;
 * when it ends, another takes over under the same name at the broker, which goes on where that one was.
 */
@Component
class Subscriptions implements AutoCloseable {

    private final LiveFeedRepository stored;
    private final RunningFeeds running;
    private final Alone alone;
    private final AllowedHosts hosts;
    private final Intake intake;
    private final Secrets secrets;
    private final JsonMapper mapper;
    private final Map<Long, Subscription> subscriptions = new ConcurrentHashMap<>();
    private final Map<Long, Alone.Turn> held = new ConcurrentHashMap<>();
    private boolean isClosed;

    Subscriptions(
            LiveFeedRepository stored,
            RunningFeeds running,
            Alone alone,
            AllowedHosts hosts,
            Intake intake,
            Secrets secrets,
            JsonMapper mapper) {
        this.stored = stored;
        this.running = running;
        this.alone = alone;
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
            held.clear();
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
                () -> isHeld(id),
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

    private boolean isHeld(long feed) {
        Alone.Turn turn = held.get(feed);
        return turn != null && turn.lasts();
    }

    /** Takes the feeds that no other instance reads. */
    private void hold(Set<Long> feeds) throws SQLException {
        alone.check();
        held.values().removeIf(turn -> !turn.lasts());
        held.entrySet().removeIf(entry -> {
            if (feeds.contains(entry.getKey())) return false;
            entry.getValue().close();
            return true;
        });
        for (long feed : feeds)
            if (!held.containsKey(feed)) alone.at("live broker", feed).ifPresent(turn -> held.put(feed, turn));
    }

    @Override
    public synchronized void close() {
        isClosed = true;
        subscriptions.values().forEach(Subscription::close);
        subscriptions.clear();
        held.values().forEach(Alone.Turn::close);
        held.clear();
    }
}
