package sarnik.app.outside;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import sarnik.app.web.DayWords;

/** A host inside that may be asked though it lies inside; a steward's word. */
@Entity
@Table(name = "allowed_hosts")
public class AllowedHost {

    /** The host's name and port, such as {@code 127.0.0.1:8191}. */
    @Id
    private String host;

    private long allowedBy;
    private Instant allowedAt;

    protected AllowedHost() {}

    AllowedHost(String host, long allowedBy, Instant allowedAt) {
        this.host = host;
        this.allowedBy = allowedBy;
        this.allowedAt = allowedAt;
    }

    public String getHost() {
        return host;
    }

    /** Since when, in words. */
    public String day() {
        return DayWords.of(allowedAt);
    }
}
