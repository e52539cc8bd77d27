package sarnik.app.dataset;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface DatasetRefreshRepository extends JpaRepository<DatasetRefresh, Long> {

    List<DatasetRefresh> findTop12ByDatasetIdOrderByIdDesc(long dataset);

    /** The newest refresh of each dataset. */
    @Query("select r from DatasetRefresh r where r.id in (select max(o.id) from DatasetRefresh o group by o.datasetId)")
    List<DatasetRefresh> newest();

    /** Forgets all but the newest refreshes of a dataset. */
    @Modifying
    @Query(
            value = "DELETE FROM dataset_refreshes WHERE dataset_id = ?1 AND id NOT IN (SELECT id FROM "
                    + "dataset_refreshes WHERE dataset_id = ?1 ORDER BY id DESC LIMIT ?2)",
            nativeQuery = true)
    void keepNewest(long dataset, int count);
}
