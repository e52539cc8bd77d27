package sarnik.format;

import java.io.IOException;
import java.util.Optional;
import java.util.function.Consumer;

/** The features of a file, whatever its format. They can be gone through more than once. */
public interface FeatureSource {

    /**
     * Shows all features in their order.
     *
     * @throws sarnik.table.UnreadableTableException when the file breaks its format's rules
     */
    void each(Consumer<Feature> visitor) throws IOException;

    /** What has to be said before the shapes have a place, as a sentence; empty where all is known. */
    default Optional<String> asks() {
        return Optional.empty();
    }

    /** How the file is written, for people. */
    String words();
}
