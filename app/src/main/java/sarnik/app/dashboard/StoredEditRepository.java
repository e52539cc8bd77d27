package sarnik.app.dashboard;

import java.time.Instant;
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

    Optional<StoredEdit> findByDashboardIdAndRevision(long dashboard, long revision);

    /** What is said of an edit without its document. */
    interface Line {
        long getId();

        long getRevision();

        long getAuthorId();

        Instant getMadeAt();

        String getWords();

        String getName();
    }

    /** The newest edits of a dashboard, and all that have a name. */
    @Query("select e.id as id, e.revision as revision, e.authorId as authorId, e.madeAt as madeAt, e.words as words,"
            + " e.name as name from StoredEdit e where e.dashboardId = ?1 and (e.revision > ?2 or e.name is not null)"
            + " order by e.revision desc")
    List<Line> lines(long dashboard, long after);

    @Modifying
    @Query("update StoredEdit e set e.state = sarnik.app.dashboard.StoredEdit.State.REPLACED"
            + " where e.dashboardId = ?1 and e.authorId = ?2 and e.state = "
            + "sarnik.app.dashboard.StoredEdit.State.UNDONE")
    void replaceUndone(long dashboard, long author);
}
