package sarnik.app.database;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Properties;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.SignedIn;
import sarnik.app.secret.Secrets;
import sarnik.app.web.RefusedException;

/**
 * Databases that people already have: a steward says where they are; whoever may bring tables in can ask them. They are
 * only read from.
 */
@Service
public class Databases {

    private static final int LONGEST_SECONDS = 3600;
    private static final long MOST_ROWS = 100_000_000;
    private static final int MOST_TABLES = 2000;
    private static final int CONNECT_SECONDS = 10;

    /** How PostgreSQL says that a question took too long or was given up. */
    private static final String CANCELLED = "57014";

    private final ElsewhereRepository known;
    private final Secrets secrets;
    private final TransactionTemplate transaction;

    Databases(ElsewhereRepository known, Secrets secrets, TransactionTemplate transaction) {
        this.known = known;
        this.secrets = secrets;
        this.transaction = transaction;
    }

    /**
     * What a steward says of a database.
     *
     * @param catalog the name that the database itself has; of Trino a catalogue and behind a slash a schema
     * @param password empty where none is needed
     * @param encrypted whether it is asked through TLS only, and its certificate is checked
     * @param seconds after so long a question is given up
     * @param mostRows so many rows are taken at most
     */
    record Wanted(
            String name,
            Elsewhere.Kind kind,
            String host,
            int port,
            String catalog,
            String username,
            String password,
            boolean encrypted,
            int seconds,
            long mostRows) {

        Wanted {
            name = name == null ? "" : name.strip();
            kind = kind == null ? Elsewhere.Kind.POSTGRESQL : kind;
            host = host == null ? "" : host.strip();
            catalog = catalog == null ? "" : catalog.strip();
            username = username == null ? "" : username.strip();
            if (!name.matches("[\\p{L}\\p{N} ._-]{1,80}"))
                throw new RefusedException("Call it by letters, digits, spaces, dots, hyphens; up to 80 of them.");
            if (!host.matches("[A-Za-z0-9._:\\[\\]-]{1,200}"))
                throw new RefusedException("Write the host's name or number, such as db.example.org.");
            if (port < 1 || port > 65_535) throw new RefusedException("A port is a number from 1 to 65535.");
            if (catalog.isEmpty() || catalog.length() > 200 || username.isEmpty() || username.length() > 200)
                throw new RefusedException(
                        "Write the name of the database and of the user, up to 200 characters each.");
            if (seconds < 1 || seconds > LONGEST_SECONDS)
                throw new RefusedException("A question is given up after 1 to %,d seconds.".formatted(LONGEST_SECONDS));
            if (mostRows < 1 || mostRows > MOST_ROWS)
                throw new RefusedException("At most 1 to %,d rows can be taken.".formatted(MOST_ROWS));
        }
    }

    public List<Elsewhere> all() {
        return known.findAllByOrderByName();
    }

    /** @throws RefusedException when there is none of this name */
    Elsewhere named(String name) {
        return known.findByName(name)
                .orElseThrow(() -> new RefusedException(
                        "There is no database called “%s” any more. A steward says which there are.".formatted(name)));
    }

    /** @throws RefusedException when there is none of this number */
    Elsewhere needed(long id) {
        return known.findById(id)
                .orElseThrow(() ->
                        new RefusedException("This database is not known any more. A steward says which there are."));
    }

    /**
     * Tries a database and keeps it.
     *
     * @return what is to be said about it; empty for nothing
     * @throws RefusedException when it cannot be asked, or its name is taken; the message says why
     */
    String add(Wanted wanted, SignedIn person) {
        if (known.findByName(wanted.name()).isPresent())
            throw new RefusedException("There is a database called “%s” already.".formatted(wanted.name()));
        Elsewhere made = new Elsewhere(
                wanted,
                wanted.password() == null || wanted.password().isEmpty() ? null : secrets.seal(wanted.password()),
                person.id(),
                Clock.systemUTC().instant());
        String said = tried(made);
        transaction.executeWithoutResult(t -> known.saveAndFlush(made));
        return said;
    }

