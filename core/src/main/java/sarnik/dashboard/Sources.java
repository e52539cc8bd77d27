package sarnik.dashboard;

import java.util.Optional;
import java.util.function.Function;

/**
 * What dashboards are drawn from.
 *
 * @param datasets finds datasets
 * @param keys finds shared keys by name
 */
public record Sources(Datasets datasets, Function<String, Optional<SharedKey>> keys) {

    /** Datasets only. */
    public Sources(Datasets datasets) {
        this(datasets, name -> Optional.empty());
    }
}
