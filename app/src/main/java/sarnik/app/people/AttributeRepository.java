package sarnik.app.people;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface AttributeRepository extends JpaRepository<Attribute, Long> {

    @Query("select a from Attribute a where a.personId = ?1 or a.groupId in"
            + " (select g.id from PeopleGroup g join g.members m where m = ?1) order by a.name, a.value")
    List<Attribute> of(long person);

    @Query("select a from Attribute a order by a.name, a.value")
    List<Attribute> inOrder();

    void deleteByPersonId(long person);

    void deleteByGroupId(long group);
}
