package sarnik.data;

import java.util.Optional;
import sarnik.geo.IndexedSet;
import sarnik.place.Gazetteer;
import sarnik.place.Place;

/** Where dashboards find what lies around places: boundary sets, and the province of a place. */
@FunctionalInterface
public interface Boundaries {

    /** None at all. */
    Boundaries NONE = new Boundaries() {
        @Override
        public Optional<IndexedSet> find(String name) {
            return Optional.empty();
        }

        @Override
        public Optional<Place> provinceOf(Place place) {
            return Optional.empty();
        }
    };

    /** The set of this name; empty when it has gone. */
    Optional<IndexedSet> find(String name);

    /** The province in which a place lies, by the gazetteer that ships if nothing else is said. */
    default Optional<Place> provinceOf(Place place) {
        return Gazetteer.shipped().provinceOf(place);
    }
}
