package sarnik.app.people;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface PersonRepository extends JpaRepository<Person, Long> {

    /** Whoever signs in so, in whatever case it is written. */
    @Query("select p from Person p where lower(p.signIn) = lower(?1)")
    Optional<Person> whoSignsInAs(String signIn);

    Optional<Person> findByOutside(String known);

    /** The person, held until the transaction ends. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Person> findWithLockById(long id);

    @Query("select p from Person p order by p.signIn")
    List<Person> inOrder();
}
