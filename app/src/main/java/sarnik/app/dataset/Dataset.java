package sarnik.app.dataset;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.DynamicUpdate;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/**
 * What is said about a table that was brought in; its rows belong to its versions. Only what has changed is written
 * back.
 */
@Entity
@DynamicUpdate
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

    /** A {@link Live} as JSON; null where its rows were brought in. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String live;

    /** A {@link Stays} as JSON; null where its rows are held here. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String stays;

    /** When the feed is asked next; null where it is not asked by itself. */
    private Instant feedDue;

    /** Goes up by one with every change of what is said about it. */
    private long revision = 1;

    private Long changedBy;

    /** Goes up by one with every decision about its placing. */
    private long decided;

    /** Which rows somebody sees who may not change it, a condition; null for all. */
    private String viewerRule;

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

    /** Says where its rows lie; null for nowhere. */
    void place(String placing) {
        this.placing = placing;
    }

    long getRevision() {
        return revision;
    }

    Long getChangedBy() {
        return changedBy;
    }

    /** Counts a change of what is said about it. */
    void changed(long person) {
        revision++;
        changedBy = person;
    }

    long getDecided() {
        return decided;
    }

    String getViewerRule() {
        return viewerRule;
    }

    void show(String viewerRule) {
        this.viewerRule = viewerRule;
    }

    public long getCreatedBy() {
        return createdBy;
    }

    public Instant getCreatedAt() {
        return createdAt;
    }

    String getIntake() {
        return intake;
    }

    void takeIn(String intake) {
        this.intake = intake;
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

    String getLive() {
        return live;
    }

    void showLive(String live) {
        this.live = live;
    }

    String getStays() {
        return stays;
    }

    /** Says where its rows are that stay elsewhere. */
    void stay(String stays) {
        this.stays = stays;
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
