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

    /** An {@link Intake} as JSON; null for none. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String intake;

    /** A {@link sarnik.dashboard.About} as JSON; null for none. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String about;

    /** A list of {@link sarnik.dashboard.Tie} as JSON; null for none. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String ties;

    /** {@link sarnik.dashboard.Calculations} as JSON; null for none. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String calculations;

    /** A {@link Feed} as JSON; null for none. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String feed;

    /** When the feed is asked next; null where it is not asked by itself. */
    private Instant feedDue;

    private long createdBy;
    private Instant createdAt;

    protected Dataset() {}

    Dataset(String name, String placing, String intake, long createdBy, Instant createdAt) {
        this.name = name;
        this.placing = placing;
        this.intake = intake;
        this.createdBy = createdBy;
        this.createdAt = createdAt;
    }

    public Long getId() {
        return id;
    }

    public String getName() {
        return name;
    }

    void rename(String name) {
        this.name = name;
    }

    String getPlacing() {
        return placing;
    }

    Long getVersionId() {
        return versionId;
    }

    /** Swaps the version that is served. */
    void serve(Long versionId) {
        this.versionId = versionId;
    }

    public Instant getCreatedAt() {
        return createdAt;
    }

    String getIntake() {
        return intake;
    }

    String getAbout() {
        return about;
    }

    void describe(String about) {
        this.about = about;
    }

    String getTies() {
        return ties;
    }

    void tie(String ties) {
        this.ties = ties;
    }

    String getCalculations() {
        return calculations;
    }

    void calculate(String calculations) {
        this.calculations = calculations;
    }

    String getFeed() {
        return feed;
    }

    Instant getFeedDue() {
        return feedDue;
    }

    /**
     * @param due when it is asked next; null where it is not asked by itself
     */
    void feed(String feed, Instant due) {
        this.feed = feed;
        this.feedDue = due;
    }
}
