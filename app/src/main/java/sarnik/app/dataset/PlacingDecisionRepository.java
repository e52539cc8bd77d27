package sarnik.app.dataset;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface PlacingDecisionRepository extends JpaRepository<PlacingDecision, Long> {

    List<PlacingDecision> findByDatasetId(long dataset);

    /** Decisions that hold for all datasets, the oldest first. */
    List<PlacingDecision> findBySharedTrueOrderByDecidedAt();

    Optional<PlacingDecision> findByDatasetIdAndWords(long dataset, String words);
}
