package sarnik.dashboard;

import java.util.Map;
import sarnik.data.Datasets;
import sarnik.query.InMemoryEngine;
import sarnik.state.ReaderState;

/** Drawers for tests. */
final class Drawers {

    static final Answerer ANSWERER = new Answerer(new InMemoryEngine());

    private Drawers() {}

    static PageDrawer of(Dashboard dashboard, ReaderState state, Datasets datasets) {
        return of(dashboard, state, new Sources(datasets));
    }

    static PageDrawer of(Dashboard dashboard, ReaderState state, Sources sources) {
        return new PageDrawer(dashboard, state, sources, ANSWERER, Map.of());
    }
}
