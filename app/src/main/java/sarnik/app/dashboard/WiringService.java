package sarnik.app.dashboard;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Service;
import sarnik.app.dataset.DatasetService;
import sarnik.app.key.SharedKeys;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Bound;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DocumentJson;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.Sources;
import sarnik.data.Datasets;
import sarnik.narrow.FilterScene;
import sarnik.query.QueryEngine;
import sarnik.reading.OnceDatasets;
import sarnik.sql.Engines;
import sarnik.state.ReaderState;
import sarnik.visual.SharedKey;
import sarnik.wiring.Checker;
import sarnik.wiring.Finding;
import sarnik.wiring.Wiring;

/** Answers what of a dashboard reaches what, and what is amiss in it. */
@Service
public class WiringService {

    private final DashboardService dashboards;
    private final DatasetService datasets;
    private final SharedKeys keys;
    private final QueryEngine engine = new Engines();

    WiringService(DashboardService dashboards, DatasetService datasets, SharedKeys keys) {
        this.dashboards = dashboards;
        this.datasets = datasets;
        this.keys = keys;
    }

    /**
     * A dashboard's wiring and what the checker found in it.
     */
    public record Sheet(Wiring wiring, List<Finding> findings) {}

    Sheet sheet(Reading reading) {
        Dashboard dashboard = reading.dashboard();
        Datasets once = OnceDatasets.of(reading.datasets(), dashboard, engine, LocalDate.now());
        return new Sheet(Wiring.of(dashboard, once), findings(dashboard, once, reading.keys()));
    }

    /** What the checker finds in what somebody composes. */
    List<Finding> findings(Reading reading) {
        return findings(
                reading.dashboard(),
                OnceDatasets.of(reading.datasets(), reading.dashboard(), engine, LocalDate.now()),
                reading.keys());
    }

    private List<Finding> findings(Dashboard dashboard, Datasets once, Function<String, Optional<SharedKey>> worn) {
        LocalDate today = LocalDate.now();
        PageDrawer drawer = new PageDrawer(
                Bound.of(dashboard, ReaderState.NOTHING, DocumentJson.PARTS),
                ReaderState.NOTHING,
                new Sources(once, worn, today),
                new Answerer(engine),
                Map.of());
        return Checker.check(dashboard, once, engine, new FilterScene(today, once, engine), drawer);
    }

    /**
     * What the checker finds in a dashboard, for the command line.
     *
     * @param dashboard its id, or its title
     * @throws IllegalArgumentException when there is none, or several of the title
     */
    public List<Finding> check(String dashboard) {
        Dashboard of = dashboards.named(dashboard);
        datasets.prepare(of.datasets()).join();
        return findings(of, OnceDatasets.of(datasets, of, engine, LocalDate.now()), keys::find);
    }
}
