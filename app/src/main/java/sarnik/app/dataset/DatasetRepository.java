package sarnik.app.dataset;

import java.time.Instant;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface DatasetRepository extends JpaRepository<Dataset, Long> {

    List<Dataset> findAllByOrderByCreatedAtDesc();

    /** A dashboard that shows a dataset. */
    interface Use {
        long getId();

        String getTitle();
    }

    @Query(value = "SELECT id, title FROM dashboards WHERE jsonb_path_exists(document, '$.**.dataset ? (@ == $id)', jsonb_build_object('id', ?1)) ORDER BY title", nativeQuery = true)
    List<Use> usesOf(long dataset);

    /** Names of the datasets that are placed by a tie to this one. */
    @Query(value = "SELECT name FROM datasets WHERE (recipe ->> 'dataset')::bigint = ?1 ORDER BY name", nativeQuery = true)
    List<String> tiedTo(long dataset);

    /** Datasets whose feed is to be asked by now. */
    List<Dataset> findByFeedDueBefore(Instant moment);
}
