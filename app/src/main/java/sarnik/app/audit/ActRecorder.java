package sarnik.app.audit;

import jakarta.persistence.EntityManager;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.Principal;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.AsyncHandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;

/** Keeps what was done through an address, once it was done. */
@Component
class ActRecorder implements AsyncHandlerInterceptor {

    private static final String NAME = ActRecorder.class.getName() + ".name";

    /**
     * What a request does.
     *
     * @param table where the name of what it is about stands; null where it has none
     * @param column the name's column
     * @param words with %s for the name
     */
    private record Done(Act.Kind kind, String table, String column, String words) {

        static Done dashboard(Act.Kind kind, String words) {
            return new Done(kind, "dashboards", "title", words);
        }

        static Done dataset(Act.Kind kind, String words) {
            return new Done(kind, "datasets", "name", words);
        }

        static Done plain(Act.Kind kind, String words) {
            return new Done(kind, null, null, words);
        }
    }

    private static final Map<String, Done> DONE = Map.ofEntries(
            Map.entry("POST /dashboards", Done.plain(Act.Kind.MADE, "began a dashboard")),
            Map.entry("POST /api/dashboards", Done.plain(Act.Kind.MADE, "began a dashboard")),
            Map.entry("POST /api/dashboards/first", Done.plain(Act.Kind.MADE, "had a dashboard made of a dataset")),
            Map.entry(
                    "POST /api/dashboards/{id}/duplicates",
                    Done.dashboard(Act.Kind.MADE, "made another of the dashboard “%s”")),
            Map.entry("DELETE /api/dashboards/{id}", Done.dashboard(Act.Kind.REMOVED, "took the dashboard “%s” away")),
            Map.entry(
                    "POST /api/dashboards/{id}/editions",
                    Done.dashboard(Act.Kind.PUBLISHED, "published an edition of the dashboard “%s”")),
            Map.entry(
                    "PUT /api/dashboards/{id}/edition",
                    Done.dashboard(
                            Act.Kind.PUBLISHED, "changed which edition of the dashboard “%s” readers see, if any")),
            Map.entry(
                    "DELETE /api/dashboards/{id}/editions/{number}",
                    Done.dashboard(Act.Kind.REMOVED, "took an edition of the dashboard “%s” away")),
            Map.entry(
                    "PUT /api/dashboards/{id}/takes",
                    Done.dashboard(Act.Kind.RIGHTS, "changed what may be taken along of the dashboard “%s”")),
            Map.entry(
                    "PUT /api/dashboards/{id}/grants",
                    Done.dashboard(Act.Kind.RIGHTS, "changed who may do what with the dashboard “%s”")),
            Map.entry(
                    "PUT /api/datasets/{id}/grants",
                    Done.dataset(Act.Kind.RIGHTS, "changed who may do what with the dataset “%s”")),
            Map.entry(
                    "PUT /api/datasets/{id}/viewer-rule",
                    Done.dataset(Act.Kind.RIGHTS, "changed who sees which rows of the dataset “%s”")),
            Map.entry("POST /api/requests/{request}", Done.plain(Act.Kind.RIGHTS, "answered a request for a right")),
            Map.entry(
                    "POST /api/dashboards/{id}/links",
                    Done.dashboard(Act.Kind.LINKS, "made a link to the dashboard “%s”")),
            Map.entry(
                    "PUT /api/dashboards/{id}/links/{link}",
                    Done.dashboard(Act.Kind.LINKS, "changed a link to the dashboard “%s”")),
            Map.entry(
                    "POST /api/dashboards/{id}/links/{link}/end",
                    Done.dashboard(Act.Kind.LINKS, "ended a link to the dashboard “%s”")),
            Map.entry("POST /people/groups", Done.plain(Act.Kind.PEOPLE, "made a group of people")),
            Map.entry(
                    "POST /people/groups/{id}",
                    new Done(Act.Kind.PEOPLE, "people_groups", "name", "changed the group “%s”")),
            Map.entry(
                    "PUT /api/dashboards/{id}/shared",
                    Done.dashboard(Act.Kind.RIGHTS, "changed whether other authors may change the dashboard “%s”")),
            Map.entry(
                    "POST /api/dashboards/{id}/rows",
                    Done.dashboard(Act.Kind.TAKEN, "took rows of the dashboard “%s” along")),
            Map.entry(
                    "POST /api/dashboards/{id}/pictures",
                    Done.dashboard(Act.Kind.TAKEN, "took a picture of the dashboard “%s” along")),
            Map.entry(
                    "GET /api/dashboards/{id}/package.zip",
                    Done.dashboard(Act.Kind.TAKEN, "took the dashboard “%s” along as a package")),
            Map.entry(
                    "GET /api/dashboards/{id}/package-data.js",
                    Done.dashboard(Act.Kind.TAKEN, "took the data of the dashboard “%s” along")),
            Map.entry(
                    "GET /datasets/{id}/rows.{format}",
                    Done.dataset(Act.Kind.TAKEN, "took all rows of the dataset “%s” along")),
            Map.entry("DELETE /api/datasets/{id}", Done.dataset(Act.Kind.REMOVED, "took the dataset “%s” away")),
            Map.entry(
                    "PUT /api/datasets/{id}/shared",
                    Done.dataset(Act.Kind.RIGHTS, "changed whether other authors may change the dataset “%s”")),
            Map.entry(
                    "POST /api/datasets/{id}/versions/{number}/serve",
                    Done.dataset(Act.Kind.BROUGHT, "put another version of the dataset “%s” to use")),
            Map.entry("POST /api/datasets/{id}/feed", Done.dataset(Act.Kind.BROUGHT, "had the dataset “%s” refreshed")),
            Map.entry("POST /api/bring/{id}/keep", Done.plain(Act.Kind.BROUGHT, "brought a dataset in")),
            Map.entry("POST /api/bring/{id}/serve", Done.plain(Act.Kind.BROUGHT, "brought newer rows in")),
            Map.entry("POST /api/bring/{id}/areas", Done.plain(Act.Kind.BROUGHT, "brought a boundary set in")),
            Map.entry("DELETE /api/boundary-sets/{name}", Done.plain(Act.Kind.REMOVED, "took a boundary set away")),
            Map.entry("POST /people", Done.plain(Act.Kind.PEOPLE, "let somebody in")),
            Map.entry("POST /people/{id}", new Done(Act.Kind.PEOPLE, "people", "sign_in", "changed what “%s” may do")),
            Map.entry("POST /me", Done.plain(Act.Kind.PEOPLE, "changed the own password")),
            Map.entry("POST /hosts", Done.plain(Act.Kind.RIGHTS, "changed the hosts that may be asked")),
            Map.entry("POST /databases", Done.plain(Act.Kind.RIGHTS, "let a database be asked")),
            Map.entry("POST /databases/remove", Done.plain(Act.Kind.RIGHTS, "let a database be asked no more")),
            Map.entry("POST /grounds", Done.plain(Act.Kind.RIGHTS, "changed the grounds")));

