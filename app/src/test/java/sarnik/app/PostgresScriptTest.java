package sarnik.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import sarnik.app.testing.RunningSarnik;

@DisplayName("tools/postgres.sh")
class PostgresScriptTest {

    private static final Path DIRECTORY = RunningSarnik.place("postgres-script");

    private static final String BUSY = "SELECT count(*) FROM pg_stat_activity "
            + "WHERE query LIKE '%generate_series%' AND pid <> pg_backend_pid() AND state = 'active'";

    private record Said(int code, String text) {}

    private static Said run(String... words) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("bash", "../tools/postgres.sh"));
        command.addAll(List.of(words));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String text = new String(process.getInputStream().readAllBytes()).strip();
        return new Said(process.waitFor(), text);
    }

    @BeforeEach
    @AfterEach
    void stopped() throws Exception {
        run("stop", DIRECTORY.toString());
    }

    private static long query(String port, String sql) throws Exception {
        String password = Files.readString(DIRECTORY.resolve("password")).strip();
        try (var connection = DriverManager.getConnection(
                        "jdbc:postgresql://127.0.0.1:" + port + "/sarnik", "sarnik", password);
                var statement = connection.createStatement()) {
            if (!statement.execute(sql)) return 0;
            statement.getResultSet().next();
            return statement.getResultSet().getLong(1);
        }
    }

    @Test
    void startsOnceKeepsItsDataAndStops() throws Exception {
        Said first = run("start", DIRECTORY.toString(), "--fast");
        assertThat(first.code()).as(first.text()).isZero();
        query(first.text(), "CREATE TABLE IF NOT EXISTS kept (n int)");
        query(first.text(), "INSERT INTO kept VALUES (1)");
        assertThat(run("start", DIRECTORY.toString(), "--fast").text())
                .as("a second start finds the first")
                .isEqualTo(first.text());
        long rows = query(first.text(), "SELECT count(*) FROM kept");
        assertThat(run("stop", DIRECTORY.toString()).code()).isZero();
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> query(first.text(), "SELECT 1"))
                .isInstanceOf(SQLException.class);
        String again = run("start", DIRECTORY.toString(), "--fast").text();
        assertThat(query(again, "SELECT count(*) FROM kept")).isEqualTo(rows);
        assertThat(run("recreate", DIRECTORY.toString()).code()).isZero();
        assertThat(query(again, "SELECT count(*) FROM information_schema.tables WHERE table_name = 'kept'"))
                .isZero();
    }

    @Test
    void thePasswordIsNeededAndNotTheSameTwice() throws Exception {
        String port = run("start", DIRECTORY.toString(), "--fast").text();
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> DriverManager.getConnection(
                                "jdbc:postgresql://127.0.0.1:" + port + "/sarnik", "sarnik", "guess")
                        .close())
                .isInstanceOf(SQLException.class);
        assertThat(Files.readString(DIRECTORY.resolve("password")).strip()).hasSizeGreaterThan(16);
    }

    @Test
    void stoppingWhatNeverRanIsNoMistakeAndMisuseIsSaid() throws Exception {
        assertThat(run("stop", DIRECTORY.resolve("never").toString()).code()).isZero();
        assertThat(run("start").text()).startsWith("usage:");
        assertThat(run("fly", DIRECTORY.toString()).text()).startsWith("usage:");
    }

    /** The application looks for it at the port where it was, and what still computes for nobody holds that port. */
    @Test
    @Timeout(120)
    void startsAtItsPortAgainRightAfterItWasKilled() throws Exception {
        Said first = run("start", DIRECTORY.toString(), "--fast");
        assertThat(first.code()).as(first.text()).isZero();
        Thread computing = new Thread(() -> {
            try {
                query(first.text(), "SELECT count(*) FROM generate_series(1, 1000000000000)");
            } catch (Exception ended) {
                // Its server was killed.
            }
        });
        computing.start();
        while (query(first.text(), BUSY) == 0) Thread.onSpinWait();
        long server = Long.parseLong(Files.readAllLines(DIRECTORY.resolve("cluster/postmaster.pid"))
                .get(0)
                .strip());
        ProcessHandle process = ProcessHandle.of(server).orElseThrow();
        process.destroyForcibly();
        process.onExit().join();
        Said again = run("start", DIRECTORY.toString(), "--fast");
        assertThat(again.code()).as(again.text()).isZero();
        assertThat(again.text()).isEqualTo(first.text());
        computing.join();
        assertThat(query(again.text(), "SELECT 1")).isEqualTo(1);
    }
}
