package sarnik.app.dashboard;

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

/** One step of a dashboard's history, with the document as it was after it. */
@Entity
@Table(name = "dashboard_edits")
class StoredEdit {

    /** What has become of an edit. */
    enum State {
        /** It holds; its author may undo it. */
        DONE,
        /** It was undone; its author may redo it. */
        UNDONE,
        /** It was undone, and its author has gone on another way. */
        REPLACED,
        /** An undo or redo, kept so that the history has every revision. */
        STEP
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long dashboardId;
    private long revision;
    private long authorId;
    private Instant madeAt;
    private String words;

    @JdbcTypeCode(SqlTypes.JSON)
    private String patch;

    @JdbcTypeCode(SqlTypes.JSON)
    private String inverse;

    @Enumerated(EnumType.STRING)
    private State state;

    @JdbcTypeCode(SqlTypes.JSON)
    private String document;

    /** What somebody calls the version that it made, to find it again; null for most. */
    private String name;

    protected StoredEdit() {}

    StoredEdit(StoredDashboard dashboard, long authorId, String words, String patch, String inverse, State state) {
        this.dashboardId = dashboard.getId();
        this.revision = dashboard.getRevision();
        this.madeAt = dashboard.getChangedAt();
        this.document = dashboard.getDocument();
        this.authorId = authorId;
        this.words = words;
        this.patch = patch;
        this.inverse = inverse;
        this.state = state;
    }

    /** Records what has become of it; an undone edit keeps the inverse of its newest doing. */
    void become(State next) {
        state = next;
    }

    void redoneWith(String newInverse) {
        state = State.DONE;
        inverse = newInverse;
    }

    /** @param called null for nothing */
    void call(String called) {
        name = called;
    }

    long getDashboardId() {
        return dashboardId;
    }

    long getRevision() {
        return revision;
    }

    String getDocument() {
        return document;
    }

    long getAuthorId() {
        return authorId;
    }

    String getWords() {
        return words;
    }

    String getPatch() {
        return patch;
    }

    String getInverse() {
        return inverse;
    }
}
