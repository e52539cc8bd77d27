package sarnik.app.audit;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface ActRepository extends JpaRepository<Act, Long> {

    /**
     * The newest first.
     *
     * @param who in small letters; empty for anybody
     * @param words what the words hold, in small letters; empty for anything
     */
    @Query("select a from Act a where a.kind in ?1 and (?2 = '' or lower(a.who) = ?2)"
            + " and (?3 = '' or position(?3 in lower(a.words)) > 0) and a.doneAt >= ?4 and a.doneAt < ?5"
            + " order by a.doneAt desc, a.id desc")
    List<Act> found(Collection<Act.Kind> kinds, String who, String words, Instant from, Instant until, Limit most);

    @Modifying
    @Query("delete from Act a where a.doneAt < ?1")
    int forget(Instant before);
}
