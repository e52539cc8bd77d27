package sarnik.app.live;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Timestamp;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.postgresql.PGConnection;
import org.postgresql.PGNotification;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sarnik.app.dataset.Live;
import sarnik.app.dataset.LiveRows;
import sarnik.app.web.DatabaseAway;
import sarnik.live.DeviceState;
import sarnik.live.Visits;
import sarnik.table.Table;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** The feeds at work in this instance, each read from the database once and kept up to date by what comes. */
@Component
class RunningFeeds implements LiveRows, AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(RunningFeeds.class);
    private static final TypeReference<List<String>> NAMES = new TypeReference<>() {};
    private static final int LISTENS = 500;

    private final LiveFeedRepository stored;
    private final LiveConnections connections;
    private final ReadingStore store;
    private final Turns turns;
    private final JsonMapper mapper;
    private final Map<Long, RunningFeed> running = new ConcurrentHashMap<>();
    private final Map<Long, Object> locks = new ConcurrentHashMap<>();
    private final Map<Long, Map<String, RunningFeed.Listed>> lists = new ConcurrentHashMap<>();
    private final List<Watcher> watchers = new CopyOnWriteArrayList<>();
    private final List<Consumer<Set<Long>>> pages = new CopyOnWriteArrayList<>();
    private volatile boolean isOpen = true;
    private Thread listener;

    /** Is told of feeds whose rows are newer. */
    interface Watcher {
        void newer(RunningFeed feed, List<RunningFeed.Turned> turned);
    }

    RunningFeeds(
            LiveFeedRepository stored,
            LiveConnections connections,
            ReadingStore store,
            Turns turns,
            JsonMapper mapper) {
        this.stored = stored;
        this.connections = connections;
        this.store = store;
        this.turns = turns;
        this.mapper = mapper;
    }

    @Override
    public void close() {
        isOpen = false;
        if (listener != null) listener.interrupt();
    }

    @Override
    public void watch(Consumer<Set<Long>> newer) {
        pages.add(newer);
    }

    void watch(Watcher watcher) {
        watchers.add(watcher);
    }

    /** A feed at work; empty where there is none of this id. */
    Optional<RunningFeed> find(long id) {
        RunningFeed known = running.get(id);
        if (known != null) return Optional.of(known);
        synchronized (locks.computeIfAbsent(id, i -> new Object())) {
            known = running.get(id);
            if (known != null) return Optional.of(known);
            Optional<RunningFeed> read = stored.findById(id).map(this::read);
            read.ifPresent(feed -> running.put(id, feed));
            return read;
        }
    }

    /** Forgets what it knows of a feed, whose description has changed or which is gone. */
    void changed(long id) {
        running.remove(id);
        read.keySet().removeIf(live -> live.feed() == id);
    }

    private RunningFeed read(LiveFeed kept) {
        sarnik.live.MessageShape shape =
                kept.getShape() == null ? null : mapper.readValue(kept.getShape(), sarnik.live.MessageShape.class);
        RunningFeed feed = new RunningFeed(
                kept.getId(),
                kept.getRevision(),
                kept.getName(),
                shape,
                mapper.readValue(kept.getSettings(), FeedSettings.class),
                mapper.readValue(kept.getColumns(), NAMES),
                kept.getTokenHash());
        feed.list(lists.getOrDefault(kept.getId(), Map.of()));
        if (shape == null) return feed;
        try (Connection connection = connections.open()) {
            fill(feed, connection);
            connection.commit();
        } catch (SQLException failed) {
            throw new IllegalStateException("The readings of “%s” cannot be read".formatted(kept.getName()), failed);
        }
        return feed;
    }

    private void fill(RunningFeed feed, Connection connection) throws SQLException {
        Map<Integer, RunningFeed.Device> devices = new HashMap<>();
        try (PreparedStatement statement =
                connection.prepareStatement("SELECT number, code FROM live_devices WHERE feed = ? ORDER BY number")) {
            statement.setLong(1, feed.id);
            try (ResultSet found = statement.executeQuery()) {
                while (found.next()) devices.put(found.getInt(1), feed.put(found.getInt(1), found.getString(2)));
            }
        }
        if (devices.isEmpty()) return;
        Timestamp since = new Timestamp(System.currentTimeMillis() - feed.settings.windowHours() * 3_600_000L);
        // The newest of those that have been quiet for longer than what is at hand.
        List<ReadingStore.Row> rows = new ArrayList<>();
        store.read(
                connection,
                feed.id,
                feed.columns.size(),
                """
                (device, at) IN (SELECT d.number, (SELECT max(at) FROM %s r WHERE r.device = d.number)
                                 FROM live_devices d WHERE d.feed = %d) AND at < ? ORDER BY at""".formatted(ReadingStore.table(feed.id), feed.id),
                rows::add,
                since);
        feed.take(rows);
        rows.clear();
        store.read(
                connection,
                feed.id,
                feed.columns.size(),
                "at >= ? ORDER BY at DESC LIMIT " + RunningFeed.MOST_ROWS,
                rows::add,
                since);
        feed.take(rows);
        feed.pass(System.currentTimeMillis());
        begin(feed, devices, connection);
    }

    /** Says since when the states of devices hold that were kept, and keeps those that differ. */
    private void begin(RunningFeed feed, Map<Integer, RunningFeed.Device> devices, Connection connection)
            throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement(
                "SELECT device, state, since, why FROM live_turns WHERE feed = ? AND until IS NULL")) {
            statement.setLong(1, feed.id);
            try (ResultSet found = statement.executeQuery()) {
                while (found.next()) {
                    RunningFeed.Device device = devices.get(found.getInt(1));
                    if (device != null)
                        device.state.remember(
                                DeviceState.valueOf(found.getString(2)),
                                found.getTimestamp(3).getTime(),
                                found.getString(4));
                }
            }
        }
        turns.keep(
                feed,
                devices.values().stream()
                        .filter(d -> d.state.now() != null)
                        .map(d -> RunningFeed.Turned.of(d, d.state.now()))
                        .toList());
        turns.read(feed, connection);
    }

    // --- time passes -----------------------------------------------------------------------------------

    @Scheduled(fixedRate = 1000)
    void pass() {
        long now = System.currentTimeMillis();
        Set<Long> newer = new HashSet<>();
        running.values().forEach(feed -> {
            long before = feed.tick();
            List<RunningFeed.Turned> turned = feed.pass(now);
            turns.keep(feed, turned);
            if (feed.tick() == before) return;
            watchers.forEach(w -> w.newer(feed, turned));
            newer.add(feed.id);
        });
        if (!newer.isEmpty()) pages.forEach(page -> page.accept(newer));
    }

    /** Names, kinds and places of the devices of a feed. */
    void list(long id, Map<String, RunningFeed.Listed> devices) {
        lists.put(id, devices);
        RunningFeed feed = running.get(id);
        if (feed != null) feed.list(devices);
    }

    // --- what other instances write --------------------------------------------------------------------

    /** Feeds are read beside the start: the database may go away at that moment, and come back. */
    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        listener = new Thread(this::listen, "readings of others");
        listener.setDaemon(true);
        listener.start();
    }

    private void listen() {
        while (isOpen) {
            try (Connection connection = connections.open()) {
                connection.setAutoCommit(true);
                try (Statement statement = connection.createStatement()) {
                    statement.execute("LISTEN live");
                }
                // Only once it listens: what is written from then on is heard of.
                readAll();
                PGConnection postgres = connection.unwrap(PGConnection.class);
                while (isOpen) {
                    PGNotification[] said = postgres.getNotifications(LISTENS);
                    if (said != null) for (PGNotification one : said) heard(one.getParameter());
                }
            } catch (SQLException | RuntimeException away) {
                LOG.debug("Other instances are not heard just now", away);
                try {
                    Thread.sleep(LISTENS);
                } catch (InterruptedException closing) {
                    return;
                }
            }
        }
    }

    /** All feeds, with what was written while nothing was heard of it. */
    private void readAll() {
        Set<Long> all = new HashSet<>(running.keySet());
        stored.findAll().forEach(feed -> all.add(feed.getId()));
        all.forEach(this::readAnew);
        if (!all.isEmpty()) pages.forEach(page -> page.accept(all));
    }

    private void readAnew(long id) {
        RunningFeed known = running.get(id);
        changed(id);
        try {
            find(id);
        } catch (RuntimeException failed) {
            // While the database is away it stays as it was known, so that what comes for it waits on the disk.
            if (known != null) running.putIfAbsent(id, known);
            if (DatabaseAway.cause(failed) != null) throw failed;
            LOG.error("A feed could not be read", failed);
        }
    }

    private void heard(String words) {
        String[] parts = words.split(" ");
        if (parts.length != 3 || parts[2].equals(connections.instance())) return;
        long id = Long.parseLong(parts[0]);
        if (parts[1].equals("rolled")) {
            RunningFeed told = running.get(id);
            if (told != null) told.rolled();
            return;
        }
        if (parts[1].equals("turns")) {
            RunningFeed told = running.get(id);
            if (told != null) turns.heard(told);
            return;
        }
        if (parts[1].startsWith("revision")) {
            changed(id);
            return;
        }
        RunningFeed feed = running.get(id);
        if (feed != null) takeBatch(feed, Long.parseLong(parts[1]));
    }

    /** Takes what was written in one transaction, by another instance or in another shape. */
    void takeBatch(RunningFeed feed, long batch) {
        try (Connection connection = connections.open()) {
            List<ReadingStore.Row> rows = new ArrayList<>();
            store.read(connection, feed.id, feed.columns.size(), "batch = ? ORDER BY at", rows::add, batch);
            for (ReadingStore.Row row : rows) {
                if (feed.has(row.device())) continue;
                try (PreparedStatement statement =
                        connection.prepareStatement("SELECT code FROM live_devices WHERE feed = ? AND number = ?")) {
                    statement.setLong(1, feed.id);
                    statement.setInt(2, row.device());
                    try (ResultSet found = statement.executeQuery()) {
                        if (found.next()) feed.put(row.device(), found.getString(1));
                    }
                }
            }
            connection.commit();
            feed.take(rows);
        } catch (SQLException away) {
            LOG.warn("Readings that another instance has written could not be read: {}", away.getMessage());
            changed(feed.id);
        }
    }

    // --- rows for dashboards ---------------------------------------------------------------------------

    private RollUps rollUps;
    private final Map<Long, Visits.Finder> places = new ConcurrentHashMap<>();

    /** Says who puts readings together. */
    void rolled(RollUps by) {
        rollUps = by;
    }

    /** Says within which areas the devices of a feed arrive. */
    void areas(long feed, Visits.Finder finder) {
        places.put(feed, finder);
    }

    /** A table that is read from the database, and of what it was read. */
    private record Read(long tick, Table table) {}

    private final Map<Live, Read> read = new ConcurrentHashMap<>();

    @Override
    public long tick(Live live) {
        return find(live.feed())
                .map(f -> f.revision * 1_000_000_000L + ofPart(f, live.part()))
                .orElse(0L);
    }

    private static long ofPart(RunningFeed feed, Live.Part part) {
        return switch (part) {
            case READINGS, DEVICES -> feed.tick();
            case TURNS -> feed.turns();
            case MINUTES, HOURS, DAYS -> feed.rolls();
            // Where devices have been is looked at anew twice a minute.
            case STAYS -> System.currentTimeMillis() / 30_000;
        };
    }

    @Override
    public long rows(Live live) {
        return find(live.feed())
                .map(f -> switch (live.part()) {
                    case READINGS -> (long) f.rows();
                    case DEVICES -> (long) f.devices().size();
                    default -> (long) table(live).rows();
                })
                .orElse(0L);
    }

    @Override
    public Table table(Live live) {
        RunningFeed feed = find(live.feed())
                .orElseThrow(() -> new IllegalStateException("There is no feed " + live.feed() + " any more"));
        return switch (live.part()) {
            case READINGS -> feed.readings();
            case DEVICES -> feed.devicesNow();
            case TURNS -> read(live, feed, () -> turns.table(feed));
            case MINUTES, HOURS, DAYS -> read(live, feed, () -> rollUps.table(feed, Rolled.of(live.part())));
            case STAYS -> read(live, feed, () -> Stays.table(feed, places.getOrDefault(feed.id, Stays.NOWHERE)));
        };
    }

    /** What stands in the database is read anew once it is another. */
    private Table read(Live live, RunningFeed feed, Supplier<Table> reader) {
        return read.compute(live, (l, known) -> {
                    long now = tick(l);
                    return known != null && known.tick == now ? known : new Read(now, reader.get());
                })
                .table;
    }
}
