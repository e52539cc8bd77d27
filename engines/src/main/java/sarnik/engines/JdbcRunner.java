package sarnik.engines;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import java.util.function.Supplier;
import sarnik.query.QueryException;
import sarnik.sql.SqlRows;
import sarnik.sql.SqlRunner;
import sarnik.sql.SqlStatement;

/** Asks a database through its driver. What nobody waits for any more is given up there too. */
public final class JdbcRunner implements SqlRunner {

    private static final int AT_ONCE = 5000;
    private static final long MOMENT = 20;

    /** Connections that may have been kept and closed meanwhile. */
    private static final int MOST_KEPT = 4;

    /** Opens connections that can only read; closing one may hand it back. */
    @FunctionalInterface
    public interface Connections {
        Connection open() throws SQLException;
    }

    /** Waits for what is worked out elsewhere. */
    @FunctionalInterface
    public interface Waiting {

        /**
         * @param moment waits for a moment; gives null where it has to be called again
         * @throws CancellationException when nobody waits any more
         */
        <T> T until(Supplier<T> moment);

        /** Until it is there. */
        Waiting PATIENT = new Waiting() {
            @Override
            public <T> T until(Supplier<T> moment) {
                T found = null;
                while (found == null) found = moment.get();
                return found;
            }
        };
    }

    private final Connections connections;
    private final ExecutorService threads;
    private final int seconds;
    private final Waiting waiting;
    private final Function<SQLException, String> why;

    /**
     * @param threads run as many statements at once as the database is asked
     * @param seconds after so long a statement is given up; 0 for never
     * @param why says for people why a statement failed
     */
    public JdbcRunner(
            Connections connections,
            ExecutorService threads,
            int seconds,
            Waiting waiting,
            Function<SQLException, String> why) {
        this.connections = connections;
        this.threads = threads;
        this.seconds = seconds;
        this.waiting = waiting;
        this.why = why;
    }

    /**
     * Whether a connection was lost that had been there: closed by the server, or broken on the way (ISO/IEC 9075-2,
     * class 08).
     */
    private static boolean isLost(SQLException failed) {
        String state = failed.getSQLState() == null ? "" : failed.getSQLState();
        return state.equals("08006") || state.equals("08003") || state.startsWith("57P0");
    }

    /** A statement that runs, and can be given up. */
    private final class Running {

        private final SqlStatement asked;
        private volatile Statement statement;
        private volatile boolean dropped;

        Running(SqlStatement asked) {
            this.asked = asked;
        }

        /**
         * Asked again where a connection that was kept has been closed meanwhile: a question that only reads can be.
         */
        SqlRows run() throws SQLException {
            for (int again = 0; ; again++) {
                try {
                    return once();
                } catch (SQLException failed) {
                    if (again == MOST_KEPT || !isLost(failed)) throw failed;
                }
            }
        }

        private SqlRows once() throws SQLException {
            if (dropped) throw new CancellationException();
            Instant at = Clock.systemUTC().instant();
            try (Connection connection = connections.open();
                    Statement made = connection.createStatement()) {
                statement = made;
                if (dropped) throw new CancellationException();
                made.setFetchSize(AT_ONCE);
                if (seconds > 0) made.setQueryTimeout(seconds);
                try (ResultSet rows = made.executeQuery(asked.sql())) {
                    return new SqlRows(read(rows, asked), at);
                }
            } finally {
                statement = null;
            }
        }

        void drop() {
            dropped = true;
            Statement running = statement;
            if (running == null) return;
            try {
                running.cancel();
            } catch (SQLException gone) {
                // It has ended meanwhile.
            }
        }
    }

    @Override
    public List<SqlRows> ask(List<SqlStatement> statements) {
        List<Running> running = statements.stream().map(Running::new).toList();
        List<Future<SqlRows>> answers =
                running.stream().map(one -> threads.submit(one::run)).toList();
        try {
            List<SqlRows> all = new ArrayList<>();
            for (Future<SqlRows> answer : answers) all.add(waiting.until(() -> soon(answer)));
            return all;
        } catch (RuntimeException failed) {
            running.forEach(Running::drop);
            throw failed;
        }
    }

    private SqlRows soon(Future<SqlRows> answer) {
        try {
            return answer.get(MOMENT, TimeUnit.MILLISECONDS);
        } catch (TimeoutException goesOn) {
            return null;
        } catch (ExecutionException failed) {
            if (failed.getCause() instanceof SQLException refused) throw new QueryException(why.apply(refused));
            if (failed.getCause() instanceof RuntimeException thrown) throw thrown;
            throw new IllegalStateException(failed.getCause());
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new CancellationException();
        }
    }

    private static List<Object[]> read(ResultSet rows, SqlStatement asked) throws SQLException {
        List<Object[]> all = new ArrayList<>();
        while (all.size() < asked.most() && rows.next()) {
            Object[] row = new Object[asked.outs().size()];
            for (int c = 0; c < row.length; c++) {
                Object value = switch (asked.outs().get(c)) {
                    case TEXT -> rows.getString(c + 1);
                    case WHOLE -> (Object) rows.getLong(c + 1);
                    case DECIMAL -> (Object) rows.getDouble(c + 1);
                };
                row[c] = rows.wasNull() ? null : value;
            }
            all.add(row);
        }
        return all;
    }
}
