package sarnik.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;

/** A database of an older program is brought up to date by its migrations, and loses nothing that anybody could see. */
@ExtendWith(RunningSarnik.class)
@DisplayName("An older database")
class UpgradeTest {

    private static final Path DATABASE = RunningSarnik.place("database");
    private static final String NAME = "sarnik_older";

    private static String read(String file) throws Exception {
        return Files.readString(DATABASE.resolve(file)).strip();
    }

    private static String address(String name) throws Exception {
        return "jdbc:postgresql://127.0.0.1:" + read("port") + "/" + name;
    }

    private static Connection connection(String name) throws Exception {
        return DriverManager.getConnection(address(name), "sarnik", read("password"));
    }

    private static Flyway migrations(String target) throws Exception {
        return Flyway.configure()
                .dataSource(address(NAME), "sarnik", read("password"))
                .locations("classpath:db/migration")
                .target(target)
                .load();
    }

    private static void run(Connection on, String sql) throws SQLException {
        try (var statement = on.createStatement()) {
            statement.execute(sql);
        }
    }

    private static List<String> ask(Connection of, String sql) throws SQLException {
        List<String> rows = new ArrayList<>();
        try (var found = of.createStatement().executeQuery(sql)) {
            while (found.next()) rows.add(found.getString(1));
        }
        return rows;
    }

    @Test
    void keepsWhoMightReadAndChangeWhatAndPublishesWhatWasOpen(RunningSarnik sarnik) throws Exception {
        assertThat(sarnik.base()).isNotEmpty();
        try (Connection server = connection("postgres")) {
            run(server, "DROP DATABASE IF EXISTS " + NAME);
            run(server, "CREATE DATABASE " + NAME);
        }
        migrations("12").migrate();
        try (Connection older = connection(NAME)) {
            run(older, """
                    INSERT INTO people (sign_in, name, password, role) VALUES ('old', 'Old', 'x', 'ANALYST');
                    INSERT INTO shared_keys (name, words, colour, changed_by, changed_at, created_by)
                        SELECT 'A key', 'words', '{"classes": 3}', id, now(), id FROM people;
                    INSERT INTO datasets (name, created_by, created_at, shared) SELECT 'Shared', id, now(), true FROM people;
                    INSERT INTO datasets (name, created_by, created_at, shared) SELECT 'Own', id, now(), false FROM people;
                    INSERT INTO dashboards (title, document, revision, open_to_readers, created_by, changed_at, shared)
                        SELECT 'Open', '{"title": "Open"}', 7, true, id, now(), true FROM people;
                    INSERT INTO dashboards (title, document, revision, open_to_readers, created_by, changed_at, shared)
                        SELECT 'Draft', '{"title": "Draft"}', 2, false, id, now(), false FROM people;
                    """);
            migrations("latest").migrate();
            assertThat(ask(
                            older,
                            "SELECT thing || ' ' || coalesce(d.title, s.name) || ' ' || who || ' ' || may FROM grants g"
                                    + " LEFT JOIN dashboards d ON g.thing = 'DASHBOARD' AND d.id = g.thing_id"
                                    + " LEFT JOIN datasets s ON g.thing = 'DATASET' AND s.id = g.thing_id ORDER BY 1"))
                    .containsExactly(
                            "DASHBOARD Draft ANALYSTS READ",
                            "DASHBOARD Open ANALYSTS COMPOSE",
                            "DASHBOARD Open EVERYBODY READ",
                            "DATASET Own ANALYSTS READ",
                            "DATASET Shared ANALYSTS COMPOSE");
            assertThat(ask(
                            older,
                            "SELECT d.title || ' ' || e.number || ' ' || e.revision || ' ' || (e.document = d.document)"
                                    + " || ' ' || (e.rests_on -> 'keys' -> 0 ->> 'name') || ' ' || "
                                    + "jsonb_array_length(e.rests_on -> 'datasets')"
                                    + " FROM dashboards d JOIN editions e ON e.id = d.edition_id"))
                    .containsExactly("Open 1 7 true A key 0");
            assertThat(ask(older, "SELECT title FROM dashboards WHERE edition_id IS NULL"))
                    .containsExactly("Draft");
        }
        try (Connection server = connection("postgres")) {
            run(server, "DROP DATABASE " + NAME + " WITH (FORCE)");
        }
    }
}
