package sarnik.geo;

import java.util.Optional;

/**
 * A boundary set with the index that finds its areas, and which of them touch. Safe to share between threads.
 */
public record IndexedSet(BoundarySet set, AreaFinder finder, Touching touching) {

    public IndexedSet(BoundarySet set) {
        this(set, new AreaFinder(set), new Touching(set.areas()));
    }

    /**
     * @param lon degrees east
     * @param lat degrees north
     * @return the area that holds the point; empty where none does
     */
    public Optional<Area> at(double lon, double lat) {
        int found = finder.at(lon, lat);
        return found < 0 ? Optional.empty() : Optional.of(set.areas().get(found));
    }
}
