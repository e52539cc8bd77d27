package sarnik.app.boundary;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface BoundarySetRepository extends JpaRepository<StoredBoundarySet, String> {

    /** Everything of a set but its shapes. */
    interface Line {
        String getName();

        String getLevel();

        String getCredit();

        int getAreaCount();
    }

    /** The set, held until the transaction ends. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<StoredBoundarySet> findWithLockByName(String name);

    @Query("select s.name as name, s.level as level, s.credit as credit, s.areaCount as areaCount from "
            + "StoredBoundarySet s order by s.name")
    List<Line> lines();

    /** How often a set came or went. */
    @Query(value = "SELECT number FROM boundary_changes", nativeQuery = true)
    long changes();

    @Modifying
    @Query(value = "UPDATE boundary_changes SET number = number + 1", nativeQuery = true)
    void countChange();
}
