package sarnik.app.dataset;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface DatasetVersionRepository extends JpaRepository<DatasetVersion, Long> {

    List<DatasetVersion> findByDatasetIdOrderByNumberDesc(long dataset);

    Optional<DatasetVersion> findByDatasetIdAndNumber(long dataset, int number);

    @Query("select coalesce(max(v.number), 0) from DatasetVersion v where v.datasetId = ?1")
    int highestNumber(long dataset);
    /** The versions of a dataset that an edition shows, whether readers see it or not. */
    @Query(
            nativeQuery = true,
            value = "select v.id from dataset_versions v where v.dataset_id = ?1 and exists (select 1 from editions e"
                    + " where jsonb_path_exists(e.rests_on, '$.datasets[*] ? (@.version == $v)',"
                    + " jsonb_build_object('v', v.id)))")
    Set<Long> neededByEditions(long dataset);
}
