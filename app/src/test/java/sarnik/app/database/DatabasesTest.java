package sarnik.app.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.sql.Connection;
import java.sql.Statement;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.dataset.DatasetService;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;
import sarnik.table.ColumnType;
import sarnik.table.Table;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Tables of databases elsewhere")
class DatabasesTest {

    private RunningSarnik sarnik;
    private SarnikClient steward;
    private SarnikClient ana;
    private DatabaseBeside accounts;

    /** A database beside Sarnik's own, with a user that can only read. */
    @BeforeEach
    void aDatabase(RunningSarnik running) throws Exception {
        sarnik = running;
        steward = running.client("marta");
        ana = running.client("ana");
        accounts = new DatabaseBeside(running, "accounts", "reads", "quiet water");
        clear();
        accounts.create();
        accounts.run("""
                CREATE SCHEMA books;
                CREATE TABLE books.sales (town text, code text, day date, at timestamptz, litres numeric(12, 3), paid boolean, note text, secret text);
                INSERT INTO books.sales VALUES
                  ('Soria', '007', '2026-01-05', '2026-01-05 10:00+02', 12.500, true, 'said "yes", twice', 'x'),
                  ('Zamora', '008', '2026-02-06', NULL, NULL, false, '', 'x'),
                  ('Burgos', '009', '2026-03-07', '2026-03-07 23:30:15+00', 1234567.125, NULL, NULL, 'x');
                CREATE VIEW books.towns AS SELECT town, litres FROM books.sales;
                CREATE TABLE books.hidden (a int);
                ANALYZE""");
        accounts.run("""
                GRANT USAGE ON SCHEMA books TO reads;
                GRANT SELECT ON books.sales, books.towns TO reads""");
    }

    @AfterEach
    void clear() throws Exception {
        for (Elsewhere known : sarnik.bean(Databases.class).all())
            sarnik.bean(Databases.class).remove(known.getId());
        accounts.drop();
    }

    private HttpResponse<String> add(Map<String, String> changed) throws Exception {
        Map<String, String> said = new HashMap<>(Map.of("name", "Accounts"));
        said.putAll(changed);
        return accounts.name(steward, said);
    }

    private long added() throws Exception {
        assertThat(add(Map.of()).body()).contains("It answers, and its user can only read.");
        return ana.read(ana.get("/api/databases")).get(0).get("id").asLong();
    }

    private HttpResponse<String> bring(String address) throws Exception {
        return ana.send(
                "POST",
                "/api/bring/address",
                "application/json",
                tools.jackson.databind.json.JsonMapper.shared().writeValueAsString(Map.of("address", address)));
    }

    private long kept(String address) throws Exception {
        JsonNode taken = ana.read(ana.untilRead(bring(address)));
        return Long.parseLong(ana.json(
                        "POST", "/api/bring/" + taken.get("id").asString() + "/keep", Map.of("name", "Sales elsewhere"))
                .get("id")
                .asString());
    }

    private Table rows(long dataset) {
        return sarnik.bean(DatasetService.class).needed(dataset).dataset().table();
    }

    @Test
    void areListedWithTheirSizesAsFarAsTheirUserMayRead() throws Exception {
        long id = added();
        JsonNode tables = ana.read(ana.get("/api/databases/" + id + "/tables"));
        assertThat(tables).extracting(t -> t.get("name").asString()).containsExactly("books.sales", "books.towns");
        assertThat(tables.get(0).get("rows").asLong()).isEqualTo(3);
        assertThat(tables.get(1).get("kind").asString()).isEqualTo("view");
        assertThat(tables.get(1).get("rows").asLong()).as("not known of a view").isEqualTo(-1);
        assertThat(ana.json(
                                "POST",
                                "/api/databases/" + id + "/count",
                                Map.of("of", "SELECT * FROM books.sales WHERE paid"))
                        .get("rows")
                        .asLong())
                .isEqualTo(1);
    }

