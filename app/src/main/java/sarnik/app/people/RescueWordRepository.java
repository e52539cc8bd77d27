package sarnik.app.people;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface RescueWordRepository extends JpaRepository<RescueWord, Long> {

    List<RescueWord> findByPersonId(long person);

    void deleteByPersonId(long person);
}
