package sarnik.app.dataset;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;

/** Which version a dataset serves. Whoever swaps it holds this row until the swap is done. */
@Entity
@Table(name = "dataset_served")
class ServedVersion {

    @Id
    private Long datasetId;

    private long versionId;

    protected ServedVersion() {}

    ServedVersion(long datasetId, long versionId) {
        this.datasetId = datasetId;
        this.versionId = versionId;
    }

    long getVersionId() {
        return versionId;
    }

    void serve(long versionId) {
        this.versionId = versionId;
    }
}
