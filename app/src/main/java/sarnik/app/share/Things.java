package sarnik.app.share;

import org.springframework.stereotype.Component;
import sarnik.app.dashboard.DashboardService;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.web.RefusedException;

/** Finds what people have rights on. */
@Component
class Things {

    private final DashboardService dashboards;
    private final DatasetService datasets;
    private final Rights rights;

    Things(DashboardService dashboards, DatasetService datasets, Rights rights) {
        this.dashboards = dashboards;
        this.datasets = datasets;
        this.rights = rights;
    }

    /** A dashboard or a dataset; null where it has gone. */
    Rights.Owned find(Thing thing, long id) {
        return thing == Thing.DASHBOARD
                ? dashboards.owned(id)
                : datasets.description(id).map(Description::owned).orElse(null);
    }

    /**
     * One that somebody may do something with.
     *
     * @throws RefusedException when there is none, or the person may not
     */
    Rights.Owned needed(Thing thing, long id, May what, SignedIn person) {
        Rights.Owned of = find(thing, id);
        if (of == null) throw RefusedException.gone(thing.words());
        rights.check(person, of, what);
        return of;
    }
}
