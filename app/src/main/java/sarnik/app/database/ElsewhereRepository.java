package sarnik.app.database;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface ElsewhereRepository extends JpaRepository<Elsewhere, Long> {

    List<Elsewhere> findAllByOrderByName();

    Optional<Elsewhere> findByName(String name);

    /** Names of the datasets whose rows stay in a database. */
    @Query(
            value = "SELECT name FROM datasets WHERE CAST(stays->>'database' AS bigint) = ?1 ORDER BY name",
            nativeQuery = true)
    List<String> staying(long database);
}
