package sarnik.app.people;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface PeopleGroupRepository extends JpaRepository<PeopleGroup, Long> {

    @Query("select g from PeopleGroup g order by lower(g.name)")
    List<PeopleGroup> inOrder();

    @Query("select g from PeopleGroup g where lower(g.name) = lower(?1)")
    Optional<PeopleGroup> called(String name);

    @Query("select g.id from PeopleGroup g join g.members m where m = ?1")
    Set<Long> of(long person);
}
