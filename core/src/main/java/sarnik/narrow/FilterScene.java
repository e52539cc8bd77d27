package sarnik.narrow;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.query.QueryEngine;
import sarnik.query.Stage;

/**
 * What a filter is worked out in.
 *
 * @param today the day that relative periods are counted from
 * @param before what narrows the rows of its own dataset before it
 * @param parameters what readers set, by the names that rules know it by
 * @param engine answers what it has to ask
 */
public record FilterScene(
        LocalDate today, Datasets datasets, List<Stage> before, Map<String, Object> parameters, QueryEngine engine) {

    /** Before anything is narrowed. */
    public FilterScene(LocalDate today, Datasets datasets, QueryEngine engine) {
        this(today, datasets, List.of(), Map.of(), engine);
    }

    /** The same behind other stages. */
    FilterScene after(List<Stage> stages) {
        return new FilterScene(today, datasets, stages, parameters, engine);
    }

    /** The dataset that a filter is about, where it can be asked. */
    public Optional<LoadedDataset> of(Filter filter) {
        return datasets.ready(filter.dataset());
    }
}
