package sarnik.app.dataset;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** What a person has decided about some words of a dataset. */
@Entity
@Table(name = "placing_decisions")
class PlacingDecision {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long datasetId;

    /** {@link sarnik.place.Words} as JSON. */
    private String words;

    /** A place's id; null where the rows are left out. */
    private String place;

    /** Whether it holds for other datasets too, where they have not decided otherwise. */
    private boolean shared;

    private long decidedBy;
    private Instant decidedAt;

    protected PlacingDecision() {}

    PlacingDecision(long datasetId, String words) {
        this.datasetId = datasetId;
        this.words = words;
    }

    void decide(String place, boolean shared, long decidedBy, Instant at) {
        this.place = place;
        this.shared = shared;
        this.decidedBy = decidedBy;
        this.decidedAt = at;
    }

    String getWords() {
        return words;
    }

    String getPlace() {
        return place;
    }
}
