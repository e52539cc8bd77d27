package sarnik.app.share;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface ShareLinkRepository extends JpaRepository<ShareLink, Long> {

    Optional<ShareLink> findBySecret(String secret);

    List<ShareLink> findByDashboardIdOrderByMadeAtDesc(long dashboard);

    Optional<ShareLink> findByIdAndDashboardId(long id, long dashboard);
}
