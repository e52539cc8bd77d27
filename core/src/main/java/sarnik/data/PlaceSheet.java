package sarnik.data;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sarnik.place.Place;
import sarnik.place.PlaceLevel;
import sarnik.table.Rounded;

/**
 * The places of a dataset as the browser keeps them: drawings name a place by its number in this list, so that a
 * narrowing
 * sends figures and nothing else. Immutable.
 *
 * @param tag changes with the content
 * @param ids places, ascending
 * @param names what they are called
 * @param within the province or country they lie in; empty where that is not known
 * @param lon degrees east
 * @param lat degrees north
 * @param index the number of a place by its id
 */
public record PlaceSheet(
        String tag,
        List<String> ids,
        List<String> names,
        List<String> within,
        double[] lon,
        double[] lat,
        @JsonIgnore Map<String, Integer> index) {

    /** Decimals of a degree that are kept: about a metre. */
    private static final double DEGREE = 1e5;

    /** @param around knows the provinces of places */
    static PlaceSheet of(Collection<Place> places, Boundaries around) {
        List<Place> sorted =
                places.stream().sorted(Comparator.comparing(Place::id)).toList();
        List<String> ids = new ArrayList<>(sorted.size());
        List<String> names = new ArrayList<>(sorted.size());
        List<String> within = new ArrayList<>(sorted.size());
        double[] lon = new double[sorted.size()];
        double[] lat = new double[sorted.size()];
        Map<String, Integer> index = new HashMap<>();
        long hash = 1125899906842597L;
        for (int i = 0; i < lon.length; i++) {
            Place place = sorted.get(i);
            ids.add(place.id());
            names.add(place.said());
            within.add(within(place, around));
            lon[i] = Rounded.up(place.lon() * DEGREE) / DEGREE;
            lat[i] = Rounded.up(place.lat() * DEGREE) / DEGREE;
            index.put(place.id(), i);
            hash = 31 * hash + place.id().hashCode();
            hash = 31 * hash + place.said().hashCode();
            hash = 31 * hash + Double.hashCode(lon[i]) + 7L * Double.hashCode(lat[i]);
        }
        return new PlaceSheet(Long.toString(hash, 36), ids, names, within, lon, lat, index);
    }

    private static String within(Place place, Boundaries around) {
        if (place.level() == PlaceLevel.AREA) return "";
        return around.provinceOf(place).map(Place::said).orElse(place.country());
    }
}
