package sarnik.engines;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.formula.TrinoDialect;
import sarnik.sql.SourceColumn.Held;

/** A real cluster of three nodes, in a process of its own. */
@DisplayName("Rows that stay in Trino")
class TrinoTest {

    private static final Path MODULE =
            Path.of("../trino/target").toAbsolutePath().normalize();
    private static final Path DIRECTORY = Path.of("target/trino").toAbsolutePath();
    private static final Duration PATIENCE = Duration.ofMinutes(4);

    private static Process cluster;
    private static String address;

    @BeforeAll
    static void start() throws Exception {
        Files.createDirectories(DIRECTORY);
        Path said = DIRECTORY.resolve("address");
        Files.deleteIfExists(said);
        String libraries = Files.readString(MODULE.resolve("classpath.txt"), StandardCharsets.UTF_8)
                .strip();
        cluster = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx2g",
                        "-XX:+UseSerialGC",
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        MODULE.resolve("classes") + ":" + libraries,
                        "sarnik.trino.TrinoCluster",
                        said.toString(),
                        DIRECTORY.toString())
                .redirectOutput(DIRECTORY.resolve("log").toFile())
                .redirectErrorStream(true)
                .start();
        Instant late = Instant.now().plus(PATIENCE);
        while (!Files.exists(said)) {
            assertThat(cluster.isAlive())
                    .as("Trino runs, see " + DIRECTORY.resolve("log"))
                    .isTrue();
            assertThat(Instant.now()).as("Trino has started").isBefore(late);
            Thread.sleep(100);
        }
        address = Files.readString(said);
    }

    @AfterAll
    static void stop() throws Exception {
        cluster.getOutputStream().close();
        cluster.destroy();
        cluster.waitFor();
    }

    private static Connection open() throws SQLException {
        return DriverManager.getConnection("jdbc:trino://" + address + "/memory/default", "sarnik", null);
    }

    private static void run(String sql) throws SQLException {
        try (Connection connection = open();
                Statement statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    private static SuiteOfQueries suite(String decimal, Held held) {
        return new SuiteOfQueries(
                Servers.runner(TrinoTest::open),
                TrinoDialect.INSTANCE,
                List.of(Held.TEXT, Held.YES_NO, Held.WHOLE, held, Held.DATE, Held.TIME),
                table -> {
                    String name = "t" + System.nanoTime();
                    run(
                            "CREATE TABLE %s (town varchar, open boolean, pieces bigint, litres %s, day date, at timestamp(3))"
                                    .formatted(name, decimal));
                    if (table.rows() > 0)
                        run("INSERT INTO " + name + " VALUES " + Servers.values(table, 0, table.rows()));
                    return name;
                },
                Generated.EVERYWHERE);
    }

    @Test
    void areGroupedAsInMemory() throws Exception {
        suite("double", Held.FLOAT).groups(44, 1, 30);
    }

    @Test
    void formulasComeToTheSame() throws Exception {
        suite("double", Held.FLOAT).formulas(31);
        suite("double", Held.FLOAT).unworked(31);
    }

    @Test
    void goOverAllGroupsAndAskOthersAsInMemory() throws Exception {
        suite("decimal(12,3)", Held.EXACT).windowsAndOthers(4);
    }

    @Test
    void areGivenOutAsInMemory() throws Exception {
        suite("decimal(12,3)", Held.EXACT).rows(6, 3);
    }

    @Test
    void rowsStandOutAsInMemory() throws Exception {
        suite("decimal(12,3)", Held.EXACT).unlikelyRows(21);
    }
}
