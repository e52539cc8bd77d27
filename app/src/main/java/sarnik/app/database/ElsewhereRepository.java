package sarnik.app.database;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface ElsewhereRepository extends JpaRepository<Elsewhere, Long> {

    List<Elsewhere> findAllByOrderByName();

    Optional<Elsewhere> findByName(String name);
}
