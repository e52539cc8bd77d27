package sarnik.app.dashboard;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface StoredDashboardRepository extends JpaRepository<StoredDashboard, Long> {

    List<StoredDashboard> findAllByOrderByChangedAtDesc();

    /** Where a dashboard stands, without its document. */
    interface Standing {
        String getTitle();

        long getCreatedBy();

        long getRevision();

        Long getEditionId();

        boolean getTakesRows();

        boolean getTakesPictures();

        boolean getTakesPrints();
    }

    @Query("select d.title as title, d.createdBy as createdBy, d.revision as revision, d.editionId as editionId,"
            + " d.takesRows as takesRows, d.takesPictures as takesPictures, d.takesPrints as takesPrints"
            + " from StoredDashboard d where d.id = ?1")
    Optional<Standing> standing(long id);

    /** The dashboard, held until the transaction ends: edits come one after the other. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<StoredDashboard> findWithLockById(long id);
}
