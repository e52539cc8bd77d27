package sarnik.app.database;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Function;
import java.util.function.Supplier;
import javax.sql.DataSource;
import org.springframework.jdbc.datasource.AbstractDataSource;
import org.springframework.stereotype.Component;
import sarnik.app.Uptime;
import sarnik.app.web.RefusedException;
import sarnik.app.work.AnswerQueue;
import sarnik.engines.JdbcRunner;
import sarnik.query.QueryException;
import sarnik.sql.SqlRows;
import sarnik.sql.SqlRunner;
import sarnik.sql.SqlStatement;

/**
 * Asks databases elsewhere for rows that stay there: a few connections to each, and answers that hold for as long as
 * whoever left the rows there has said.
 */
@Component
public class StayingTables implements AutoCloseable {

    /** Statements that a database is asked at once. */
    private static final int AT_ONCE = 4;

    private static final Duration IDLE = Duration.ofMinutes(2);

    /** How long is tried to reach a database that does not answer. */
    private static final Duration PATIENCE = Duration.ofSeconds(8);

    /** How long a database that could not be reached is not tried again. */
    private static final Duration CLOSED = Duration.ofSeconds(5);

    /** The state of what is refused here, in a sentence. */
    private static final String SAID = "SAID";

    /** How states begin of a database that is not there, and of one that does not let its user in (ISO/IEC 9075-2). */
    private static final String NOT_REACHED = "08";

    private static final String NOT_LET_IN = "28";

    private static final Duration LONGEST = Duration.ofDays(1);

    /** Cells of answers that are kept: about 100 MB. */
    private static final long KEPT_CELLS = 3_000_000;

    /** The number of Sarnik's own database, as one that rows stay in. */
    public static final long OWN = 0;

    private static final int OWN_SECONDS = 120;

    private final Databases databases;
    private final HikariDataSource shared;
    private final Map<Long, Asking> asking = new ConcurrentHashMap<>();

    private final Cache<Question, Kept> kept = Caffeine.newBuilder()
            .maximumWeight(KEPT_CELLS)
            .weigher((Question question, Kept answer) -> 20
                    + answer.rows.rows().size()
                            * (answer.rows.rows().isEmpty()
                                    ? 1
                                    : answer.rows.rows().get(0).length))
            .expireAfterWrite(LONGEST)
            .build();

    private record Question(long database, String sql) {}

    /** @param since when it came, by {@link Uptime} */
    private record Kept(SqlRows rows, long since) {}

    /** Databases that could not be reached a moment ago: each visual of a page would wait for them anew. */
    private final Map<Long, Closed> closed = new ConcurrentHashMap<>();

    /** @param until by {@link Uptime} */
    private record Closed(String why, long until) {}

    /** How a database is asked: connections, and as many threads. */
    private record Asking(HikariDataSource connections, ExecutorService threads, SqlRunner runner) {}

    StayingTables(Databases databases, DataSource shared) throws SQLException {
        this.databases = databases;
        this.shared = shared.unwrap(HikariDataSource.class);
    }

    /**
     * Asks a database.
     *
     * @param keep an answer holds for so many seconds; 0 for not at all
     */
    public SqlRunner runner(long database, int keep) {
        return statements -> asked(database, keep, statements);
    }

    /** What a database is, how it is called and how it writes. */
    public Elsewhere database(long id) {
        return databases.needed(id);
    }

    private List<SqlRows> asked(long database, int keep, List<SqlStatement> statements) {
        long now = Uptime.millis();
        SqlRows[] answers = new SqlRows[statements.size()];
        List<Integer> open = new ArrayList<>();
        for (int s = 0; s < answers.length; s++) {
            Kept known = keep == 0
                    ? null
                    : kept.getIfPresent(new Question(database, statements.get(s).sql()));
            if (known != null && now - known.since < keep * 1000L) answers[s] = known.rows;
            else open.add(s);
        }
        if (!open.isEmpty()) {
            checkOpen(database);
            List<SqlRows> found = asking(database)
                    .runner
                    .ask(open.stream().map(statements::get).toList());
            for (int i = 0; i < found.size(); i++) {
                answers[open.get(i)] = found.get(i);
                kept.put(
                        new Question(database, statements.get(open.get(i)).sql()),
                        new Kept(found.get(i), Uptime.millis()));
            }
        }
        return Arrays.asList(answers);
    }

