package sarnik.app.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Proxy;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import javax.sql.DataSource;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.util.unit.DataSize;
import sarnik.app.SarnikProperties;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.live.Reading;

@ExtendWith(RunningSarnik.class)
@DisplayName("Writing readings")
class ReadingWriterTest {

    @TempDir
    private Path directory;

    /** Connections to a database that goes away and comes back. */
    private static final class Flaky extends LiveConnections {

        final AtomicBoolean isAway = new AtomicBoolean();

        Flaky(DataSource of) throws SQLException {
            super(of, UUID.randomUUID());
        }

        @Override
        Connection open() throws SQLException {
            if (isAway.get()) throw new SQLTransientConnectionException("away");
            return super.open();
        }
    }

    private static long feed(RunningSarnik sarnik, String name) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = ana.json("POST", "/api/feeds", Map.of("name", name)).get("id").asLong();
        String shape = """
                {"readings": "", "device": "/d", "time": "/t", "form": "SECONDS",
                 "fields": [{"at": "/v", "name": "value", "type": "DECIMAL"}, {"at": "/w", "name": "word", "type": "TEXT"}]}""";
        assertThat(ana.send("PUT", "/api/feeds/" + id + "/shape", "application/json", shape, "If-Match", "1")
                        .statusCode())
                .isEqualTo(204);
        return id;
    }

    private static List<Reading> readings(int from, int to, long now) {
        List<Reading> readings = new ArrayList<>();
        for (int i = from; i < to; i++)
            readings.add(
                    new Reading("d" + i % 7, now - i * 1000L, Double.NaN, Double.NaN, new Object[] {i / 4.0, "w" + i}));
        return readings;
    }

    private static long[] counted(LiveConnections connections, long feed) throws SQLException {
        try (Connection connection = connections.open();
                ResultSet found = connection
                        .createStatement()
                        .executeQuery(
                                "SELECT count(*), count(DISTINCT (device, at)) FROM " + ReadingStore.table(feed))) {
            found.next();
            return new long[] {found.getLong(1), found.getLong(2)};
        }
    }

    /** What was acknowledged is there once, whatever the database did meanwhile. */
    @Test
    void losesNothingWhileTheDatabaseIsAway(RunningSarnik sarnik) throws Exception {
        long id = feed(sarnik, "Away for a while");
        Flaky connections = new Flaky(sarnik.bean(DataSource.class));
        SarnikProperties properties =
                new SarnikProperties(DataSize.ofMegabytes(1), directory, 0.5, 1, "", Duration.ofSeconds(1), null, null);
        RunningFeeds feeds = sarnik.bean(RunningFeeds.class);
        long now = System.currentTimeMillis() / 1000 * 1000;
        try (connections;
                ReadingWriter writer = new ReadingWriter(
                        connections, sarnik.bean(ReadingStore.class), feeds, sarnik.bean(Turns.class), properties)) {
            RunningFeed feed = feeds.find(id).orElseThrow();
            assertThat(kept(writer.keep(feed, readings(0, 100, now)))).isEqualTo(new ReadingWriter.Kept(100, 0, false));
            // Of several that are written together each is told its own.
            List<CompletableFuture<ReadingWriter.Kept>> together = new ArrayList<>();
            for (int i = 0; i < 20; i++) together.add(writer.keep(feed, readings(i * 5, i * 5 + 5, now)));
            for (CompletableFuture<ReadingWriter.Kept> each : together)
                assertThat(kept(each)).isEqualTo(new ReadingWriter.Kept(0, 5, false));
            connections.isAway.set(true);
            for (int i = 1; i < 8; i++)
                assertThat(kept(writer.keep(feed, readings(i * 100 - 10, (i + 1) * 100, now)))
                                .isWaiting())
                        .isTrue();
            assertThat(writer.isAway()).isTrue();
            assertThat(counted(sarnik.bean(LiveConnections.class), id)[0]).isEqualTo(100);
            connections.isAway.set(false);
            // It looks once a second.
            long until = System.currentTimeMillis() + 20_000;
            for (int more = 0; writer.isAway() && System.currentTimeMillis() < until; more++) {
                kept(writer.keep(feed, readings(795, 801 + more, now)));
                Thread.sleep(50);
            }
            assertThat(writer.isAway()).isFalse();
            assertThat(counted(connections, id)[0]).isGreaterThanOrEqualTo(800);
            assertThat(counted(connections, id)[0]).isEqualTo(counted(connections, id)[1]);
            assertThat(feed.rows()).isEqualTo((int) counted(connections, id)[0]);
        }
    }

    private static ReadingWriter.Kept kept(CompletableFuture<ReadingWriter.Kept> writing) throws Exception {
        return writing.get(30, TimeUnit.SECONDS);
    }

    /** Two instances of the program hold the same, whichever of them a reading came to. */
    @Test
    void isHeardOfByOtherInstances(RunningSarnik sarnik) throws Exception {
        long id = feed(sarnik, "Read by two");
        long now = System.currentTimeMillis() / 1000 * 1000;
        RunningFeeds here = sarnik.bean(RunningFeeds.class);
        RunningFeed feed = here.find(id).orElseThrow();
        try (LiveConnections connections = new LiveConnections(sarnik.bean(DataSource.class), UUID.randomUUID());
                RunningFeeds there = new RunningFeeds(
                        sarnik.bean(LiveFeedRepository.class),
                        connections,
                        sarnik.bean(ReadingStore.class),
                        sarnik.bean(Turns.class),
                        sarnik.bean(tools.jackson.databind.json.JsonMapper.class));
                ReadingWriter writer = new ReadingWriter(
                        connections,
                        sarnik.bean(ReadingStore.class),
                        there,
                        sarnik.bean(Turns.class),
                        new SarnikProperties(
                                DataSize.ofMegabytes(1), directory, 0.5, 1, "", Duration.ofSeconds(1), null, null))) {
            RunningFeed other = there.find(id).orElseThrow();
            kept(writer.keep(other, readings(0, 300, now)));
            kept(writer.keep(other, readings(200, 400, now)));
            assertThat(other.rows()).isEqualTo(400);
            // This one listens; it hears within half a second, and asks then.
            long until = System.currentTimeMillis() + 20_000;
            while (feed.rows() < 400 && System.currentTimeMillis() < until) Thread.sleep(50);
            assertThat(feed.rows()).isEqualTo(400);
            assertThat(feed.devices()).hasSize(7);
        }
    }

    /** The database may go away between the moment when the application answers and the one when it has read its feeds. */
    @Test
    void readsItsFeedsOnceTheDatabaseIsThere(RunningSarnik sarnik) throws Exception {
        long id = feed(sarnik, "Read at the start");
        kept(sarnik.bean(ReadingWriter.class)
                .keep(
                        sarnik.bean(RunningFeeds.class).find(id).orElseThrow(),
                        readings(0, 5, System.currentTimeMillis())));
        LiveFeedRepository stored = sarnik.bean(LiveFeedRepository.class);
        AtomicInteger asked = new AtomicInteger();
        LiveFeedRepository breaking = (LiveFeedRepository) Proxy.newProxyInstance(
                getClass().getClassLoader(), new Class<?>[] {LiveFeedRepository.class}, (proxy, method, values) -> {
                    if (method.getName().equals("findAll") && asked.getAndIncrement() == 0)
                        throw new CannotCreateTransactionException("away");
                    return method.invoke(stored, values);
                });
        try (Flaky connections = new Flaky(sarnik.bean(DataSource.class));
                RunningFeeds feeds = new RunningFeeds(
                        breaking,
                        connections,
                        sarnik.bean(ReadingStore.class),
                        sarnik.bean(Turns.class),
                        sarnik.bean(tools.jackson.databind.json.JsonMapper.class))) {
            CompletableFuture<Set<Long>> read = new CompletableFuture<>();
            feeds.watch((Consumer<Set<Long>>) read::complete);
            connections.isAway.set(true);
            feeds.begin();
            assertThat(read).isNotDone();
            connections.isAway.set(false);
            assertThat(read.get(30, TimeUnit.SECONDS)).contains(id);
            assertThat(asked).hasValue(2);
            assertThat(feeds.find(id).orElseThrow().rows()).isEqualTo(5);
        }
    }
}
