package sarnik.app.dashboard;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
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

    /** The edition that readers see; null where it is not published. */
    private Long editionId;

    private boolean takesRows = true;
    private boolean takesPictures = true;
    private boolean takesPrints = true;

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

    Long getEditionId() {
        return editionId;
    }

    /** @param edition null takes it back from readers */
    void show(Long edition) {
        editionId = edition;
    }

    Takes takes() {
        return new Takes(takesRows, takesPictures, takesPrints);
    }

    void take(Takes takes) {
        takesRows = takes.rows();
        takesPictures = takes.pictures();
        takesPrints = takes.prints();
    }

    /** This dashboard as something that people have rights on. */
    Rights.Owned owned() {
        return new Rights.Owned(Thing.DASHBOARD, id, title, createdBy);
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

    Instant getChangedAt() {
        return changedAt;
    }
}
