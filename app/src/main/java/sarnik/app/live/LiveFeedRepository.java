package sarnik.app.live;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;

interface LiveFeedRepository extends JpaRepository<LiveFeed, Long> {

    List<LiveFeed> findAllByOrderByName();

    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<LiveFeed> findWithLockById(long id);
}
