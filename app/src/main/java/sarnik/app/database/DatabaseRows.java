package sarnik.app.database;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import sarnik.app.web.RefusedException;
import sarnik.formula.SqlDialect;
import sarnik.sql.SourceColumn;

/**
 * Rows of databases elsewhere, written into a file that is read as any other. Which rows they are is said by an
 * address: {@code database:NAME/} and behind it a table, a view or a query.
 */
@Component
public class DatabaseRows {

    private static final String SCHEME = "database:";

    /** Begins the address of rows that are not brought in but stay where they are. */
    private static final String STAYING = "stays:";

    /** Rows that are shown of those that stay. */
    private static final int SHOWN = 5000;

    private static final Pattern TABLE = Pattern.compile(
            "(?:\"(?:[^\"]|\"\")+\"|[\\p{L}_][\\p{L}\\p{N}_$]*)(?:\\.(?:\"(?:[^\"]|\"\")+\"|[\\p{L}_][\\p{L}\\p{N}_$]*)){0,2}");
    private static final Pattern QUERY = Pattern.compile("(?is)\\s*(select|with|values|table)\\b.*");
    private static final int AT_ONCE = 5000;

    /** Whole numbers of more digits are no whole numbers here. */
    private static final int MOST_DIGITS = 18;

    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm:ss");

    private final Databases databases;

    DatabaseRows(Databases databases) {
        this.databases = databases;
    }

    /** Whether an address is one of a database. */
    public static boolean isOne(String address) {
        return address != null && address.strip().startsWith(SCHEME);
    }

    /** Whether an address is one of rows that stay in a database. */
    public static boolean stays(String address) {
        return address != null && address.strip().startsWith(STAYING);
    }

    /**
     * Rows that stay in a database.
     *
     * @param database its number
     * @param of the table, view or query
     */
    public record StayingAt(long database, String of) {}

    /**
     * What an address of rows that stay asks for.
     *
     * @throws RefusedException when there is no such database, or what stands behind is no table and no query
     */
    public StayingAt staying(String address) {
        String rest = address.strip().substring(STAYING.length());
        Asked asked = asked(SCHEME + rest);
        return new StayingAt(
                asked.database.getId(), rest.substring(rest.indexOf('/') + 1).strip());
    }

    /** Rows that stay, as what stands behind FROM. */
    public String relation(StayingAt at) {
        return asked(databases.needed(at.database()), at.of()).sql;
    }

    /**
     * What an address asks for.
     *
     * @param sql the rows, as what stands behind FROM
     * @param name what a file of them may be called
     */
    private record Asked(Elsewhere database, String sql, String name) {}

    private Asked asked(String address) {
        String rest = address.strip().substring(SCHEME.length());
        int slash = rest.indexOf('/');
        if (slash < 1)
            throw new RefusedException(
                    "Write the database and behind a slash the table, such as database:Accounts/public.sales.");
        return asked(databases.named(rest.substring(0, slash).strip()), rest.substring(slash + 1));
    }

    private static Asked asked(Elsewhere database, String what) {
        String clean = what == null ? "" : what.strip();
        // The last one only ends the query; any other begins a second.
        if (clean.endsWith(";")) clean = clean.substring(0, clean.length() - 1).strip();
        if (clean.indexOf(';') >= 0) throw new RefusedException("Write one query, without semicolons.");
        if (TABLE.matcher(clean).matches())
            return new Asked(
                    database, clean, clean.substring(clean.lastIndexOf('.') + 1).replace("\"", ""));
        if (!QUERY.matcher(clean).matches())
            throw new RefusedException(
                    "Write a table, such as public.sales, or a query that begins with SELECT, WITH or VALUES.");
        // On a line of its own, so that a comment at the end leaves the bracket alone.
        return new Asked(database, "(" + clean + "\n) rows_elsewhere", "query");
    }

    /**
     * Checks that an address may be asked.
     *
     * @throws RefusedException when there is no such database, or what stands behind is no table and no query
     */
    public void check(String address) {
        asked(address);
    }

