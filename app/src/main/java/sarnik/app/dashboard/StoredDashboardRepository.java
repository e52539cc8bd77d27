package sarnik.app.dashboard;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;

interface StoredDashboardRepository extends JpaRepository<StoredDashboard, Long> {

    List<StoredDashboard> findAllByOrderByChangedAtDesc();

    /** The dashboard, held until the transaction ends: edits come one after the other. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<StoredDashboard> findWithLockById(long id);
}
