package sarnik.app.dashboard;

import java.time.LocalDate;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;
import sarnik.data.Formulated;
import sarnik.data.SheetFormula;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.query.QueryEngine;
import sarnik.state.ReaderState;

/** Looks each dataset up once, so that all figures of one answer rest on one version. */
final class OnceDatasets implements Datasets {

    private static final QueryEngine ENGINE = new InMemoryEngine();

    private final Datasets datasets;
    private final Map<Long, Found> seen = new ConcurrentHashMap<>();

    private OnceDatasets(Datasets datasets) {
        this.datasets = datasets;
    }

    static Datasets of(Datasets datasets) {
        return new OnceDatasets(datasets);
    }

    /** Datasets with the measures of a dashboard, for what readers set at first. */
    static Datasets of(Datasets datasets, Dashboard dashboard) {
        return formulated(of(datasets), dashboard, ReaderState.NOTHING);
    }

    /**
     * A reader's state as it was read.
     *
     * @param datasets with the measures of the dashboard, for what the reader has set
     */
    record Read(StateReader.Read read, Datasets datasets) {
        ReaderState state() {
            return read.state();
        }
    }

    /**
     * @param state a reader state's text form
     */
    static Read read(Reading reading, String state) {
        Dashboard dashboard = reading.dashboard();
        Datasets once = of(reading.datasets());
        StateReader.Read read =
                StateReader.read(state, dashboard, formulated(once, dashboard, ReaderState.NOTHING), Kinds.ALL);
        return new Read(read, formulated(once, dashboard, read.state()));
    }

    private static Datasets formulated(Datasets once, Dashboard dashboard, ReaderState state) {
        return dashboard.formulas().isEmpty()
                ? once
                : of(Formulated.of(
                        scene(once, dashboard, state), dashboard.formulas().values()));
    }

    /** What measures of a dashboard are worked out in. */
    static SheetFormula.Scene scene(Datasets once, Dashboard dashboard, ReaderState state) {
        return new SheetFormula.Scene(once, ENGINE, LocalDate.now(), Narrowing.parameters(dashboard, state));
    }

    @Override
    public Found find(long id) {
        // Not computed within the map: a dataset may have to be waited for.
        Found known = seen.get(id);
        if (known != null) return known;
        Found found = datasets.find(id);
        Found first = seen.putIfAbsent(id, found);
        return first == null ? found : first;
    }

    @Override
    public Boundaries boundaries() {
        return datasets.boundaries();
    }
}
