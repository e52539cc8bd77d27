package sarnik.app.live;

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

/** A feed as it is kept: what is said of it; its readings stand in a table of their own. */
@Entity
@DynamicUpdate
@Table(name = "live_feeds")
class LiveFeed {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String name;

    /** A {@link sarnik.live.MessageShape} as JSON; null until it is said. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String shape;

    /** Names of columns as JSON; the n-th stands in the readings as {@code c<n>}. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String columns = "[]";

    /** {@link FeedSettings} as JSON. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String settings;

    private String tokenHash;

    /** {@link Broker} as JSON; null where it is read from none. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String broker;

    /** {@link ThingsSource} as JSON; null where it is read from none. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String things;

    /** The password by which it is read there, sealed; null for none. */
    private String brokerWord;

    @Column(name = "readings_dataset")
    private Long readingsDataset;

    @Column(name = "devices_dataset")
    private Long devicesDataset;

    /** Ids of the datasets that it is shown as besides, as JSON by {@link sarnik.app.dataset.Live.Part}. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String parts = "{}";

    private long revision = 1;
    private long createdBy;
    private Instant createdAt;

    protected LiveFeed() {}

    LiveFeed(String name, String settings, String tokenHash, long createdBy, Instant createdAt) {
        this.name = name;
        this.settings = settings;
        this.tokenHash = tokenHash;
        this.createdBy = createdBy;
        this.createdAt = createdAt;
    }

    Long getId() {
        return id;
    }

    String getName() {
        return name;
    }

    String getShape() {
        return shape;
    }

    String getColumns() {
        return columns;
    }

    String getSettings() {
        return settings;
    }

    String getTokenHash() {
        return tokenHash;
    }

    String getBroker() {
        return broker;
    }

    String getThings() {
        return things;
    }

    /** @param now null to read from no server any more */
    void things(String now) {
        things = now;
        revision++;
    }

    String getBrokerWord() {
        return brokerWord;
    }

    Long getReadingsDataset() {
        return readingsDataset;
    }

    Long getDevicesDataset() {
        return devicesDataset;
    }

    String getParts() {
        return parts;
    }

    void showParts(String now) {
        parts = now;
    }

    long getRevision() {
        return revision;
    }

    long getCreatedBy() {
        return createdBy;
    }

    Instant getCreatedAt() {
        return createdAt;
    }

    /** Says how its messages become readings. */
    void shape(String shape, String columns) {
        this.shape = shape;
        this.columns = columns;
        revision++;
    }

    void settings(String name, String settings) {
        this.name = name;
        this.settings = settings;
        revision++;
    }

    /** @param broker null to read from none any more */
    void broker(String broker, String word) {
        this.broker = broker;
        brokerWord = word;
        revision++;
    }

    void token(String hash) {
        tokenHash = hash;
        revision++;
    }

    void shownAs(long readings, long devices) {
        readingsDataset = readings;
        devicesDataset = devices;
    }
}
