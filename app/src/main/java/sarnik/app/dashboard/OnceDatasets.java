package sarnik.app.dashboard;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;

/** Looks each dataset up once, so that all figures of one answer rest on one version. */
final class OnceDatasets implements Datasets {

    private final Datasets datasets;
    private final Map<Long, Found> seen = new ConcurrentHashMap<>();

    private OnceDatasets(Datasets datasets) {
        this.datasets = datasets;
    }

    static Datasets of(Datasets datasets) {
        return new OnceDatasets(datasets);
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
