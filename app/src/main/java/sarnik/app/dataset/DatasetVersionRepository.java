package sarnik.app.dataset;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface DatasetVersionRepository extends JpaRepository<DatasetVersion, Long> {

    List<DatasetVersion> findByDatasetIdOrderByNumberDesc(long dataset);

    Optional<DatasetVersion> findByDatasetIdAndNumber(long dataset, int number);

    @Query("select coalesce(max(v.number), 0) from DatasetVersion v where v.datasetId = ?1")
    int highestNumber(long dataset);
}
