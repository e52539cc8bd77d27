package sarnik.app.dashboard;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface StoredEditRepository extends JpaRepository<StoredEdit, Long> {

    /** The edit that undo takes back: the person's newest that holds. */
    Optional<StoredEdit> findFirstByDashboardIdAndAuthorIdAndStateOrderByRevisionDesc(
            long dashboard, long author, StoredEdit.State state);

    /** The edit that redo does again: of the person's undone ones the first made. */
    Optional<StoredEdit> findFirstByDashboardIdAndAuthorIdAndStateOrderByRevisionAsc(
            long dashboard, long author, StoredEdit.State state);

    List<StoredEdit> findByDashboardIdAndRevisionGreaterThanOrderByRevisionDesc(long dashboard, long revision);

    @Modifying
    @Query("update StoredEdit e set e.state = sarnik.app.dashboard.StoredEdit.State.REPLACED"
            + " where e.dashboardId = ?1 and e.authorId = ?2 and e.state = "
            + "sarnik.app.dashboard.StoredEdit.State.UNDONE")
    void replaceUndone(long dashboard, long author);
}
