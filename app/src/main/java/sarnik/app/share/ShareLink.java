package sarnik.app.share;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import sarnik.app.dashboard.Takes;

/** A link by which a published dashboard is shown to somebody. */
@Entity
@Table(name = "share_links")
class ShareLink {

    /** To whom a link opens. */
    enum OpensTo {
        ANYONE("anyone who has it"),
        SIGNED_IN("anyone who can sign in"),
        NAMED("those named");

        private final String words;

        OpensTo(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long dashboardId;
    private String secret;
    private String name;

    @Enumerated(EnumType.STRING)
    private OpensTo opensTo;

    @JdbcTypeCode(SqlTypes.JSON)
    private String named;

    private Instant endsAt;
    private Instant endedAt;
    private String password;

    @JdbcTypeCode(SqlTypes.JSON)
    private String bound;

    private boolean takesRows;
    private boolean takesPictures;
    private boolean takesPrints;

    @JdbcTypeCode(SqlTypes.JSON)
    private String sites;

    private long madeBy;
    private Instant madeAt;
    private Instant lastUsedAt;

    protected ShareLink() {}

    ShareLink(long dashboardId, String secret, long madeBy, Instant madeAt) {
        this.dashboardId = dashboardId;
        this.secret = secret;
        this.madeBy = madeBy;
        this.madeAt = madeAt;
    }

    /**
     * @param named and bound and sites as JSON
     * @param password hashed; null for none
     */
    void say(String name, OpensTo opensTo, String named, Instant endsAt, String bound, Takes takes, String sites) {
        this.name = name;
        this.opensTo = opensTo;
        this.named = named;
        this.endsAt = endsAt;
        this.bound = bound;
        this.takesRows = takes.rows();
        this.takesPictures = takes.pictures();
        this.takesPrints = takes.prints();
        this.sites = sites;
    }

    /** @param hashed null asks for none */
    void lock(String hashed) {
        password = hashed;
    }

    void end(Instant at) {
        endedAt = at;
    }

    void used(Instant at) {
        lastUsedAt = at;
    }

    /** Whether it opens at a moment. */
    boolean isOpen(Instant at) {
        return endedAt == null && (endsAt == null || at.isBefore(endsAt));
    }

    Long getId() {
        return id;
    }

    long getDashboardId() {
        return dashboardId;
    }

    String getSecret() {
        return secret;
    }

    String getName() {
        return name;
    }

    OpensTo getOpensTo() {
        return opensTo;
    }

    String getNamed() {
        return named;
    }

    Instant getEndsAt() {
        return endsAt;
    }

    Instant getEndedAt() {
        return endedAt;
    }

    String getPassword() {
        return password;
    }

    String getBound() {
        return bound;
    }

    Takes takes() {
        return new Takes(takesRows, takesPictures, takesPrints);
    }

    String getSites() {
        return sites;
    }

    long getMadeBy() {
        return madeBy;
    }

    Instant getMadeAt() {
        return madeAt;
    }

    Instant getLastUsedAt() {
        return lastUsedAt;
    }
}
