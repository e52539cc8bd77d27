package sarnik.app.dashboard;

import java.util.Optional;
import java.util.function.Function;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.people.Viewer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.visual.SharedKey;

/**
 * What somebody is shown of a dashboard: which document, over which rows, with which keys.
 *
 * @param id the dashboard
 * @param revision of the document
 * @param edition the number of the edition that it is; null for the draft
 * @param datasets with no other rows than the viewer may see
 * @param keys finds shared keys by name
 * @param composes whether the viewer may change the dashboard
 * @param takes what the viewer may take along
 */
public record Reading(
        long id,
        long revision,
        Integer edition,
        DashboardDocument document,
        Viewer viewer,
        SeenDatasets datasets,
        Function<String, Optional<SharedKey>> keys,
        boolean composes,
        Takes takes) {

    public Dashboard dashboard() {
        return document.dashboard();
    }

    /** What there is just now of the datasets that it rests on. */
    SeenDatasets.Standing standing() {
        return datasets.standing(dashboard().datasets());
    }
}
