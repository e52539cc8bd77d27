package sarnik.app.database;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import sarnik.app.web.DayWords;
import sarnik.formula.PostgresDialect;
import sarnik.formula.SqlDialect;
import sarnik.formula.TrinoDialect;

/** A database that people already have, and how it is asked; a steward's word. */
@Entity
@Table(name = "databases_elsewhere")
public class Elsewhere {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    @Enumerated(EnumType.STRING)
    private Kind kind;

    private String host;
    private int port;
    private String catalog;
    private String username;

    /** The password, sealed; null where none is needed. */
    private String sealed;

    /** Whether it is asked through TLS only, and its certificate is checked. */
    private boolean encrypted;

    /** After so long a question is given up. */
    private int seconds;

    /** So many rows are taken at most. */
    private long mostRows;

    private long madeBy;
    private Instant madeAt;

    /** What a database is. */
    public enum Kind {
        POSTGRESQL("PostgreSQL", PostgresDialect.INSTANCE),
        TRINO("Trino", TrinoDialect.INSTANCE);

        private final String words;
        private final SqlDialect dialect;

        Kind(String words, SqlDialect dialect) {
            this.words = words;
            this.dialect = dialect;
        }

        public String words() {
            return words;
        }

        /** How it writes SQL. */
        public SqlDialect dialect() {
            return dialect;
        }
    }

    protected Elsewhere() {}

    Elsewhere(Databases.Wanted wanted, String sealed, long madeBy, Instant madeAt) {
        this.name = wanted.name();
        this.kind = wanted.kind();
        this.host = wanted.host();
        this.port = wanted.port();
        this.catalog = wanted.catalog();
        this.username = wanted.username();
        this.sealed = sealed;
        this.encrypted = wanted.encrypted();
        this.seconds = wanted.seconds();
        this.mostRows = wanted.mostRows();
        this.madeBy = madeBy;
        this.madeAt = madeAt;
    }

    public Long getId() {
        return id;
    }

    public String getName() {
        return name;
    }

    public Kind getKind() {
        return kind;
    }

    String getHost() {
        return host;
    }

    int getPort() {
        return port;
    }

    String getCatalog() {
        return catalog;
    }

    String getSealed() {
        return sealed;
    }

    boolean isEncrypted() {
        return encrypted;
    }

    public String getUsername() {
        return username;
    }

    public int getSeconds() {
        return seconds;
    }

    public long getMostRows() {
        return mostRows;
    }

    /** Where it is, in words. */
    public String where() {
        return "%s, %s:%d/%s%s".formatted(kind.words(), host, port, catalog, encrypted ? ", encrypted" : "");
    }

    /** Since when, in words. */
    public String day() {
        return DayWords.of(madeAt);
    }
}
