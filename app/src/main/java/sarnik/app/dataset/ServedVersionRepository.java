package sarnik.app.dataset;

import jakarta.persistence.LockModeType;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;

interface ServedVersionRepository extends JpaRepository<ServedVersion, Long> {

    /** Held until the transaction ends: swaps come one after the other. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<ServedVersion> findWithLockByDatasetId(long dataset);
}