    /** @throws RefusedException when rows of datasets stay in it; the message names them */
    void remove(long id) {
        List<String> staying = known.staying(id);
        if (!staying.isEmpty())
            throw new RefusedException(
                    "Rows of %s stay in “%s”. Take these datasets away first, or bring their rows in."
                            .formatted(
                                    staying.stream()
                                            .limit(5)
                                            .map(n -> "“" + n + "”")
                                            .collect(Collectors.joining(", ")),
                                    needed(id).getName()));
        transaction.executeWithoutResult(t -> known.deleteById(id));
    }

    /** Whether it answers, and whether its user may do more than read. */
    String tried(Elsewhere database) {
        if (database.getKind() == Elsewhere.Kind.TRINO) return triedTrino(database);
        try (Connection connection = open(database);
                Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery("""
                        SELECT (SELECT rolsuper FROM pg_roles WHERE rolname = current_user),
                          EXISTS (SELECT 1 FROM information_schema.role_table_grants
                            WHERE privilege_type IN ('INSERT', 'UPDATE', 'DELETE', 'TRUNCATE')
                              AND table_schema NOT IN ('pg_catalog', 'information_schema'))""")) {
            found.next();
            return found.getBoolean(1) || found.getBoolean(2)
                    ? "It answers. Its user may change tables: Sarnik only reads, but a user that can do no more is safer."
                    : "It answers, and its user can only read.";
        } catch (SQLException failed) {
            throw refused(database, failed);
        }
    }

    private String triedTrino(Elsewhere database) {
        try (Connection connection = open(database);
                Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery("SELECT 1")) {
            found.next();
            return "It answers. Sarnik only reads; what else its user may do is a matter of Trino’s own rules.";
        } catch (SQLException failed) {
            throw refused(database, failed);
        }
    }

    /** A connection that can only read, on which a question is given up after the time the steward has set. */
    Connection open(Elsewhere database) throws SQLException {
        Properties how = new Properties();
        how.setProperty("user", database.getUsername());
        if (database.getSealed() != null)
            how.setProperty(
                    "password",
                    secrets.open(database.getSealed())
                            .orElseThrow(() -> new RefusedException(
                                    "The password of “%s” was sealed under another key. A steward has to write it again."
                                            .formatted(database.getName()))));
        if (database.getKind() == Elsewhere.Kind.TRINO) return openTrino(database, how);
        how.setProperty("sslmode", database.isEncrypted() ? "verify-full" : "prefer");
        if (database.isEncrypted()) how.setProperty("sslfactory", "org.postgresql.ssl.DefaultJavaSSLFactory");
        how.setProperty("connectTimeout", String.valueOf(CONNECT_SECONDS));
        how.setProperty("socketTimeout", String.valueOf(database.getSeconds() + CONNECT_SECONDS));
        how.setProperty("ApplicationName", "Sarnik");
        how.setProperty(
                "options",
                ("-c default_transaction_read_only=on -c statement_timeout=%ds -c standard_conforming_strings=on "
                                + "-c enable_partitionwise_aggregate=on -c enable_partitionwise_join=on")
                        .formatted(database.getSeconds()));
        Connection connection = DriverManager.getConnection(
                "jdbc:postgresql://%s:%d/%s"
                        .formatted(database.getHost(), database.getPort(), encoded(database.getCatalog())),
                how);
        connection.setReadOnly(true);
        connection.setAutoCommit(false);
        return connection;
    }

    /** Trino speaks over HTTP, so that its connections hold nothing; passwords go through TLS only. */
    private static Connection openTrino(Elsewhere database, Properties how) throws SQLException {
        how.setProperty("SSL", String.valueOf(database.isEncrypted()));
        how.setProperty("source", "Sarnik");
        return DriverManager.getConnection(
                "jdbc:trino://%s:%d/%s"
                        .formatted(
                                database.getHost(),
                                database.getPort(),
                                Arrays.stream(database.getCatalog().split("/"))
                                        .map(Databases::encoded)
                                        .collect(Collectors.joining("/"))),
                how);
    }

