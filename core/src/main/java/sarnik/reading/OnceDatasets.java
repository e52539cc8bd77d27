package sarnik.reading;

import java.time.LocalDate;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import sarnik.dashboard.Dashboard;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;
import sarnik.data.Formulated;
import sarnik.data.SheetFormula;
import sarnik.narrow.Narrowing;
import sarnik.query.QueryEngine;
import sarnik.state.ReaderState;

/** Looks each dataset up once, so that all figures of one answer rest on one version. */
public final class OnceDatasets implements Datasets {

    private final Datasets datasets;
    private final Map<Long, Found> seen = new ConcurrentHashMap<>();

    private OnceDatasets(Datasets datasets) {
        this.datasets = datasets;
    }

    public static Datasets of(Datasets datasets) {
        return new OnceDatasets(datasets);
    }

    /** Datasets with the measures of a dashboard, for what readers set at first. */
    public static Datasets of(Datasets datasets, Dashboard dashboard, QueryEngine engine, LocalDate today) {
        return formulated(of(datasets), dashboard, ReaderState.NOTHING, engine, today);
    }

    /** Datasets with the measures of a dashboard, for what a reader has set. */
    static Datasets formulated(
            Datasets once, Dashboard dashboard, ReaderState state, QueryEngine engine, LocalDate today) {
        return dashboard.formulas().isEmpty()
                ? once
                : of(Formulated.of(
                        scene(once, dashboard, state, engine, today),
                        dashboard.formulas().values()));
    }

    /** What measures of a dashboard are worked out in. */
    public static SheetFormula.Scene scene(
            Datasets once, Dashboard dashboard, ReaderState state, QueryEngine engine, LocalDate today) {
        return new SheetFormula.Scene(once, engine, today, Narrowing.parameters(dashboard, state));
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
