package sarnik.app.dataset;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface DatasetRepository extends JpaRepository<Dataset, Long> {

    /** Where a dataset stands, without what is said about it. */
    interface Standing {
        long getRevision();

        long getDecided();

        long getVersionId();
    }

    @Query("select d.revision as revision, d.decided as decided, s.versionId as versionId "
            + "from Dataset d join ServedVersion s on s.datasetId = d.id where d.id = ?1")
    Optional<Standing> standing(long id);

    /** All datasets with the version that each serves, newest first. */
    @Query("select d, v from Dataset d join ServedVersion s on s.datasetId = d.id join DatasetVersion v on "
            + "v.id = s.versionId order by d.createdAt desc, d.id desc")
    List<Object[]> allWithVersions();

    /** The dataset, held until the transaction ends: changes come one after the other. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Dataset> findWithLockById(long id);

    /** Datasets whose feed is to be asked by now. */
    List<Dataset> findByFeedDueBefore(Instant moment);

    /** Datasets whose feed is to be asked after a moment. */
    List<Dataset> findByFeedDueAfter(Instant moment);

    /** Whether a feed is to be asked by now, still: another instance may just have asked it. */
    @Query("select count(d) > 0 from Dataset d where d.id = ?1 and d.feedDue < ?2")
    boolean isDue(long id, Instant moment);

    /** Says when a feed is asked next, where it is asked by itself. */
    @Modifying
    @Query("update Dataset d set d.feedDue = ?2 where d.id = ?1 and d.feedDue is not null")
    void askNext(long id, Instant due);

    @Modifying
    @Query("update Dataset d set d.decided = d.decided + 1 where d.id = ?1")
    void countDecision(long id);

    @Modifying
    @Query("update Dataset d set d.decided = d.decided + 1")
    void countDecisionForAll();
}
