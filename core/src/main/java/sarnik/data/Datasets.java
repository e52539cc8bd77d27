package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.Optional;

/** Where dashboards find their datasets. */
@FunctionalInterface
public interface Datasets {

    /** The dataset of this id, or why it cannot be asked. Never fails because of what the dataset is. */
    Found find(long id);

    /** What is found of a dataset. */
    sealed interface Found {

        /** It can be asked. */
        record Ready(LoadedDataset dataset) implements Found {}

        /**
         * It is there, but cannot be asked as it stands.
         *
         * @param why a sentence for people: what, and how to mend it
         */
        record Unfit(String why) implements Found {}

        /** It is there no more. */
        record Gone() implements Found {}

        Gone GONE = new Gone();

        /** Ready where there is a dataset, else gone. */
        static Found of(Optional<LoadedDataset> dataset) {
            return dataset.<Found>map(Ready::new).orElse(GONE);
        }
    }

    /** The boundary sets that dashboards draw without any data. */
    default Boundaries boundaries() {
        return Boundaries.NONE;
    }

    /** The dataset of this id, where it can be asked. */
    default Optional<LoadedDataset> ready(long id) {
        return find(id) instanceof Found.Ready ready ? Optional.of(ready.dataset()) : Optional.empty();
    }

    /**
     * @throws MisfitException when it has gone or is unfit; the message says why
     */
    default LoadedDataset get(long id) {
        Found found = find(id);
        if (found instanceof Found.Ready ready) return ready.dataset();
        if (found instanceof Found.Unfit unfit) throw new MisfitException(unfit.why());
        throw new MisfitException(phrase(
                "The dataset of this visual has gone. Choose another dataset in its brief, or take the visual away."));
    }
}
