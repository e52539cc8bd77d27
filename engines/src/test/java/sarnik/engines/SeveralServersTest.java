package sarnik.engines;

import java.sql.Connection;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.formula.PostgresDialect;
import sarnik.sql.SourceColumn.Held;

/** A table in three parts, each on a server of its own; one of them is asked, and asks the others. */
@DisplayName("Rows that stay in PostgreSQL on three servers")
class SeveralServersTest {

    private static final String COLUMNS =
            "town text, open boolean, pieces bigint, litres numeric, day date, at timestamp";

    private static final List<Servers> SERVERS = new ArrayList<>();

    @BeforeAll
    static void start() throws Exception {
        for (int s = 0; s < 3; s++) SERVERS.add(Servers.start("several-servers-" + s));
        Servers first = SERVERS.get(0);
        first.run("CREATE EXTENSION IF NOT EXISTS postgres_fdw");
        for (int s = 1; s < 3; s++) {
            Servers other = SERVERS.get(s);
            first.run(
                    "DROP SERVER IF EXISTS part%d CASCADE".formatted(s),
                    ("CREATE SERVER part%d FOREIGN DATA WRAPPER postgres_fdw OPTIONS (host '127.0.0.1', port '%d', "
                                    + "dbname 'sarnik', "
                                    + "async_capable 'true', fetch_size '10000')")
                            .formatted(s, other.port()),
                    "CREATE USER MAPPING FOR CURRENT_USER SERVER part%d OPTIONS (user 'sarnik', password '%s')"
                            .formatted(s, other.password()));
        }
    }

    @AfterAll
    static void stop() throws Exception {
        for (Servers server : SERVERS) server.close();
    }

    private static SuiteOfQueries suite() {
        Servers first = SERVERS.get(0);
        return new SuiteOfQueries(
                Servers.runner(() -> {
                    Connection connection = first.open();
                    try (Statement statement = connection.createStatement()) {
                        statement.execute("SET enable_partitionwise_aggregate = on");
                        statement.execute("SET enable_partitionwise_join = on");
                    }
                    return connection;
                }),
                PostgresDialect.INSTANCE,
                List.of(Held.TEXT, Held.YES_NO, Held.WHOLE, Held.EXACT, Held.DATE, Held.TIME),
                table -> {
                    String name = "t" + System.nanoTime();
                    first.run(
                            "CREATE TABLE %s (%s) PARTITION BY HASH (town)".formatted(name, COLUMNS),
                            "CREATE TABLE %s_0 PARTITION OF %s FOR VALUES WITH (MODULUS 3, REMAINDER 0)"
                                    .formatted(name, name));
                    for (int s = 1; s < 3; s++) {
                        SERVERS.get(s).run("CREATE TABLE %s_%d (%s)".formatted(name, s, COLUMNS));
                        first.run(
                                "CREATE FOREIGN TABLE %s_%d PARTITION OF %s FOR VALUES WITH (MODULUS 3, REMAINDER %d) SERVER part%d"
                                        .formatted(name, s, name, s, s));
                    }
                    if (table.rows() > 0)
                        first.run("INSERT INTO " + name + " VALUES " + Servers.values(table, 0, table.rows()));
                    return name;
                },
                Generated.EVERYWHERE);
    }

    @Test
    void areGroupedAsInMemory() throws Exception {
        suite().groups(33, 4, 40);
    }

    @Test
    void goOverAllGroupsAndAskOthersAsInMemory() throws Exception {
        suite().windowsAndOthers(4);
    }

    @Test
    void areGivenOutAsInMemory() throws Exception {
        suite().rows(6, 12);
    }
}
