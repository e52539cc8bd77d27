package sarnik.app.dataset;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface DatasetRepository extends JpaRepository<Dataset, Long> {

    List<Dataset> findAllByOrderByCreatedAtDesc();
}
