package sarnik.app.rights;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface GrantRepository extends JpaRepository<Grant, Long> {

    List<Grant> findByThingAndThingId(Thing thing, long thingId);

    List<Grant> findByThing(Thing thing);

    Optional<Grant> findByThingAndThingIdAndWhoAndWhoId(Thing thing, long thingId, Who.Kind who, long whoId);

    void deleteByThingAndThingId(Thing thing, long thingId);

    void deleteByWhoAndWhoId(Who.Kind who, long whoId);
}
