package sarnik.app.key;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface StoredKeyRepository extends JpaRepository<StoredKey, String> {

    List<StoredKey> findAllByOrderByName();

    /** Titles of the dashboards that wear a key. */
    @Query(value = "SELECT title FROM dashboards WHERE jsonb_path_exists(document, '$.visuals.*.layers.*.colour.key ? (@ == $name)', jsonb_build_object('name', ?1::text)) ORDER BY title", nativeQuery = true)
    List<String> wearers(String name);
}