    @Test
    void areBroughtInAsTheyAreAndAskedAgain() throws Exception {
        added();
        long dataset = kept("database:Accounts/books.sales");
        Table rows = rows(dataset);
        assertThat(rows.rows()).isEqualTo(3);
        assertThat(rows.column("code").text(0)).as("zeros in front stay").isEqualTo("007");
        assertThat(rows.column("day").type()).isEqualTo(ColumnType.DATE);
        assertThat(rows.column("litres").text(2)).isEqualTo("1234567.125");
        assertThat(rows.column("litres").isMissing(1)).isTrue();
        assertThat(rows.column("at").text(0)).as("in UTC").startsWith("2026-01-05T08:00");
        assertThat(rows.column("paid").text(0)).isEqualTo("yes");
        assertThat(rows.column("note").text(0)).isEqualTo("said \"yes\", twice");
        Map<String, Object> feed = new HashMap<>(Map.of("address", "database:Accounts/books.sales", "append", false));
        assertThat(ana.describe(dataset, "feed", feed).statusCode()).isEqualTo(204);
        accounts.run("INSERT INTO books.sales (town, litres) VALUES ('Palencia', 5)");
        JsonNode asked = ana.json("POST", "/api/datasets/" + dataset + "/feed", null);
        assertThat(asked.get("outcome").asString()).isEqualTo("SERVED");
        assertThat(asked.get("words").asString()).contains("1 added");
        assertThat(rows(dataset).rows()).isEqualTo(4);
        // A database that has gone leaves what was brought in.
        steward.send(
                "POST",
                "/databases/remove",
                "application/x-www-form-urlencoded",
                "id=" + sarnik.bean(Databases.class).all().get(0).getId());
        asked = ana.json("POST", "/api/datasets/" + dataset + "/feed", null);
        assertThat(asked.get("outcome").asString()).isEqualTo("FAILED");
        assertThat(asked.get("words").asString()).contains("no database called “Accounts” any more");
        assertThat(rows(dataset).rows()).isEqualTo(4);
    }

    @Test
    void queriesAreTablesToo() throws Exception {
        added();
        Table rows =
                rows(kept("database:Accounts/SELECT town, sum(litres) AS litres FROM books.sales GROUP BY 1 ORDER BY "
                        + "1 -- by town"));
        assertThat(rows.names()).contains("town", "litres");
        assertThat(rows.rows()).isEqualTo(3);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "database:Accounts/DELETE FROM books.sales|begins with SELECT",
                "database:Accounts/SELECT 1; DROP TABLE books.sales|without semicolons",
                "database:Accounts/WITH gone AS (DELETE FROM books.sales RETURNING 1) SELECT * FROM gone|says:",
                "database:Accounts/books.hidden|permission denied",
                "database:Accounts/books.nothing|does not exist",
                "database:Accounts/SELECT pg_sleep(30)|longer than 1 seconds",
                "database:Accounts/SELECT generate_series(1, 21)|more than 20 rows",
                "database:Nowhere/books.sales|no database called “Nowhere”",
                "database:Accounts|behind a slash the table",
                "database:Accounts/|Write a table"
            })
    void whatCannotBeReadIsSaid(String address, String words) throws Exception {
        assertThat(add(Map.of("seconds", "1", "mostRows", "20")).body()).contains("It answers");
        HttpResponse<String> refused = bring(address);
        assertThat(refused.statusCode()).isBetween(400, 499);
        assertThat(refused.body()).contains(words).doesNotContain("quiet water");
        try (Connection connection = accounts.connect();
                Statement statement = connection.createStatement();
                var found = statement.executeQuery("SELECT count(*) FROM books.sales")) {
            found.next();
            assertThat(found.getInt(1)).as("nothing was changed").isEqualTo(3);
        }
    }

    @Test
    void stewardsSayWhichThereAreAndTheyAreTriedFirst() throws Exception {
        assertThat(add(Map.of("password", "wrong")).body()).contains("does not let its user in");
        assertThat(add(Map.of("port", "1")).body()).contains("does not answer just now");
        assertThat(add(Map.of("name", "a/b")).body()).contains("Call it by letters");
        assertThat(sarnik.bean(Databases.class).all()).isEmpty();
        assertThat(add(accounts.owner()).body()).contains("may change tables");
        assertThat(add(Map.of()).body()).contains("called “Accounts” already");
        assertThat(steward.get("/databases").body()).contains("Accounts").doesNotContain("quiet water");
        try (Connection connection = accounts.connectOwn();
                Statement statement = connection.createStatement();
                var found = statement.executeQuery("SELECT sealed FROM databases_elsewhere WHERE sealed IS NOT NULL")) {
            while (found.next())
                assertThat(found.getString(1)).startsWith("s1:").doesNotContain("quiet");
        }
    }
}