    private final ActLog log;
    private final EntityManager entities;

    ActRecorder(ActLog log, EntityManager entities) {
        this.log = log;
        this.entities = entities;
    }

    private static Done done(HttpServletRequest request) {
        return DONE.get(
                request.getMethod() + " " + request.getAttribute(HandlerMapping.BEST_MATCHING_PATTERN_ATTRIBUTE));
    }

    /** What it is about has to be asked before it is gone. */
    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        Done done = done(request);
        if (done != null && done.table() != null && request.getAttribute(NAME) == null)
            request.setAttribute(NAME, name(done, request));
        return true;
    }

    private String name(Done done, HttpServletRequest request) {
        Object id = request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE) instanceof Map<?, ?> parts
                ? parts.get("id")
                : null;
        if (id == null || !id.toString().matches("\\d{1,18}")) return "";
        // Table and column are written here, the number is a parameter.
        List<?> names = entities.createNativeQuery(
                        "SELECT " + done.column() + " FROM " + done.table() + " WHERE id = ?1", String.class)
                .setParameter(1, Long.parseLong(id.toString()))
                .getResultList();
        return names.isEmpty() ? id.toString() : String.valueOf(names.get(0));
    }

    @Override
    public void afterCompletion(
            HttpServletRequest request, HttpServletResponse response, Object handler, Exception failure) {
        Done done = done(request);
        Principal person = request.getUserPrincipal();
        if (done == null || person == null || failure != null) return;
        if (response.getStatus() >= HttpStatus.BAD_REQUEST.value()) return;
        Object name = request.getAttribute(NAME);
        log.keep(
                person.getName(),
                done.kind(),
                name == null ? done.words() : done.words().formatted(name),
                request.getRemoteAddr());
    }
}
