package sarnik.app.dashboard;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** What was published of a dashboard at one moment. It never changes. */
@Entity
@Table(name = "editions")
class StoredEdition {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long dashboardId;
    private int number;
    private long revision;

    @JdbcTypeCode(SqlTypes.JSON)
    private String document;

    /** {@link RestsOn} as JSON. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String restsOn;

    private String words;
    private long publishedBy;
    private Instant publishedAt;

    protected StoredEdition() {}

    StoredEdition(StoredDashboard of, int number, String restsOn, String words, long publishedBy, Instant publishedAt) {
        this.dashboardId = of.getId();
        this.number = number;
        this.revision = of.getRevision();
        this.document = of.getDocument();
        this.restsOn = restsOn;
        this.words = words;
        this.publishedBy = publishedBy;
        this.publishedAt = publishedAt;
    }

    Long getId() {
        return id;
    }

    long getDashboardId() {
        return dashboardId;
    }

    int getNumber() {
        return number;
    }

    long getRevision() {
        return revision;
    }

    String getDocument() {
        return document;
    }

    String getRestsOn() {
        return restsOn;
    }

    String getWords() {
        return words;
    }

    long getPublishedBy() {
        return publishedBy;
    }

    Instant getPublishedAt() {
        return publishedAt;
    }
}
