package sarnik.visual;

import sarnik.data.LoadedDataset;
import sarnik.query.Query;

/** A query to a dataset. Two are the same when they ask the same of the same rows. */
public record Asked(LoadedDataset dataset, Query query) {

    /** The query with what its dataset knows of formulas. */
    public Asked {
        query = query.with(dataset.measures());
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Asked asked && asked.dataset.table() == dataset.table() && asked.query.equals(query);
    }

    @Override
    public int hashCode() {
        return 31 * System.identityHashCode(dataset.table()) + query.hashCode();
    }
}
