package sarnik.app.dataset;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import sarnik.app.web.DayWords;

/** What came of asking for newer rows once. */
@Entity
@Table(name = "dataset_refreshes")
public class DatasetRefresh {

    /** What came of it. */
    public enum Outcome {
        SERVED,
        UNCHANGED,
        FAILED
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long datasetId;
    private Instant at;

    @Enumerated(EnumType.STRING)
    private Outcome outcome;

    /** A sentence: what changed, or why it failed. */
    private String words;

    /** The version it made; null where it made none. */
    private Integer number;

    protected DatasetRefresh() {}

    DatasetRefresh(long datasetId, Instant at, Outcome outcome, String words, Integer number) {
        this.datasetId = datasetId;
        this.at = at;
        this.outcome = outcome;
        this.words = words;
        this.number = number;
    }

    long getDatasetId() {
        return datasetId;
    }

    public Outcome getOutcome() {
        return outcome;
    }

    public String getWords() {
        return words;
    }

    public Integer getNumber() {
        return number;
    }

    /** When, in words. */
    public String moment() {
        return DayWords.moment(at);
    }
}
