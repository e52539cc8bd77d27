package sarnik.app.dashboard;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface StoredEditionRepository extends JpaRepository<StoredEdition, Long> {

    List<StoredEdition> findByDashboardIdOrderByNumberDesc(long dashboard);

    Optional<StoredEdition> findByDashboardIdAndNumber(long dashboard, int number);

    @Query("select coalesce(max(e.number), 0) from StoredEdition e where e.dashboardId = ?1")
    int highestNumber(long dashboard);
}
