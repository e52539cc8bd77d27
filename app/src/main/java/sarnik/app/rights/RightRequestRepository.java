package sarnik.app.rights;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface RightRequestRepository extends JpaRepository<RightRequest, Long> {

    Optional<RightRequest> findByThingAndThingIdAndPersonId(Thing thing, long thingId, long personId);

    List<RightRequest> findByThingAndThingIdOrderByAskedAt(Thing thing, long thingId);

    List<RightRequest> findAllByOrderByAskedAt();

    long countByPersonId(long personId);

    void deleteByThingAndThingId(Thing thing, long thingId);
}
