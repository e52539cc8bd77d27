package sarnik.engines;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.formula.PostgresDialect;
import sarnik.sql.SourceColumn.Held;

@DisplayName("Rows that stay in PostgreSQL")
class PostgresTest {

    private static Servers server;

    @BeforeAll
    static void start() throws Exception {
        server = Servers.start("one-server");
    }

    @AfterAll
    static void stop() throws Exception {
        server.close();
    }

    private static SuiteOfQueries suite(String decimal, Held held) {
        return new SuiteOfQueries(
                server.runner(),
                PostgresDialect.INSTANCE,
                List.of(Held.TEXT, Held.YES_NO, Held.WHOLE, held, Held.DATE, Held.TIME),
                table -> {
                    String name = "t" + System.nanoTime();
                    server.run(
                            "CREATE TABLE %s (town text, open boolean, pieces integer, litres %s, day date, at timestamp)"
                                    .formatted(name, decimal));
                    if (table.rows() > 0)
                        server.run("INSERT INTO " + name + " VALUES " + Servers.values(table, 0, table.rows()));
                    return name;
                },
                Stream.concat(Generated.EVERYWHERE.stream(), Generated.IN_POSTGRES.stream())
                        .toList());
    }

    /** Moments with a zone, which are read as date-times of UTC. */
    private static SuiteOfQueries ofMoments() {
        return new SuiteOfQueries(
                server.runner(),
                PostgresDialect.INSTANCE,
                List.of(Held.TEXT, Held.YES_NO, Held.WHOLE, Held.EXACT, Held.DATE, Held.MOMENT),
                table -> {
                    String name = "t" + System.nanoTime();
                    server.run(
                            "CREATE TABLE %s_here (town text, open boolean, pieces integer, litres numeric, day date, at timestamp)"
                                    .formatted(name));
                    if (table.rows() > 0)
                        server.run("INSERT INTO " + name + "_here VALUES " + Servers.values(table, 0, table.rows()));
                    server.run(
                            "CREATE TABLE %s AS SELECT town, open, pieces, litres, day, at AT TIME ZONE 'UTC' AS at FROM %s_here"
                                    .formatted(name, name));
                    return name;
                },
                Generated.EVERYWHERE);
    }

    @Test
    void momentsAreThoseOfUtc() throws Exception {
        ofMoments().groups(9, 2, 50);
        ofMoments().rows(8, 6);
    }

    @Test
    void areGroupedAsInMemory() throws Exception {
        suite("numeric", Held.EXACT).groups(20261129, 8, 50);
        suite("double precision", Held.FLOAT).groups(7, 2, 50);
    }

    @Test
    void formulasComeToTheSame() throws Exception {
        suite("numeric", Held.EXACT).formulas(31);
        suite("numeric", Held.EXACT).unworked(31);
        suite("double precision", Held.FLOAT).formulas(32);
    }

    @Test
    void goOverAllGroupsAndAskOthersAsInMemory() throws Exception {
        suite("real", Held.SHORT_FLOAT).windowsAndOthers(3);
    }

    @Test
    void areGivenOutAsInMemory() throws Exception {
        suite("numeric", Held.EXACT).rows(5, 12);
    }

    @Test
    void rowsStandOutAsInMemory() throws Exception {
        suite("numeric", Held.EXACT).unlikelyRows(21);
    }
}
