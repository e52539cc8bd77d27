package sarnik.data;

import java.util.Optional;
import sarnik.geo.IndexedSet;

/** Where dashboards find boundary sets. */
@FunctionalInterface
public interface Boundaries {

    /** None at all. */
    Boundaries NONE = name -> Optional.empty();

    /** The set of this name; empty when it has gone. */
    Optional<IndexedSet> find(String name);
}
