package sarnik.app.dataset;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import sarnik.place.Gazetteer;
import sarnik.place.Place;

/** Finds places by name. */
public final class PlaceSearch {

    private static final int MOST_FOUND = 9;
    private static final int MOST_LOOKED_AT = 60;

    private PlaceSearch() {}

    /** A place to choose. */
    public record Offer(String id, String words, double lon, double lat) {

        static Offer of(Place place) {
            return new Offer(place.id(), PlacingPreview.called(place), place.lon(), place.lat());
        }
    }

    /**
     * Places of a name.
     *
     * @param view west, south, east and north of what a map shows, degrees: what lies in it comes first; null for no
     *     map
     */
    public static List<Offer> of(String name, List<Double> view) {
        List<Place> found = Gazetteer.shipped().search(name, view == null ? MOST_FOUND : MOST_LOOKED_AT);
        if (view != null && view.size() == 4 && view.stream().allMatch(Objects::nonNull)) {
            found = found.stream()
                    .sorted(Comparator.comparing(p -> !(p.lon() >= view.get(0)
                            && p.lat() >= view.get(1)
                            && p.lon() <= view.get(2)
                            && p.lat() <= view.get(3))))
                    .toList();
        }
        // What reads alike is offered once.
        Map<String, Offer> offers = new LinkedHashMap<>();
        for (Place place : found) offers.putIfAbsent(PlacingPreview.called(place), Offer.of(place));
        return offers.values().stream().limit(MOST_FOUND).toList();
    }
}
