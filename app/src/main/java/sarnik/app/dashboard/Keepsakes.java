package sarnik.app.dashboard;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/**
 * By what people find dashboards again: tags, which all see, and for each person what is marked and was seen lately.
 */
@Service
public class Keepsakes {

    private static final int MOST_TAGS = 12;
    private static final int LONGEST = 40;

    private final EntityManager entities;

    Keepsakes(EntityManager entities) {
        this.entities = entities;
    }

    /**
     * What one person has of a dashboard.
     *
     * @param seen when it was seen last; null for never
     */
    record Own(boolean marked, Instant seen) {

        static final Own NOTHING = new Own(false, null);
    }

    /** Tags by dashboard, in alphabetical order. */
    @Transactional(readOnly = true)
    Map<Long, Set<String>> tags() {
        Map<Long, Set<String>> tags = new HashMap<>();
        for (Object[] row : rows("SELECT dashboard_id, tag FROM dashboard_tags"))
            tags.computeIfAbsent(((Number) row[0]).longValue(), k -> new TreeSet<>(String.CASE_INSENSITIVE_ORDER))
                    .add((String) row[1]);
        return tags;
    }

    /** The tags of one dashboard. */
    @Transactional(readOnly = true)
    public Set<String> tags(long dashboard) {
        return tags().getOrDefault(dashboard, Set.of());
    }

    /** What a person has marked and seen, by dashboard. */
    @Transactional(readOnly = true)
    Map<Long, Own> of(SignedIn person) {
        Map<Long, Own> own = new HashMap<>();
        for (Object of : entities.createNativeQuery(
                        "SELECT dashboard_id, marked, seen_at FROM dashboard_marks WHERE person_id = :person",
                        Object[].class)
                .setParameter("person", person.id())
                .getResultList()) {
            Object[] row = (Object[]) of;
            own.put(((Number) row[0]).longValue(), new Own((Boolean) row[1], (Instant) row[2]));
        }
        return own;
    }

    private List<Object[]> rows(String question) {
        return entities.createNativeQuery(question, Object[].class).getResultList().stream()
                .map(row -> (Object[]) row)
                .toList();
    }

    /**
     * Says the tags of a dashboard.
     *
     * @throws RefusedException when there are too many, or one is too long
     */
    @Transactional
    Set<String> tag(long dashboard, List<String> tags) {
        Set<String> clean = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        for (String tag : tags == null ? List.<String>of() : tags) {
            String word = tag == null ? "" : tag.strip().replaceAll("\\s+", " ");
            if (word.isEmpty()) continue;
            if (word.length() > LONGEST)
                throw new RefusedException("A tag has at most %d characters.".formatted(LONGEST));
            clean.add(word);
        }
        if (clean.size() > MOST_TAGS)
            throw new RefusedException("A dashboard has at most %d tags.".formatted(MOST_TAGS));
        entities.createNativeQuery("DELETE FROM dashboard_tags WHERE dashboard_id = :id")
                .setParameter("id", dashboard)
                .executeUpdate();
        for (String tag : new HashSet<>(clean))
            entities.createNativeQuery("INSERT INTO dashboard_tags (dashboard_id, tag) VALUES (:id, :tag)")
                    .setParameter("id", dashboard)
                    .setParameter("tag", tag)
                    .executeUpdate();
        return clean;
    }

    @Transactional
    void mark(long dashboard, boolean marked, SignedIn person) {
        entities.createNativeQuery(
                        "INSERT INTO dashboard_marks (person_id, dashboard_id, marked) VALUES (:person, :id, :marked)"
                                + " ON CONFLICT (person_id, dashboard_id) DO UPDATE SET marked = EXCLUDED.marked")
                .setParameter("person", person.id())
                .setParameter("id", dashboard)
                .setParameter("marked", marked)
                .executeUpdate();
    }

    /** A person looks at a dashboard just now. */
    @Transactional
    void seen(long dashboard, SignedIn person) {
        entities.createNativeQuery(
                        "INSERT INTO dashboard_marks (person_id, dashboard_id, seen_at) VALUES (:person, :id, now())"
                                + " ON CONFLICT (person_id, dashboard_id) DO UPDATE SET seen_at = EXCLUDED.seen_at")
                .setParameter("person", person.id())
                .setParameter("id", dashboard)
                .executeUpdate();
    }
}
