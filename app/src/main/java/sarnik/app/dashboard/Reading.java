package sarnik.app.dashboard;

import java.time.LocalDate;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.function.Function;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.people.Viewer;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.DocumentJson;
import sarnik.data.Datasets;
import sarnik.reading.ReadPage;
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

    /**
     * What answers readers of it.
     *
     * @param of the datasets, or what there is of them just now
     */
    ReadPage page(Datasets of, Answerer answerer) {
        return new ReadPage(dashboard(), of, keys, answerer, LocalDate.now(), DocumentJson.PARTS);
    }

    /** Begins to bring the datasets that it rests on into memory; done when all are there or cannot be. */
    CompletableFuture<Void> prepared() {
        return datasets.prepare(dashboard().datasets());
    }

    /** What there is of those datasets just now. @param ready what {@link #prepared} gave, some time ago */
    SeenDatasets.Standing standing(CompletableFuture<Void> ready) {
        return datasets.standing(dashboard().datasets(), ready);
    }
}
