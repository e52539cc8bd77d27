package sarnik.app.dashboard;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** What somebody has chosen on a dashboard, kept under a name. */
@Entity
@Table(name = "kept_views")
class StoredView {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long dashboardId;
    private long personId;
    private String name;
    private String state;
    private boolean offered;
    private Instant keptAt;

    protected StoredView() {}

    StoredView(long dashboardId, long personId, String name) {
        this.dashboardId = dashboardId;
        this.personId = personId;
        this.name = name;
    }

    void keep(String state, boolean offered, Instant at) {
        this.state = state;
        this.offered = offered;
        this.keptAt = at;
    }

    Long getId() {
        return id;
    }

    long getDashboardId() {
        return dashboardId;
    }

    long getPersonId() {
        return personId;
    }

    String getName() {
        return name;
    }

    String getState() {
        return state;
    }

    boolean isOffered() {
        return offered;
    }
}
