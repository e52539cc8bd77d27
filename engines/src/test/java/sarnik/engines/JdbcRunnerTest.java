package sarnik.engines;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.query.QueryException;
import sarnik.sql.SqlRows;
import sarnik.sql.SqlRunner;
import sarnik.sql.SqlStatement;
import sarnik.sql.SqlStatement.Out;

@DisplayName("Statements through a driver")
class JdbcRunnerTest {

    private static Servers server;
    private static final ExecutorService THREADS = Executors.newFixedThreadPool(3);

    @BeforeAll
    static void start() throws Exception {
        server = Servers.start("one-server");
    }

    @AfterAll
    static void stop() throws Exception {
        THREADS.shutdownNow();
        server.close();
    }

    private static SqlRunner runner(int seconds, JdbcRunner.Waiting waiting) {
        return new JdbcRunner(server::open, THREADS, seconds, waiting, failed -> "It says: " + failed.getSQLState());
    }

    @Test
    void answersStandInTheOrderOfTheirQuestionsEachWithItsTypes() {
        List<SqlRows> answers = runner(0, JdbcRunner.Waiting.PATIENT)
                .ask(List.of(
                        new SqlStatement("SELECT pg_sleep(0.2)::text, 'late'", List.of(Out.TEXT, Out.TEXT), 1),
                        new SqlStatement(
                                "SELECT 7, 0.25::numeric, 'a' UNION ALL SELECT NULL, NULL, NULL",
                                List.of(Out.WHOLE, Out.DECIMAL, Out.TEXT),
                                10),
                        new SqlStatement("SELECT generate_series(1, 100)", List.of(Out.WHOLE), 3)));
        assertThat(answers.get(0).rows().get(0)[1]).isEqualTo("late");
        assertThat(answers.get(1).rows().get(0)).containsExactly(7L, 0.25, "a");
        assertThat(answers.get(1).rows().get(1)).as("what is missing").containsExactly(null, null, null);
        assertThat(answers.get(2).rows()).as("no more than are wanted").hasSize(3);
    }

    @Test
    void whatFailsIsSaidAndTheOthersAreGivenUp() {
        SqlRunner runner = runner(0, JdbcRunner.Waiting.PATIENT);
        List<SqlStatement> both = List.of(
                new SqlStatement("SELECT 1 / 0", List.of(Out.WHOLE), 1),
                new SqlStatement("SELECT pg_sleep(60)::text", List.of(Out.TEXT), 1));
        assertThatThrownBy(() -> runner.ask(both))
                .isInstanceOf(QueryException.class)
                .hasMessage("It says: 22012");
        assertThat(soonNothingRuns()).isTrue();
    }

    @Test
    void whatTakesTooLongIsGivenUp() {
        SqlRunner runner = runner(1, JdbcRunner.Waiting.PATIENT);
        SqlStatement slow = new SqlStatement("SELECT pg_sleep(60)::text", List.of(Out.TEXT), 1);
        assertThatThrownBy(() -> runner.ask(slow)).hasMessage("It says: 57014");
    }

    @Test
    void whatNobodyWaitsForIsGivenUp() {
        AtomicInteger looks = new AtomicInteger();
        SqlRunner runner = runner(0, new JdbcRunner.Waiting() {
            @Override
            public <T> T until(Supplier<T> moment) {
                while (looks.incrementAndGet() < 10)
                    if (moment.get() != null) throw new AssertionError("It has answered");
                throw new CancellationException();
            }
        });
        SqlStatement slow = new SqlStatement("SELECT pg_sleep(60)::text", List.of(Out.TEXT), 1);
        assertThatThrownBy(() -> runner.ask(slow)).isInstanceOf(CancellationException.class);
        assertThat(soonNothingRuns()).isTrue();
    }

    /** Whether no statement sleeps any more, after a while at most. */
    private static boolean soonNothingRuns() {
        for (int look = 0; look < 600; look++) {
            try (Connection connection = server.open();
                    Statement statement = connection.createStatement();
                    ResultSet found = statement.executeQuery(
                            "SELECT COUNT(*) FROM pg_stat_activity WHERE query LIKE 'SELECT pg_sleep(60)%' AND "
                                    + "state = 'active'")) {
                found.next();
                if (found.getInt(1) == 0) return true;
                Thread.sleep(50);
            } catch (SQLException | InterruptedException failed) {
                throw new IllegalStateException(failed);
            }
        }
        return false;
    }
}
