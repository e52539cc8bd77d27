package sarnik.app.dataset;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.uses.Uses;

/** Datasets as home lists them. */
@Service
public class DatasetLines {

    private final DatasetService datasets;
    private final Descriptions descriptions;
    private final DatasetRefreshRepository refreshes;
    private final PeopleService people;
    private final Uses uses;

    DatasetLines(
            DatasetService datasets,
            Descriptions descriptions,
            DatasetRefreshRepository refreshes,
            PeopleService people,
            Uses uses) {
        this.datasets = datasets;
        this.descriptions = descriptions;
        this.refreshes = refreshes;
        this.people = people;
        this.uses = uses;
    }

    /**
     * A dataset.
     *
     * @param used how many dashboards show it
     * @param asked when its address was asked last and what came of it, in words; empty where it was not
     * @param failed whether that came to nothing
     */
    public record Line(DatasetService.Listed of, String owner, long used, String asked, boolean failed) {}

    /** Those that somebody may read, newest first. */
    @Transactional(readOnly = true)
    public List<Line> of(SignedIn person) {
        Map<Long, Long> used = uses.dashboardsByDataset();
        Map<Long, DatasetRefresh> newest = new HashMap<>();
        refreshes.newest().forEach(refresh -> newest.put(refresh.getDatasetId(), refresh));
        return datasets.all(person).stream()
                .map(listed -> {
                    DatasetRefresh refresh = newest.get(listed.id());
                    boolean failed = refresh != null && refresh.getOutcome() == DatasetRefresh.Outcome.FAILED;
                    return new Line(
                            listed,
                            descriptions
                                    .find(listed.id())
                                    .map(d -> people.nameOf(d.owner()))
                                    .orElse(""),
                            used.getOrDefault(listed.id(), 0L),
                            refresh == null ? "" : refresh.moment() + ": " + refresh.getWords(),
                            failed);
                })
                .toList();
    }
}
