package sarnik.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;

@ExtendWith(RunningSarnik.class)
@DisplayName("A backup")
class BackupTest {

    private static final Path SOURCE = RunningSarnik.place("database");
    private static final Path EMPTY = RunningSarnik.place("restored");
    private static final Path FILE = RunningSarnik.place("test.backup");

    @BeforeAll
    @AfterAll
    static void clean() throws Exception {
        run("stop", EMPTY.toString());
        new ProcessBuilder("rm", "-rf", EMPTY.toString(), FILE.toString())
                .start()
                .waitFor();
    }

    private static String run(String... words) throws IOException, InterruptedException {
        List<String> command = new java.util.ArrayList<>(List.of("bash", "../tools/postgres.sh"));
        command.addAll(List.of(words));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes()).strip();
        return process.waitFor() + " " + said;
    }

    private static Connection connection(Path directory) throws IOException, SQLException {
        return DriverManager.getConnection(
                "jdbc:postgresql://127.0.0.1:%s/sarnik"
                        .formatted(Files.readString(directory.resolve("port")).strip()),
                "sarnik",
                Files.readString(directory.resolve("password")).strip());
    }

    /** The content of every table, as a number of rows and a sum of their texts in any order. */
    private static Map<String, String> content(Connection of) throws SQLException {
        Map<String, String> content = new TreeMap<>();
        try (var tables = of.createStatement()
                .executeQuery("SELECT table_schema || '.' || table_name FROM information_schema.tables"
                        + " WHERE table_schema IN ('public', 'rows')")) {
            while (tables.next()) {
                String table = tables.getString(1);
                try (var sums = of.createStatement()
                        .executeQuery(
                                "SELECT count(*) || ' ' || coalesce(sum(('x' || substr(md5(CAST(t.* AS text)), 1, "
                                        + "8))::bit(32)::bigint), 0) FROM "
                                        + table + " t")) {
                    sums.next();
                    content.put(table, sums.getString(1));
                }
            }
        }
        return content;
    }

    @Test
    void restoredIntoAnEmptyPlaceHoldsTheSame(RunningSarnik sarnik) throws Exception {
        Samples.dashboard(sarnik.client("ana"), "Backed up?");
        Map<String, String> before;
        // Of one moment: what other tests write meanwhile is in neither.
        try (Connection source = connection(SOURCE)) {
            assertThat(run("backup", SOURCE.toString(), FILE.toString())).isEqualTo("0 ");
            before = content(source);
        }
        assertThat(run("backup", SOURCE.toString(), FILE.toString()))
                .startsWith("1 ")
                .contains("is there already");
        assertThat(run("start", EMPTY.toString(), "--fast")).startsWith("0 ");
        assertThat(run("restore", EMPTY.toString(), FILE.toString())).isEqualTo("0 ");
        try (Connection restored = connection(EMPTY)) {
            Map<String, String> after = content(restored);
            assertThat(after.keySet()).isEqualTo(before.keySet()).contains("public.dashboards", "public.editions");
            // What the running application notes by itself between the two moments.
            for (String noted : List.of("public.acts", "public.share_links")) {
                before.remove(noted);
                after.remove(noted);
            }
            // Who is signed in just now, and what only waits, is nothing to go back to.
            for (String passing : List.of(
                    "public.sessions",
                    "public.sessions_attributes",
                    "public.waiting_files",
                    "public.waiting_parts",
                    "public.instances",
                    "public.wrong_tries")) {
                before.remove(passing);
                assertThat(after.remove(passing)).as(passing).isEqualTo("0 0");
            }
            assertThat(after).isEqualTo(before);
        }
        assertThat(run("restore", EMPTY.toString(), FILE.toString()))
                .startsWith("1 ")
                .contains("not empty");
    }

    @Test
    void whatIsNoBackupIsRefusedAndLeavesNothing() throws Exception {
        Path odd = Files.writeString(RunningSarnik.place("odd.backup"), "not a backup");
        Path place = RunningSarnik.place("restored-odd");
        run("start", place.toString(), "--fast");
        try {
            assertThat(run("restore", place.toString(), odd.toString()))
                    .startsWith("1 ")
                    .contains("no backup of Sarnik");
            assertThat(run("restore", place.toString(), odd + ".missing"))
                    .startsWith("1 ")
                    .contains("no file");
        } finally {
            run("stop", place.toString());
        }
    }
}
