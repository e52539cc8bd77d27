package sarnik.app.key;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;

interface StoredKeyRepository extends JpaRepository<StoredKey, String> {

    List<StoredKey> findAllByOrderByName();

    /** The key, held until the transaction ends. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<StoredKey> findWithLockByName(String name);
}
