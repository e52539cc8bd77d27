package sarnik.app.dashboard;

import java.util.List;
import sarnik.app.dataset.FrozenDataset;
import sarnik.visual.SharedKey;

/**
 * What an edition rests on beside its document.
 *
 * @param datasets those that it shows as they were; all others it shows as they are
 * @param keys the shared keys as they were
 */
record RestsOn(List<FrozenDataset> datasets, List<SharedKey> keys) {

    RestsOn {
        datasets = datasets == null ? List.of() : List.copyOf(datasets);
        keys = keys == null ? List.of() : List.copyOf(keys);
    }
}
