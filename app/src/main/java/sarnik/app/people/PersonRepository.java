package sarnik.app.people;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface PersonRepository extends JpaRepository<Person, Long> {

    Optional<Person> findBySignInIgnoreCase(String signIn);

    List<Person> findAllByOrderBySignIn();
}