    private static String encoded(String part) {
        return URLEncoder.encode(part, StandardCharsets.UTF_8);
    }

    /** Why a database could not be asked, in words that do not give away what only a steward may know. */
    static RefusedException refused(Elsewhere database, SQLException failed) {
        String state = failed.getSQLState() == null ? "" : failed.getSQLState();
        if (state.equals(CANCELLED))
            return new RefusedException(("“%s” took longer than %,d seconds and was given up. Ask for less, or let a "
                            + "steward give it more time.")
                    .formatted(database.getName(), database.getSeconds()));
        if (state.startsWith("08"))
            return new RefusedException("“%s” does not answer just now.".formatted(database.getName()));
        if (state.startsWith("28"))
            return new RefusedException(
                    "“%s” does not let its user in. A steward has to look at it.".formatted(database.getName()));
        String first = failed.getMessage() == null
                ? ""
                : failed.getMessage().lines().findFirst().orElse("");
        return new RefusedException("“%s” says: %s".formatted(database.getName(), first));
    }

    /**
     * A table or view that can be brought in.
     *
     * @param name with its schema
     * @param kind table or view
     * @param rows about how many rows; -1 where that is not known
     * @param bytes how large it is there; 0 of views
     */
    public record TableElsewhere(String name, String kind, long rows, long bytes) {}

    /** The tables and views that its user may read. */
    List<TableElsewhere> tables(Elsewhere database) {
        if (database.getKind() == Elsewhere.Kind.TRINO) return tablesOfTrino(database);
        List<TableElsewhere> tables = new ArrayList<>();
        try (Connection connection = open(database);
                Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery("""
                        SELECT quote_ident(n.nspname) || '.' || quote_ident(c.relname), c.relkind,
                          CASE WHEN c.relkind = 'p' THEN (SELECT coalesce(sum(greatest(0, l.reltuples)), 0)
                              FROM pg_partition_tree(c.oid) t JOIN pg_class l ON l.oid = t.relid WHERE t.isleaf)
                            ELSE c.reltuples END,
                          CASE WHEN c.relkind = 'v' THEN 0 ELSE pg_total_relation_size(c.oid) END
                        FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
                        WHERE c.relkind IN ('r', 'p', 'v', 'm', 'f') AND NOT c.relispartition
                          AND n.nspname NOT IN ('pg_catalog', 'information_schema') AND n.nspname NOT LIKE 'pg\\_%%'
                          AND has_schema_privilege(n.oid, 'USAGE') AND has_table_privilege(c.oid, 'SELECT')
                        ORDER BY 1 LIMIT %d""".formatted(MOST_TABLES))) {
            while (found.next()) {
                String kind = found.getString(2);
                boolean isView = kind.equals("v");
                tables.add(new TableElsewhere(
                        found.getString(1),
                        isView || kind.equals("m") ? "view" : "table",
                        isView ? -1 : Math.round(found.getDouble(3)),
                        found.getLong(4)));
            }
            return tables;
        } catch (SQLException failed) {
            throw refused(database, failed);
        }
    }

    private List<TableElsewhere> tablesOfTrino(Elsewhere database) {
        List<TableElsewhere> tables = new ArrayList<>();
        try (Connection connection = open(database);
                Statement statement = connection.createStatement()) {
            statement.setQueryTimeout(database.getSeconds());
            try (ResultSet found = statement.executeQuery("""
                    SELECT table_schema, table_name, table_type FROM information_schema.tables
                    WHERE table_schema <> 'information_schema' ORDER BY 1, 2 LIMIT %d""".formatted(MOST_TABLES))) {
                while (found.next())
                    tables.add(new TableElsewhere(
                            identifier(found.getString(1)) + "." + identifier(found.getString(2)),
                            "VIEW".equals(found.getString(3)) ? "view" : "table",
                            -1,
                            0));
            }
            return tables;
        } catch (SQLException failed) {
            throw refused(database, failed);
        }
    }

    private static String identifier(String name) {
        return name.matches("[a-z_][a-z0-9_]*") ? name : "\"" + name.replace("\"", "\"\"") + "\"";
    }
}
