package sarnik.app.dataset;

import jakarta.persistence.EntityManager;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.web.RefusedException;

/** How many versions of each dataset are kept to go back to, as stewards have set it. */
@Component
public class Keeping {

    /** Where nobody has said anything. */
    static final int USUAL = 12;

    private static final int FEWEST = 1;
    private static final int MOST = 500;
    private static final String NAME = "versions kept";

    private final EntityManager entities;

    Keeping(EntityManager entities) {
        this.entities = entities;
    }

    @Transactional(readOnly = true)
    public int versions() {
        List<?> said = entities.createNativeQuery("SELECT value FROM settings WHERE name = :name", String.class)
                .setParameter("name", NAME)
                .getResultList();
        return said.isEmpty() ? USUAL : Integer.parseInt((String) said.get(0));
    }

    /**
     * Says how many are kept; those that an edition shows last in any case. Older ones go when newer rows come in.
     *
     * @throws RefusedException when it is not a number that can be
     */
    @Transactional
    public void keep(int versions) {
        if (versions < FEWEST || versions > MOST)
            throw new RefusedException("Of each dataset %d to %d versions are kept.".formatted(FEWEST, MOST));
        entities.createNativeQuery("INSERT INTO settings (name, value) VALUES (:name, :value)"
                        + " ON CONFLICT (name) DO UPDATE SET value = EXCLUDED.value")
                .setParameter("name", NAME)
                .setParameter("value", String.valueOf(versions))
                .executeUpdate();
    }
}
