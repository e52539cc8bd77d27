package sarnik.app.dataset;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A table that was brought in; its rows belong to its versions. */
@Entity
@Table(name = "datasets")
public class Dataset {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    /** A {@link sarnik.place.Placing} as JSON; null when the rows have no place. */
    @JdbcTypeCode(SqlTypes.JSON)
    @Column(name = "recipe")
    private String placing;

    @Column(name = "version_id")
    private Long versionId;

    private long createdBy;
    private Instant createdAt;

    protected Dataset() {}

    Dataset(String name, String placing, long createdBy, Instant createdAt) {
        this.name = name;
        this.placing = placing;
        this.createdBy = createdBy;
        this.createdAt = createdAt;
    }

    public Long getId() {
        return id;
    }

    public String getName() {
        return name;
    }

    String getPlacing() {
        return placing;
    }

    Long getVersionId() {
        return versionId;
    }

    /** Swaps the version that is served. */
    void serve(long versionId) {
        this.versionId = versionId;
    }

    public Instant getCreatedAt() {
        return createdAt;
    }
}
