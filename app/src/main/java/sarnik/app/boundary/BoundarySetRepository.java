package sarnik.app.boundary;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface BoundarySetRepository extends JpaRepository<StoredBoundarySet, String> {

    /** Everything of a set but its shapes. */
    interface Line {
        String getName();

        String getLevel();

        String getCredit();

        int getAreaCount();
    }

    @Query("select s.name as name, s.level as level, s.credit as credit, s.areaCount as areaCount from StoredBoundarySet s order by s.name")
    List<Line> lines();
}
