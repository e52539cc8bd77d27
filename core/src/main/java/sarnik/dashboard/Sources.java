package sarnik.dashboard;

import java.time.LocalDate;
import java.util.Optional;
import java.util.function.Function;
import sarnik.data.Datasets;
import sarnik.visual.SharedKey;

/**
 * What dashboards are drawn from.
 *
 * @param datasets finds datasets
 * @param keys finds shared keys by name
 * @param today the day that relative periods are counted from
 */
public record Sources(Datasets datasets, Function<String, Optional<SharedKey>> keys, LocalDate today) {

    /** Datasets only. */
    public Sources(Datasets datasets) {
        this(datasets, name -> Optional.empty(), LocalDate.ofEpochDay(0));
    }
}
