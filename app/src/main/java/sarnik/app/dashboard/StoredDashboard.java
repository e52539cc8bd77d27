package sarnik.app.dashboard;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import sarnik.dashboard.DashboardDocument;

/** A dashboard as it stands now. */
@Entity
@Table(name = "dashboards")
class StoredDashboard {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    /** The document's title, beside it so that lists need not read documents. */
    private String title;

    @JdbcTypeCode(SqlTypes.JSON)
    private String document;

    /** Goes up by one with every edit. */
    private long revision;

    @Column(name = "open_to_readers")
    private boolean openToReaders;

    /** Whether other authors may change and remove it. */
    private boolean shared;

    private long createdBy;
    private Instant changedAt;

    protected StoredDashboard() {}

    StoredDashboard(DashboardDocument document, long createdBy, Instant at) {
        this.createdBy = createdBy;
        this.revision = 0;
        take(document, at);
    }

    /** Takes the next revision. */
    void take(DashboardDocument next, Instant at) {
        document = next.json();
        title = next.dashboard().title();
        changedAt = at;
        revision++;
    }

    void openToReaders(boolean open) {
        openToReaders = open;
    }

    boolean isShared() {
        return shared;
    }

    void share(boolean shared) {
        this.shared = shared;
    }

    long getCreatedBy() {
        return createdBy;
    }

    Long getId() {
        return id;
    }

    String getTitle() {
        return title;
    }

    String getDocument() {
        return document;
    }

    long getRevision() {
        return revision;
    }

    boolean isOpenToReaders() {
        return openToReaders;
    }

    Instant getChangedAt() {
        return changedAt;
    }
}
