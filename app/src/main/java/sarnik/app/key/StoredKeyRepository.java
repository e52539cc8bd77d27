package sarnik.app.key;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface StoredKeyRepository extends JpaRepository<StoredKey, String> {

    List<StoredKey> findAllByOrderByName();

    /** Titles of the dashboards that wear a key. */
    @Query(value = "SELECT title FROM dashboards WHERE jsonb_path_query_array(document, '$.visuals.*.layers.*.colour.key') @> to_jsonb(CAST(?1 AS text)) ORDER BY title", nativeQuery = true)
    List<String> wearers(String name);
}