    /**
     * How many rows there are.
     *
     * @param what a table, a view or a query
     * @throws RefusedException when it cannot be asked; the message says why
     */
    long count(long database, String what) {
        Asked asked = asked(databases.needed(database), what);
        try (Connection connection = databases.open(asked.database);
                Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery("SELECT count(*) FROM " + asked.sql)) {
            found.next();
            return found.getLong(1);
        } catch (SQLException failed) {
            throw Databases.refused(asked.database, failed);
        }
    }

    /**
     * Writes the rows as CSV (RFC 4180): names of columns first, numbers with a point, dates and times as in ISO 8601
     * and moments in UTC.
     *
     * @return what the file may be called
     * @throws RefusedException when it cannot be asked, or there are more rows than the steward lets be taken
     */
    public String fetch(String address, Path file) {
        Asked asked = asked(address);
        return fetch(asked, asked.database.getMostRows(), asked.database.getMostRows() + 1, file);
    }

    /** Writes some of the rows that stay, as {@link #fetch} does. */
    public String some(StayingAt at, Path file) {
        return fetch(asked(databases.needed(at.database()), at.of()), SHOWN, SHOWN, file);
    }

    private String fetch(Asked asked, long most, long wanted, Path file) {
        try (Connection connection = databases.open(asked.database);
                Statement statement = connection.createStatement()) {
            statement.setFetchSize(AT_ONCE);
            statement.setQueryTimeout(asked.database.getSeconds());
            String columns = asked.database.getKind() == Elsewhere.Kind.TRINO ? asIs(statement, asked) : "*";
            try (ResultSet rows =
                            statement.executeQuery("SELECT %s FROM %s LIMIT %d".formatted(columns, asked.sql, wanted));
                    BufferedWriter out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
                write(rows, out, asked.database, most);
            }
            return asked.name + ".csv";
        } catch (SQLException failed) {
            throw Databases.refused(asked.database, failed);
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
    }

    /** All columns, those of kinds that files have not as texts, moments in UTC. */
    private static String asIs(Statement statement, Asked asked) throws SQLException {
        SqlDialect dialect = asked.database.getKind().dialect();
        return columns(statement, asked).stream()
                .map(c -> c.exact(dialect) + " AS " + dialect.quoted(c.at()))
                .collect(Collectors.joining(", "));
    }

    /**
     * The columns of rows that stay, each taken for what it holds there.
     *
     * @throws RefusedException when they cannot be asked; the message says why
     */
    public List<SourceColumn> columns(StayingAt at) {
        Asked asked = asked(databases.needed(at.database()), at.of());
        try (Connection connection = databases.open(asked.database);
                Statement statement = connection.createStatement()) {
            statement.setQueryTimeout(asked.database.getSeconds());
            return columns(statement, asked);
        } catch (SQLException failed) {
            throw Databases.refused(asked.database, failed);
        }
    }

    private static List<SourceColumn> columns(Statement statement, Asked asked) throws SQLException {
        try (ResultSet none = statement.executeQuery("SELECT * FROM %s LIMIT 0".formatted(asked.sql))) {
            ResultSetMetaData said = none.getMetaData();
            List<SourceColumn> columns = new ArrayList<>();
            for (int c = 1; c <= said.getColumnCount(); c++) {
                SourceColumn.Held held = held(said, c);
                if (held != null)
                    columns.add(new SourceColumn(said.getColumnLabel(c), said.getColumnLabel(c), held, held.usual()));
            }
            return columns;
        }
    }

    /** What a column holds; null for what is no value that people read, such as pictures. */
    private static SourceColumn.Held held(ResultSetMetaData said, int column) throws SQLException {
        String name = said.getColumnTypeName(column).toLowerCase(Locale.ROOT);
        return switch (said.getColumnType(column)) {
            case Types.CHAR, Types.VARCHAR, Types.LONGVARCHAR, Types.NCHAR, Types.NVARCHAR -> SourceColumn.Held.TEXT;
            case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT -> SourceColumn.Held.WHOLE;
            case Types.NUMERIC, Types.DECIMAL ->
                said.getScale(column) == 0 && said.getPrecision(column) > 0 && said.getPrecision(column) <= MOST_DIGITS
                        ? SourceColumn.Held.WHOLE
                        : SourceColumn.Held.EXACT;
            case Types.REAL -> SourceColumn.Held.SHORT_FLOAT;
            case Types.FLOAT, Types.DOUBLE -> SourceColumn.Held.FLOAT;
            case Types.DATE -> SourceColumn.Held.DATE;
            case Types.TIMESTAMP_WITH_TIMEZONE -> SourceColumn.Held.MOMENT;
            case Types.TIMESTAMP -> name.equals("timestamptz") ? SourceColumn.Held.MOMENT : SourceColumn.Held.TIME;
            case Types.BIT, Types.BOOLEAN ->
                name.startsWith("bool") ? SourceColumn.Held.YES_NO : SourceColumn.Held.OTHER;
            case Types.BINARY, Types.VARBINARY, Types.LONGVARBINARY, Types.BLOB -> null;
            default -> SourceColumn.Held.OTHER;
        };
    }

    private static void write(ResultSet rows, BufferedWriter out, Elsewhere database, long most)
            throws SQLException, IOException {
        ResultSetMetaData columns = rows.getMetaData();
        for (int c = 1; c <= columns.getColumnCount(); c++) {
            if (c > 1) out.write(',');
            out.write(quoted(columns.getColumnLabel(c)));
        }
        out.write("\r\n");
        for (long count = 0; rows.next(); count++) {
            if (count == most)
                throw new RefusedException(
                        ("There are more than %,d rows, the most that are taken from “%s”. Ask for fewer, or let a "
                                        + "steward raise it.")
                                .formatted(most, database.getName()));
            for (int c = 1; c <= columns.getColumnCount(); c++) {
                if (c > 1) out.write(',');
                String text = text(rows, c, columns.getColumnType(c));
                if (text != null) out.write(quoted(text));
            }
            out.write("\r\n");
        }
    }

    private static String text(ResultSet rows, int column, int type) throws SQLException {
        switch (type) {
            case Types.BIT, Types.BOOLEAN -> {
                boolean is = rows.getBoolean(column);
                return rows.wasNull() ? null : is ? "yes" : "no";
            }
            case Types.TIMESTAMP_WITH_TIMEZONE -> {
                OffsetDateTime at = rows.getObject(column, OffsetDateTime.class);
                return at == null ? null : MOMENT.format(at.withOffsetSameInstant(ZoneOffset.UTC));
            }
            case Types.NUMERIC, Types.DECIMAL -> {
                String text = rows.getString(column);
                if (text == null || text.equals("NaN") || text.endsWith("Infinity")) return null;
                return rows.getBigDecimal(column).toPlainString();
            }
            case Types.REAL, Types.FLOAT, Types.DOUBLE -> {
                double value = rows.getDouble(column);
                return rows.wasNull() || !Double.isFinite(value)
                        ? null
                        : new java.math.BigDecimal(rows.getString(column)).toPlainString();
            }
            default -> {
                String text = rows.getString(column);
                // PostgreSQL writes a moment with a space, and reports those with a zone as those without.
                if (text != null
                        && type == Types.TIMESTAMP
                        && rows.getMetaData().getColumnTypeName(column).equals("timestamptz"))
                    return MOMENT.format(
                            rows.getObject(column, OffsetDateTime.class).withOffsetSameInstant(ZoneOffset.UTC));
                return text != null && type == Types.TIMESTAMP ? text.replace(' ', 'T') : text;
            }
        }
    }

    private static String quoted(String text) {
        if (text.isEmpty()) return "\"\"";
        boolean plain = text.chars().noneMatch(c -> c == ',' || c == '"' || c == '\n' || c == '\r')
                && !Character.isWhitespace(text.charAt(0))
                && !Character.isWhitespace(text.charAt(text.length() - 1));
        return plain ? text : '"' + text.replace("\"", "\"\"") + '"';
    }
}
