package sarnik.app.dataset;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import sarnik.app.web.DayWords;

/** The rows of a dataset as they were brought in at one time. */
@Entity
@Table(name = "dataset_versions")
public class DatasetVersion {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long datasetId;
    private int number;
    private long rowCount;

    /** The table's columns in their order: a JSON array of {@link StoredColumn}. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String columns;

    private long troubles;
    private String fileName;
    private long createdBy;
    private Instant createdAt;

    /** What it takes in memory; null where that is not known yet. */
    private Long bytes;

    /** A {@link sarnik.sql.Face} as JSON, whose table the rows are; null where they are all there are. */
    @JdbcTypeCode(SqlTypes.JSON)
    private String face;

    protected DatasetVersion() {}

    DatasetVersion(
            long datasetId,
            int number,
            long rowCount,
            String columns,
            long troubles,
            String fileName,
            long createdBy,
            Instant createdAt,
            long bytes) {
        this.datasetId = datasetId;
        this.number = number;
        this.rowCount = rowCount;
        this.columns = columns;
        this.troubles = troubles;
        this.fileName = fileName;
        this.createdBy = createdBy;
        this.createdAt = createdAt;
        this.bytes = bytes;
    }

    String getFace() {
        return face;
    }

    /** Says that the rows are the face of others that stay elsewhere. */
    void faces(String face) {
        this.face = face;
    }

    /** Says how many rows it has and what they take in memory, where that was found while they were written. */
    void holds(long rows, long taken) {
        this.rowCount = rows;
        this.bytes = taken;
    }

    long getDatasetId() {
        return datasetId;
    }

    Long getBytes() {
        return bytes;
    }

    /** Keeps what was found when it was loaded for the first time by a newer program. */
    void found(String columns, long bytes) {
        this.columns = columns;
        this.bytes = bytes;
    }

    Long getId() {
        return id;
    }

    public long getRowCount() {
        return rowCount;
    }

    String getColumns() {
        return columns;
    }

    public String getFileName() {
        return fileName;
    }

    public long getTroubles() {
        return troubles;
    }

    /** When it was brought in, in words. */
    public String day() {
        return DayWords.of(createdAt);
    }

    public int getNumber() {
        return number;
    }
}
