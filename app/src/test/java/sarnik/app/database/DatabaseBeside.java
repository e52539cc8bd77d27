package sarnik.app.database;

import com.zaxxer.hikari.HikariDataSource;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Collectors;
import javax.sql.DataSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;

/** A database of others, on the server on which Sarnik's own is, with a user of it who may read what is granted. */
final class DatabaseBeside {

    private final String name;
    private final String reader;
    private final String readersPassword;
    private final String own;
    private final String user;
    private final String password;

    DatabaseBeside(RunningSarnik sarnik, String name, String reader, String readersPassword) throws SQLException {
        this.name = name;
        this.reader = reader;
        this.readersPassword = readersPassword;
        HikariDataSource source = sarnik.bean(DataSource.class).unwrap(HikariDataSource.class);
        own = source.getJdbcUrl();
        user = source.getUsername();
        password = source.getPassword();
    }

    /** Makes it anew, empty. */
    void create() throws SQLException {
        drop();
        onServer("CREATE DATABASE " + name);
        onServer("CREATE ROLE " + reader + " LOGIN PASSWORD '" + readersPassword + "'");
    }

    void drop() throws SQLException {
        onServer("DROP DATABASE IF EXISTS " + name + " WITH (FORCE)");
        onServer("DROP ROLE IF EXISTS " + reader);
    }

    /** Its owner, who may do anything: Sarnik's own user. */
    Map<String, String> owner() {
        return Map.of("username", user, "password", password == null ? "" : password);
    }

    Connection connect() throws SQLException {
        return DriverManager.getConnection(own.replaceFirst("/[^/]*$", "/" + name), user, password);
    }

    Connection connectOwn() throws SQLException {
        return DriverManager.getConnection(own, user, password);
    }

    void run(String sql) throws SQLException {
        try (Connection connection = connect();
                Statement statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    void onServer(String sql) throws SQLException {
        try (Connection connection = connectOwn();
                Statement statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    /**
     * Names it in Sarnik, as a steward does in the form.
     * @param said fields of the form, beside or instead of its own
     */
    HttpResponse<String> name(SarnikClient steward, Map<String, String> said) throws Exception {
        URI at = URI.create(own.substring("jdbc:".length()));
        Map<String, String> form = new LinkedHashMap<>(Map.of(
                "host", at.getHost(),
                "port", String.valueOf(at.getPort()),
                "catalog", name,
                "username", reader,
                "password", readersPassword));
        form.putAll(said);
        return form(steward, "/databases", form);
    }

    static HttpResponse<String> form(SarnikClient person, String address, Map<String, String> fields) throws Exception {
        return person.send(
                "POST",
                address,
                "application/x-www-form-urlencoded",
                fields.entrySet().stream()
                        .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
                        .collect(Collectors.joining("&")));
    }
}
