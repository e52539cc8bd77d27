package sarnik.app.live;

import java.io.IOException;
import java.sql.Array;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import sarnik.app.SarnikProperties;
import sarnik.app.Uptime;
import sarnik.live.Reading;

/**
 * Writes readings in batches. What it says of readings it says once they are durable: in the database, or, while that
 * is away, on the disk, from where they are written later.
 */
@Component
class ReadingWriter implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(ReadingWriter.class);
    private static final int MOST_WAITING = 200_000;
    private static final int AT_ONCE = 20_000;
    private static final long SPOOL_BYTES = 512L << 20;
    private static final long LOOKS_AGAIN = 1000;

    /** What came of readings. */
    record Kept(int fresh, int alike, boolean isWaiting) {}

    /** Nothing more is taken just now; nothing was kept. */
    static final class Full extends RuntimeException {
        Full() {
            super("More readings wait than there is room for. Send these again in a moment.");
        }
    }

    private record Batch(RunningFeed feed, List<Reading> readings, CompletableFuture<Kept> kept) {}

    private final BlockingQueue<Batch> queue = new LinkedBlockingQueue<>();
    private final AtomicInteger waiting = new AtomicInteger();
    private final LiveConnections connections;
    private final ReadingStore store;
    private final RunningFeeds feeds;
    private final Turns turns;
    private final Spool spool;
    private final Thread thread;

    private volatile boolean isOpen = true;
    private volatile boolean isAway;
    private long lookedAt;

    ReadingWriter(
            LiveConnections connections,
            ReadingStore store,
            RunningFeeds feeds,
            Turns turns,
            SarnikProperties properties)
            throws IOException {
        this.connections = connections;
        this.store = store;
        this.feeds = feeds;
        this.turns = turns;
        this.spool = new Spool(properties.workDirectory().resolve("live"), SPOOL_BYTES);
        this.thread = new Thread(this::run, "readings");
        thread.setDaemon(true);
        thread.start();
    }

    @Override
    public void close() {
        isOpen = false;
        thread.interrupt();
        try {
            thread.join(5000);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    /**
     * Keeps readings.
     *
     * @return done once they are durable; fails where they are not
     * @throws Full where more wait than there is room for
     */
    CompletableFuture<Kept> keep(RunningFeed feed, List<Reading> readings) {
        if (readings.isEmpty()) return CompletableFuture.completedFuture(new Kept(0, 0, false));
        if (waiting.addAndGet(readings.size()) > MOST_WAITING) {
            waiting.addAndGet(-readings.size());
            throw new Full();
        }
        Batch batch = new Batch(feed, readings, new CompletableFuture<>());
        queue.add(batch);
        return batch.kept;
    }

    /** Whether the database is away, so that readings wait on the disk. */
    boolean isAway() {
        return isAway;
    }

    // --- the thread ------------------------------------------------------------------------------------

    private void run() {
        while (isOpen || !queue.isEmpty()) {
            try {
                Batch first = queue.poll(LOOKS_AGAIN, TimeUnit.MILLISECONDS);
                look();
                if (first != null) write(gathered(first));
            } catch (InterruptedException closing) {
                // What is in the queue is written still.
            } catch (RuntimeException failed) {
                LOG.error("Readings could not be written", failed);
            }
        }
    }

    private Map<RunningFeed, List<Batch>> gathered(Batch first) {
        Map<RunningFeed, List<Batch>> byFeed = new LinkedHashMap<>();
        int count = 0;
        for (Batch batch = first; batch != null; batch = count < AT_ONCE ? queue.poll() : null) {
            byFeed.computeIfAbsent(batch.feed, f -> new ArrayList<>()).add(batch);
            count += batch.readings.size();
            waiting.addAndGet(-batch.readings.size());
        }
        return byFeed;
    }

    private void write(Map<RunningFeed, List<Batch>> byFeed) {
        byFeed.forEach((feed, batches) -> {
            if (!isAway && write(feed, batches)) return;
            wait(feed, batches);
        });
    }

    /** @return false where the database is away */
    private boolean write(RunningFeed feed, List<Batch> batches) {
        List<Reading> all = batches.stream().flatMap(b -> b.readings.stream()).toList();
        try {
            boolean[] news = writeAll(feed, all);
            int next = 0;
            for (Batch batch : batches) {
                int fresh = 0;
                for (int i = 0; i < batch.readings.size(); i++) if (news[next++]) fresh++;
                batch.kept.complete(new Kept(fresh, batch.readings.size() - fresh, false));
            }
            return true;
        } catch (SQLException failed) {
            if (isOfConnection(failed)) {
                LOG.warn("The database is away; readings wait on the disk: {}", failed.getMessage());
                isAway = true;
                return false;
            }
            if (batches.size() > 1) {
                // One of them does not fit: each by itself, so that the others do not suffer.
                batches.forEach(b -> {
                    if (!write(feed, List.of(b))) wait(feed, List.of(b));
                });
                return true;
            }
            LOG.error("Readings of feed {} do not fit", feed.id, failed);
            batches.get(0).kept.completeExceptionally(failed);
            return true;
        }
    }

    private static boolean isOfConnection(SQLException failed) {
        String state = String.valueOf(failed.getSQLState());
        return failed instanceof SQLTransientConnectionException
                || state.startsWith("08")
                || state.startsWith("57P")
                || state.startsWith("53");
    }

    /**
     * Writes readings of a feed in one transaction, and lets it take them.
     *
     * @return for each whether it said something that was not known; of several of one device and moment the first
     */
    private boolean[] writeAll(RunningFeed feed, List<Reading> readings) throws SQLException {
        ReadingStore.Written written;
        List<ReadingStore.Row> rows = new ArrayList<>(readings.size());
        Map<String, Integer> made;
        try (Connection connection = connections.open()) {
            try {
                Set<String> unknown = new LinkedHashSet<>();
                for (Reading reading : readings)
                    if (feed.number(reading.device()) == null) unknown.add(reading.device());
                made = numbers(connection, feed.id, unknown);
                for (Reading reading : readings) {
                    Integer number = made.get(reading.device());
                    rows.add(feed.row(number == null ? feed.number(reading.device()) : number, reading));
                }
                store.prepare(connection, feed.id, rows);
                written = store.write(connection, feed.id, feed.columns.size(), rows);
                notify(connection, feed.id + " " + written.batch() + " " + connections.instance());
                connection.commit();
            } catch (SQLException failed) {
                try {
                    connection.rollback();
                } catch (SQLException gone) {
                    failed.addSuppressed(gone);
                }
                throw failed;
            }
        }
        // Somebody may have said meanwhile that messages are read in another way.
        RunningFeed now = feeds.find(feed.id).orElse(feed);
        if (now != feed) {
            feeds.takeBatch(now, written.batch());
            return said(rows, written);
        }
        made.forEach((code, number) -> feed.put(number, code));
        List<ReadingStore.Row> news = new ArrayList<>(written.fresh());
        news.addAll(written.filled());
        turns.keep(feed, feed.take(news));
        return said(rows, written);
    }

    private static boolean[] said(List<ReadingStore.Row> rows, ReadingStore.Written written) {
        Set<ReadingStore.Key> left = new HashSet<>();
        written.fresh().forEach(row -> left.add(row.key()));
        written.filled().forEach(row -> left.add(row.key()));
        boolean[] news = new boolean[rows.size()];
        for (int i = 0; i < news.length; i++) news[i] = left.remove(rows.get(i).key());
        return news;
    }

    private static void notify(Connection connection, String words) throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement("SELECT pg_notify('live', ?)")) {
            statement.setString(1, words);
            statement.execute();
        }
    }

    /** The numbers of devices by their codes, new ones where they have none. */
    private static Map<String, Integer> numbers(Connection connection, long feed, Collection<String> codes)
            throws SQLException {
        Map<String, Integer> numbers = new LinkedHashMap<>();
        if (codes.isEmpty()) return numbers;
        try (PreparedStatement lock =
                connection.prepareStatement("SELECT pg_advisory_xact_lock(hashtext('live devices'), ?)")) {
            lock.setInt(1, (int) feed);
            lock.execute();
        }
        Array all = connection.createArrayOf("varchar", codes.toArray());
        try (PreparedStatement insert = connection.prepareStatement("""
                INSERT INTO live_devices (feed, number, code)
                  SELECT ?, coalesce((SELECT max(number) FROM live_devices WHERE feed = ?), 0) + c.place, c.code
                  FROM unnest(?) WITH ORDINALITY AS c (code, place)
                  ON CONFLICT (feed, code) DO NOTHING""")) {
            insert.setLong(1, feed);
            insert.setLong(2, feed);
            insert.setArray(3, all);
            insert.executeUpdate();
        }
        try (PreparedStatement select = connection.prepareStatement(
                "SELECT code, number FROM live_devices WHERE feed = ? AND code = ANY (?)")) {
            select.setLong(1, feed);
            select.setArray(2, all);
            try (ResultSet found = select.executeQuery()) {
                while (found.next()) numbers.put(found.getString(1), found.getInt(2));
            }
        }
        return numbers;
    }

    // --- while the database is away --------------------------------------------------------------------

    private void wait(RunningFeed feed, List<Batch> batches) {
        List<Spool.Waiting> all = batches.stream()
                .flatMap(b -> b.readings.stream())
                .map(r -> Spool.Waiting.of(feed.id, r))
                .toList();
        try {
            boolean kept = spool.keep(all);
            batches.forEach(b -> {
                if (kept) b.kept.complete(new Kept(b.readings.size(), 0, true));
                else b.kept.completeExceptionally(new Full());
            });
        } catch (IOException failed) {
            LOG.error("Readings cannot wait on the disk", failed);
            batches.forEach(b -> b.kept.completeExceptionally(failed));
        }
    }

    /** Looks, once a second, whether readings wait on the disk and the database is there again. */
    private void look() {
        long now = Uptime.millis();
        if (now - lookedAt < LOOKS_AGAIN) return;
        lookedAt = now;
        try {
            if (!isAway && spool.isEmpty()) return;
            try (Connection connection = connections.open();
                    PreparedStatement asked = connection.prepareStatement("SELECT 1")) {
                asked.execute();
                connection.commit();
            }
            spool.empty(this::takeWaiting);
            if (isAway) LOG.info("The database is there again; what waited on the disk is written.");
            isAway = false;
        } catch (SQLException stillAway) {
            isAway = true;
            LOG.warn("What waits on the disk is not written yet: {}", stillAway.getMessage());
        } catch (Exception failed) {
            LOG.error("What waits on the disk could not be written", failed);
        }
    }

    private void takeWaiting(List<Spool.Waiting> waiting) throws SQLException {
        Map<Long, List<Reading>> byFeed = new LinkedHashMap<>();
        waiting.forEach(
                w -> byFeed.computeIfAbsent(w.feed(), f -> new ArrayList<>()).add(w.reading()));
        for (Map.Entry<Long, List<Reading>> entry : byFeed.entrySet()) {
            RunningFeed feed = feeds.find(entry.getKey()).orElse(null);
            // A feed that was taken away takes its readings along.
            if (feed == null || feed.shape == null) continue;
            List<Reading> fitting = entry.getValue().stream()
                    .filter(r -> r.values().length == feed.shape.fields().size())
                    .toList();
            if (!fitting.isEmpty()) writeAll(feed, fitting);
        }
    }
}
