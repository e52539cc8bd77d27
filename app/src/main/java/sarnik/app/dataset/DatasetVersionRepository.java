package sarnik.app.dataset;

import org.springframework.data.jpa.repository.JpaRepository;

interface DatasetVersionRepository extends JpaRepository<DatasetVersion, Long> {}