    private Asking asking(long database) {
        return asking.computeIfAbsent(database, this::begin);
    }

    private Asking begin(long id) {
        return id == OWN ? own() : elsewhere(id);
    }

    private Asking elsewhere(long id) {
        Elsewhere database = databases.needed(id);
        HikariConfig config = new HikariConfig();
        config.setPoolName("elsewhere-" + id);
        config.setDataSource(new AbstractDataSource() {
            @Override
            public Connection getConnection() throws SQLException {
                try {
                    Connection made = databases.open(databases.needed(id));
                    made.setAutoCommit(true);
                    return made;
                } catch (RefusedException refused) {
                    // As the pool hands it on; the sentence is for whoever asks.
                    close(database, refused.getMessage());
                    throw new SQLException(refused.getMessage(), SAID, refused);
                } catch (SQLException refused) {
                    // Who is not let in is not let in a moment later; the pool would go on trying.
                    if (String.valueOf(refused.getSQLState()).startsWith(NOT_LET_IN)) why(database, refused);
                    throw refused;
                }
            }

            @Override
            public Connection getConnection(String user, String password) throws SQLException {
                return getConnection();
            }
        });
        return asking(config, database.getSeconds(), failed -> why(database, failed), () -> checkOpen(id));
    }

    /** @throws QueryException when the database could not be reached, or let nobody in, a moment ago */
    private void checkOpen(long database) {
        Closed last = closed.get(database);
        if (last != null && last.until > Uptime.millis()) throw new QueryException(last.why);
    }

    /**
     * Sarnik's own database, for rows that are too many to be held; by connections of their own, which can only read.
     */
    private Asking own() {
        HikariConfig config = new HikariConfig();
        config.setPoolName("own-rows");
        config.setJdbcUrl(shared.getJdbcUrl());
        config.setUsername(shared.getUsername());
        config.setPassword(shared.getPassword());
        config.setReadOnly(true);
        return asking(
                config,
                OWN_SECONDS,
                failed -> "The rows could not be asked just now: " + failed.getMessage(),
                () -> {});
    }

    /** @param check fails where nothing more is to be waited for */
    private static Asking asking(HikariConfig config, int seconds, Function<SQLException, String> why, Runnable check) {
        config.setMaximumPoolSize(AT_ONCE);
        config.setMinimumIdle(0);
        config.setIdleTimeout(IDLE.toMillis());
        config.setConnectionTimeout(PATIENCE.toMillis());
        // Nothing is opened before it is asked.
        config.setInitializationFailTimeout(-1);
        HikariDataSource connections = new HikariDataSource(config);
        ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE, work -> {
            Thread thread = new Thread(work, "ask-" + config.getPoolName());
            thread.setDaemon(true);
            return thread;
        });
        JdbcRunner.Waiting waiting = new JdbcRunner.Waiting() {
            @Override
            public <T> T until(Supplier<T> moment) {
                return AnswerQueue.elsewhere(() -> {
                    T came = moment.get();
                    if (came == null) check.run();
                    return came;
                });
            }
        };
        return new Asking(
                connections, threads, new JdbcRunner(connections::getConnection, threads, seconds, waiting, why));
    }

    /** Why a statement failed; where no connection could be had, why that was. */
    private String why(Elsewhere database, SQLException failed) {
        SQLException first = failed;
        while (first.getCause() instanceof SQLException cause) first = cause;
        String state = first.getSQLState() == null ? "" : first.getSQLState();
        String why = SAID.equals(state)
                ? first.getMessage()
                : Databases.refused(database, first).getMessage();
        if (SAID.equals(state) || state.startsWith(NOT_REACHED) || state.startsWith(NOT_LET_IN)) close(database, why);
        return why;
    }

    private void close(Elsewhere database, String why) {
        closed.put(database.getId(), new Closed(why, Uptime.millis() + CLOSED.toMillis()));
    }

    @Override
    public void close() {
        asking.values().forEach(one -> {
            one.threads.shutdownNow();
            one.connections.close();
        });
    }
}
