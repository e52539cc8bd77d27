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
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import sarnik.app.web.RefusedException;

/**
 * Rows of databases elsewhere, written into a file that is read as any other. Which rows they are is said by an address:
 * {@code database:NAME/} and behind it a table, a view or a query.
 */
@Component
public class DatabaseRows {

    private static final String SCHEME = "database:";
    private static final Pattern TABLE = Pattern.compile(
            "(?:\"(?:[^\"]|\"\")+\"|[\\p{L}_][\\p{L}\\p{N}_$]*)(?:\\.(?:\"(?:[^\"]|\"\")+\"|[\\p{L}_][\\p{L}\\p{N}_$]*))?");
    private static final Pattern QUERY = Pattern.compile("(?is)\\s*(select|with|values|table)\\b.*");
    private static final int AT_ONCE = 5000;
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm:ss");

    private final Databases databases;

    DatabaseRows(Databases databases) {
        this.databases = databases;
    }

    /** Whether an address is one of a database. */
    public static boolean isOne(String address) {
        return address != null && address.strip().startsWith(SCHEME);
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
     * Writes the rows as CSV (RFC 4180): names of columns first, numbers with a point, dates and times as in ISO 8601 and
     * moments in UTC.
     *
     * @return what the file may be called
     * @throws RefusedException when it cannot be asked, or there are more rows than the steward lets be taken
     */
    public String fetch(String address, Path file) {
        Asked asked = asked(address);
        try (Connection connection = databases.open(asked.database);
                Statement statement = connection.createStatement()) {
            statement.setFetchSize(AT_ONCE);
            long most = asked.database.getMostRows();
            try (ResultSet rows = statement.executeQuery("SELECT * FROM %s LIMIT %d".formatted(asked.sql, most + 1));
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
