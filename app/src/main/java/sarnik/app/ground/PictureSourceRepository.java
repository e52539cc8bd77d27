package sarnik.app.ground;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface PictureSourceRepository extends JpaRepository<PictureSource, String> {

    List<PictureSource> findAllByOrderByName();

    /** Titles of the dashboards with a map on a ground of this mood. */
    @Query(value = "SELECT title FROM dashboards WHERE jsonb_path_query_array(document, '$.visuals.*.ground.mood') @> to_jsonb(CAST(?1 AS text)) ORDER BY title", nativeQuery = true)
    List<String> dashboardsOn(String mood);
}
