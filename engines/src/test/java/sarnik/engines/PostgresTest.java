package sarnik.engines;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.formula.PostgresDialect;
import sarnik.query.Condition;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.sql.Engines;
import sarnik.sql.FaceMaker;
import sarnik.sql.SourceColumn;
import sarnik.sql.SourceColumn.Held;
import sarnik.table.ColumnType;
import sarnik.table.Table;

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

    /** As a decimal number each of the three is 90071992547409930. */
    @Test
    void longNumbersAreToldApartByAllTheirDigits() throws Exception {
        server.run(
                "CREATE TABLE orders (number bigint)",
                "INSERT INTO orders VALUES (90071992547409930), (90071992547409931), (90071992547409932), (NULL)");
        Table orders = FaceMaker.look(
                        server.runner(),
                        PostgresDialect.INSTANCE,
                        "there",
                        "orders",
                        List.of(new SourceColumn("number", "number", Held.WHOLE, ColumnType.WHOLE)),
                        List.of())
                .table();
        List<String> one = List.of("90071992547409931");
        assertThat(rows(orders, new Condition.OneOf("number", one))).isEqualTo(1);
        assertThat(rows(orders, new Condition.NoneOf("number", one))).isEqualTo(2);
        assertThat(rows(orders, new Condition.Between("number", one.get(0), null)))
                .isEqualTo(2);
        assertThat(rows(orders, new Condition.Between("number", null, one.get(0))))
                .isEqualTo(2);
        assertThat(rows(orders, new Condition.Between("number", "-1e30", "1e30")))
                .isEqualTo(3);
        assertThat(rows(orders, new Condition.OneOf("number", List.of("0.5", "1e30"))))
                .isZero();
        assertThat(rows(orders, new Condition.NoneOf("number", List.of("0.5")))).isEqualTo(3);
    }

    private static double rows(Table table, Condition condition) {
        Stage stage = new Stage("some", List.of(condition));
        return new Engines(new InMemoryEngine())
                .answer(table, Query.of(List.of(stage), List.of(), List.of(Measure.ROWS)))
                .value(0, 0);
    }
}
