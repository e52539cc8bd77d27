package sarnik.dashboard;

import java.util.Optional;

/** Where dashboards find their datasets. */
@FunctionalInterface
public interface Datasets {

    /** The dataset of this id; empty when it has gone. */
    Optional<LoadedDataset> find(long id);

    /**
     * @throws MisfitException when it has gone
     */
    default LoadedDataset get(long id) {
        return find(id).orElseThrow(() -> new MisfitException(
                "The dataset of this visual has gone. Choose another dataset in its brief, or take the visual away."));
    }
}
