package sarnik.app.uses;

import jakarta.persistence.EntityManager;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.web.RefusedException;

/**
 * What rests on what: the one place that is asked before something is taken away. Read from the database, so that
 * nothing that
 * is not in memory is passed over.
 */
@Component
public class Uses {

    /** A dashboard rests on what its draft names, and on what the edition names that readers see. */
    private static final String DASHBOARDS = "SELECT 'dashboard', d.id, d.title FROM dashboards d, LATERAL ("
            + "SELECT d.document UNION ALL SELECT e.document FROM editions e WHERE e.id = d.edition_id) AS of (document)"
            + " WHERE ";

    private static final String STANDS_ON = "jsonb_path_exists(of.document, '$.visuals.*.ground.mood ? (@ == $name)', "
            + "jsonb_build_object('name', CAST('source:' || CAST(:name AS text) AS text)))"
            + " OR jsonb_path_exists(of.document, '$.visuals.*.layers.* ? (@.kind == \"PICTURES\" && "
            + "@.set == $name)', jsonb_build_object('name', CAST(:name AS text)))";

    private static final int NAMED = 8;

    private final EntityManager entities;

    Uses(EntityManager entities) {
        this.entities = entities;
    }

    /** How something is used. */
    public enum Way {
        DASHBOARD("the dashboard"),
        EDITION("what readers see of"),
        PLACING("the placing of"),
        TIE("a tie of"),
        FORMULA("a formula or rule of");

        private final String words;

        Way(String words) {
            this.words = words;
        }
    }

    /**
     * Something that rests on another.
     *
     * @param id the dashboard's or dataset's
     */
    public record Use(Way way, long id, String name) {

        /** Such as: the placing of “Refills”. */
        public String words() {
            return way.words + " “" + name + "”";
        }

        public boolean isDashboard() {
            return way == Way.DASHBOARD || way == Way.EDITION;
        }
    }

    /** What rests on a dataset: dashboards that show it, datasets placed by a tie to it, and ties. */
    @Transactional(readOnly = true)
    public List<Use> ofDataset(long id) {
        return ask(
                DASHBOARDS
                        + "jsonb_path_exists(of.document, '$.**.dataset ? (@ == $id)', jsonb_build_object('id', "
                        + "CAST(:id AS bigint)))"
                        + " UNION ALL SELECT 'placing', id, name FROM datasets WHERE jsonb_path_exists(recipe, "
                        + "'$.** ? (@.type == \"tie\" && @.dataset == $id)', jsonb_build_object('id', CAST(:id "
                        + "AS bigint)))"
                        + " UNION ALL SELECT 'tie', id, name FROM datasets WHERE jsonb_path_exists(ties, '$[*] "
                        + "? (@.dataset == $id)', jsonb_build_object('id', CAST(:id AS bigint)))",
                "id",
                id);
    }

    /** How many dashboards show each dataset, in their draft or in the edition that readers see. */
    @Transactional(readOnly = true)
    public Map<Long, Long> dashboardsByDataset() {
        List<?> rows = entities.createNativeQuery(
                        "SELECT used.dataset, count(DISTINCT used.id) FROM (SELECT d.id, CAST(jsonb_path_query(of.document, "
                                + "'$.**.dataset ? (@.type() == \"number\")') AS bigint) AS dataset FROM dashboards d, LATERAL ("
                                + "SELECT d.document UNION ALL SELECT e.document FROM editions e WHERE e.id = d.edition_id)"
                                + " AS of (document)) AS used GROUP BY used.dataset",
                        Object[].class)
                .getResultList();
        Map<Long, Long> used = new HashMap<>();
        for (Object of : rows) {
            Object[] row = (Object[]) of;
            used.put(((Number) row[0]).longValue(), ((Number) row[1]).longValue());
        }
        return used;
    }

    /**
     * What rests on a boundary set: maps that show or count by it, datasets placed by it, and formulas that name it.
     */
    @Transactional(readOnly = true)
    public List<Use> ofBoundarySet(String name) {
        return ask(
                DASHBOARDS
                        + "jsonb_path_exists(of.document, '$.**.set ? (@ == $name)', jsonb_build_object('name', "
                        + "CAST(:name AS text)))"
                        + " UNION ALL SELECT 'placing', id, name FROM datasets WHERE jsonb_path_exists(recipe, "
                        + "'$.**.set ? (@ == $name)', jsonb_build_object('name', CAST(:name AS text)))"
                        + " UNION ALL SELECT 'formula', id, name FROM datasets WHERE strpos(CAST(calculations "
                        + "AS text), '''' || replace(CAST(:name AS text), '''', '''''') || '''') > 0",
                "name",
                name);
    }

    /** What wears a shared key. */
    @Transactional(readOnly = true)
    public List<Use> ofKey(String name) {
        return ask(
                DASHBOARDS
                        + "jsonb_path_exists(of.document, '$.visuals.*.layers.*.colour.key ? (@ == $name)', "
                        + "jsonb_build_object('name', CAST(:name AS text)))",
                "name",
                name);
    }

    /** What stands on a source of the ground. */
    @Transactional(readOnly = true)
    public List<Use> ofGround(String name) {
        return ask(DASHBOARDS + STANDS_ON, "name", name);
    }

    /** The dashboards whose readers see an edition that stands on a source of the ground. */
    @Transactional(readOnly = true)
    public List<Use> ofPublishedGround(String name) {
        return ask(
                "SELECT 'edition', d.id, d.title FROM dashboards d JOIN editions of ON of.id = d.edition_id WHERE "
                        + STANDS_ON,
                "name",
                name);
    }

    private List<Use> ask(String question, String parameter, Object value) {
        List<?> rows = entities.createNativeQuery(
                        "SELECT DISTINCT * FROM (" + question + ") AS used (way, id, name) ORDER BY 1, 3",
                        Object[].class)
                .setParameter(parameter, value)
                .getResultList();
        return rows.stream()
                .map(r -> (Object[]) r)
                .map(r -> new Use(
                        Way.valueOf(((String) r[0]).toUpperCase(java.util.Locale.ROOT)),
                        ((Number) r[1]).longValue(),
                        (String) r[2]))
                .toList();
    }

    /**
     * Refuses where something is used.
     *
     * @param what the thing, as the beginning of a sentence, such as "The dataset"
     * @throws RefusedException with 409; the message names what rests on it
     */
    public void refuseWhereUsed(String what, List<Use> uses) {
        if (uses.isEmpty()) return;
        String named = uses.stream().limit(NAMED).map(Use::words).collect(Collectors.joining(", "));
        throw new RefusedException(
                HttpStatus.CONFLICT,
                "%s is needed by %s%s. Take that away first, or let it use another."
                        .formatted(
                                what,
                                named,
                                uses.size() > NAMED ? " and %,d more".formatted(uses.size() - NAMED) : ""));
    }
}
