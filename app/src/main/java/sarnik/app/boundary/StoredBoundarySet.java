package sarnik.app.boundary;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A boundary set that a person has brought in. */
@Entity
@Table(name = "boundary_sets")
class StoredBoundarySet {

    @Id
    private String name;

    private String level;
    private String credit;
    private int areaCount;

    /** See {@link sarnik.geo.AreaBytes}. */
    private byte[] areas;

    private long createdBy;
    private Instant createdAt;

    protected StoredBoundarySet() {}

    StoredBoundarySet(
            String name, String level, String credit, int areaCount, byte[] areas, long createdBy, Instant createdAt) {
        this.name = name;
        this.level = level;
        this.credit = credit;
        this.areaCount = areaCount;
        this.areas = areas;
        this.createdBy = createdBy;
        this.createdAt = createdAt;
    }

    String getLevel() {
        return level;
    }

    String getCredit() {
        return credit;
    }

    long getCreatedBy() {
        return createdBy;
    }

    byte[] getAreas() {
        return areas;
    }
}
