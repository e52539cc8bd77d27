package sarnik.engines;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Properties;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import sarnik.sql.SqlRunner;
import sarnik.table.Column;
import sarnik.table.Table;

/** Real PostgreSQL servers on loopback, started for the tests of this module. */
final class Servers implements AutoCloseable {

    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();

    private final Path directory;
    private final int port;
    private final String password;

    private Servers(Path directory, int port, String password) {
        this.directory = directory;
        this.port = port;
        this.password = password;
    }

    static Servers start(String name) throws IOException, InterruptedException {
        // Two processes of tests run at once, each with servers of its own.
        Path directory =
                Path.of(System.getProperty("sarnik.tests", "target"), name).toAbsolutePath();
        int port = Integer.parseInt(postgres("start", directory, "--fast"));
        return new Servers(
                directory, port, Files.readString(directory.resolve("password")).strip());
    }

    private static String postgres(String command, Path directory, String... more)
            throws IOException, InterruptedException {
        List<String> words = new java.util.ArrayList<>(
                List.of("bash", ROOT.resolve("tools/postgres.sh").toString(), command, directory.toString()));
        words.addAll(List.of(more));
        Process process = new ProcessBuilder(words)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        String said = new String(process.getInputStream().readAllBytes()).strip();
        if (process.waitFor() != 0) throw new IOException("tools/postgres.sh " + command + " failed");
        return said;
    }

    int port() {
        return port;
    }

    String password() {
        return password;
    }

    Connection open() throws SQLException {
        Properties how = new Properties();
        how.setProperty("user", "sarnik");
        how.setProperty("password", password);
        return DriverManager.getConnection("jdbc:postgresql://127.0.0.1:" + port + "/sarnik", how);
    }

    void run(String... statements) throws SQLException {
        try (Connection connection = open();
                Statement statement = connection.createStatement()) {
            for (String sql : statements) statement.execute(sql);
        }
    }

    SqlRunner runner() {
        return runner(this::open);
    }

    /** One that asks four statements at once. */
    static SqlRunner runner(JdbcRunner.Connections connections) {
        ExecutorService threads = Executors.newFixedThreadPool(4, work -> {
            Thread thread = new Thread(work, "ask");
            thread.setDaemon(true);
            return thread;
        });
        return new JdbcRunner(connections, threads, 60, JdbcRunner.Waiting.PATIENT, SQLException::getMessage);
    }

    /** The rows of a table as what stands behind VALUES. */
    static String values(Table table, int from, int to) {
        StringBuilder sql = new StringBuilder();
        for (int row = from; row < to; row++) {
            sql.append(row > from ? ", (" : "(");
            for (int c = 0; c < Generated.NAMES.size(); c++) {
                Column column = table.column(Generated.NAMES.get(c));
                sql.append(c > 0 ? ", " : "").append(value(column, row));
            }
            sql.append(')');
        }
        return sql.toString();
    }

    private static String value(Column column, int row) {
        String text = column.text(row);
        if (text == null) return "NULL";
        return switch (column.type()) {
            case TEXT -> "'" + text.replace("'", "''") + "'";
            case WHOLE, DECIMAL -> text.startsWith("-") ? "(" + text + ")" : text;
            case DATE -> "DATE '" + text + "'";
            case TIME -> "TIMESTAMP '" + text.replace('T', ' ') + (text.length() == 16 ? ":00'" : "'");
            case YES_NO -> text.equals("yes") ? "TRUE" : "FALSE";
        };
    }

    @Override
    public void close() throws IOException, InterruptedException {
        postgres("stop", directory);
    }
}
