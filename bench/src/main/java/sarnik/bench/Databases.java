package sarnik.bench;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.duckdb.DuckDBConnection;
import org.postgresql.PGConnection;
import sarnik.query.Frame;
import sarnik.query.Query;
import sarnik.query.SqlText;
import sarnik.table.CodedColumn;

/** The same refills in DuckDB (in memory) and in the PostgreSQL that ships. */
final class Databases implements AutoCloseable {

    private static final double SAME = 1e-6;
    private final Connection duck;
    private final Connection postgres;

    Databases() throws SQLException {
        duck = DriverManager.getConnection("jdbc:duckdb:");
        execute(duck, "SET threads TO " + Runtime.getRuntime().availableProcessors());
        postgres = DriverManager.getConnection(
                System.getenv("SARNIK_BENCH_DB"), "sarnik", System.getenv("SARNIK_BENCH_PASSWORD"));
    }

    private static void execute(Connection connection, String sql) throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    /**
     * Fills a table named refills in both; codes as dictionary types (ENUM) in DuckDB's second table, refills_coded.
     */
    void fill(RefillTable refills) throws SQLException, IOException {
        execute(
                duck,
                "CREATE OR REPLACE TABLE refills (town VARCHAR, kiosk VARCHAR, product VARCHAR, day DATE, "
                        + "litres DOUBLE, takings DOUBLE, state VARCHAR)");
        List<List<String>> words = List.of("town", "kiosk", "product", "state").stream()
                .map(n -> ((CodedColumn) refills.table().column(n)).dictionary())
                .toList();
        try (var appender =
                duck.unwrap(DuckDBConnection.class).createAppender(DuckDBConnection.DEFAULT_SCHEMA, "refills")) {
            for (int r = 0; r < refills.table().rows(); r++) {
                appender.beginRow();
                appender.append(words.get(0).get(refills.towns()[r]));
                appender.append(words.get(1).get(refills.kiosks()[r]));
                appender.append(words.get(2).get(refills.products()[r]));
                appender.append(LocalDate.ofEpochDay(refills.days()[r]));
                appender.append(refills.litres()[r]);
                appender.append(refills.takings()[r]);
                appender.append(words.get(3).get(refills.states()[r]));
                appender.endRow();
            }
        }
        // DuckDB has no TO_CHAR; the steps of time that queries group by are written as it writes them.
        execute(
                duck,
                "CREATE OR REPLACE MACRO to_char(t, f) AS strftime(t, CASE f WHEN 'YYYY-MM' THEN '%Y-%m' "
                        + "WHEN 'YYYY-MM-DD' THEN '%Y-%m-%d' WHEN 'IYYY-\"W\"IW' THEN '%G-W%V' WHEN 'ID' THEN '%u' "
                        + "WHEN 'YYYY' THEN '%Y' END)");
        execute(duck, "DROP TABLE IF EXISTS refills_coded");
        for (String name : List.of("town", "kiosk", "product", "state")) {
            execute(duck, "DROP TYPE IF EXISTS " + name + "_code");
            execute(duck, "CREATE TYPE " + name + "_code AS ENUM (SELECT DISTINCT " + name + " FROM refills)");
        }
        execute(
                duck,
                "CREATE TABLE refills_coded AS SELECT town::town_code AS town, kiosk::kiosk_code AS kiosk, "
                        + "product::product_code AS product, day, litres, takings, state::state_code AS state "
                        + "FROM refills");

        execute(postgres, "CREATE SCHEMA IF NOT EXISTS bench");
        execute(postgres, "DROP TABLE IF EXISTS bench.refills");
        execute(
                postgres,
                "CREATE UNLOGGED TABLE bench.refills (town text, kiosk text, product text, day date, litres "
                        + "double precision, takings double precision, state text)");
        postgres.unwrap(PGConnection.class)
                .getCopyAPI()
                .copyIn("COPY bench.refills FROM STDIN (FORMAT csv)", new Lines(refills, words));
        execute(postgres, "VACUUM ANALYZE bench.refills");
    }

    /** Reads a CSV file into a table in memory, typed as DuckDB guesses. */
    void readCsv(Path file) throws SQLException {
        execute(duck, "CREATE OR REPLACE TABLE read AS SELECT * FROM read_csv('" + file + "')");
    }

    enum Which {
        DUCKDB("DuckDB", "refills"),
        DUCKDB_CODED("DuckDB, coded (ENUM)", "refills_coded"),
        POSTGRESQL("PostgreSQL", "bench.refills");

        final String words;
        final String table;

        Which(String words, String table) {
            this.words = words;
            this.table = table;
        }
    }

    /** Answers a query and reads all of its rows; the sum of the first measure is given back for comparing. */
    double answer(Which which, RefillTable refills, Query query) throws SQLException {
        String sql = SqlText.of(refills.table(), query, which.table, n -> n).sql();
        int first = query.groupBy().size() + 1;
        double sum = 0;
        try (var statement = (which == Which.POSTGRESQL ? postgres : duck).createStatement();
                ResultSet rows = statement.executeQuery(sql)) {
            while (rows.next()) sum += rows.getDouble(first);
        }
        return sum;
    }

    /** @throws IllegalStateException where the answers differ */
    void check(RefillTable refills, Query query, Frame ours) throws SQLException {
        double sum = 0;
        for (int g = 0; g < ours.size(); g++) sum += ours.value(0, g);
        for (Which which : Which.values()) {
            double theirs = answer(which, refills, query);
            if (Math.abs(theirs - sum) > SAME * Math.max(1, Math.abs(sum)))
                throw new IllegalStateException(which.words + " answers " + theirs + ", Sarnik " + sum);
        }
    }

    @Override
    public void close() throws SQLException {
        execute(postgres, "DROP SCHEMA IF EXISTS bench CASCADE");
        postgres.close();
        duck.close();
    }

    /** The rows as CSV, made while they are read. */
    private static final class Lines extends InputStream {

        private final RefillTable refills;
        private final List<List<String>> quoted = new ArrayList<>();
        private int row;
        private byte[] line = {};
        private int at;

        Lines(RefillTable refills, List<List<String>> words) {
            this.refills = refills;
            for (List<String> list : words)
                quoted.add(list.stream()
                        .map(w -> '"' + w.replace("\"", "\"\"") + '"')
                        .collect(Collectors.toList()));
        }

        @Override
        public int read() {
            if (at == line.length && !next()) return -1;
            return line[at++] & 0xFF;
        }

        @Override
        public int read(byte[] into, int from, int length) {
            if (at == line.length && !next()) return -1;
            int count = Math.min(length, line.length - at);
            System.arraycopy(line, at, into, from, count);
            at += count;
            return count;
        }

        private boolean next() {
            if (row == refills.table().rows()) return false;
            line = (quoted.get(0).get(refills.towns()[row])
                            + ','
                            + quoted.get(1).get(refills.kiosks()[row])
                            + ','
                            + quoted.get(2).get(refills.products()[row])
                            + ','
                            + LocalDate.ofEpochDay(refills.days()[row])
                            + ','
                            + refills.litres()[row]
                            + ','
                            + refills.takings()[row]
                            + ','
                            + quoted.get(3).get(refills.states()[row])
                            + '\n')
                    .getBytes(StandardCharsets.UTF_8);
            row++;
            at = 0;
            return true;
        }
    }
}
