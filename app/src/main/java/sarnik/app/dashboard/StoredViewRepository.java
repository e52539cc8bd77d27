package sarnik.app.dashboard;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface StoredViewRepository extends JpaRepository<StoredView, Long> {

    /** A person's own views of a dashboard, and those that are offered to all. */
    @Query("select v from StoredView v where v.dashboardId = ?1 and (v.personId = ?2 or v.offered)"
            + " order by v.offered desc, v.name, v.id")
    List<StoredView> seen(long dashboard, long person);

    Optional<StoredView> findByDashboardIdAndPersonIdAndName(long dashboard, long person, String name);

    long countByDashboardIdAndPersonId(long dashboard, long person);
}
