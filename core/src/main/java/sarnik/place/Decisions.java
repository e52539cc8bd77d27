package sarnik.place;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/**
 * What a person has decided about words that placing was not sure of.
 *
 * @param places the place of each decided set of words; empty where its rows are left out
 */
public record Decisions(Map<Words, Optional<Place>> places) {

    public static final Decisions NONE = new Decisions(Map.of());

    private static final Pattern BY_HAND = Pattern.compile("c(-?\\d{1,3}(?:\\.\\d+)?),(-?\\d{1,2}(?:\\.\\d+)?)");

    public Decisions {
        places = Map.copyOf(places);
    }

    /**
     * The place of an id: one of the gazetteer, or a point put on the map by hand, {@code c<degrees east>,<degrees
     * north>}.
     *
     * @return empty where there is none of this id, or the point lies outside the world
     */
    public static Optional<Place> place(String id, Gazetteer gazetteer) {
        Matcher point = BY_HAND.matcher(id);
        if (!point.matches()) return gazetteer.find(id);
        double lon = Double.parseDouble(point.group(1));
        double lat = Double.parseDouble(point.group(2));
        return Math.abs(lon) > 180 || Math.abs(lat) > 90
                ? Optional.empty()
                : Optional.of(new CoordinatePlacer(gazetteer).point(lon, lat));
    }

    /** The matches with what was decided in the place of what was found; the rest stays as it is. */
    List<Match> over(List<Words> words, List<Match> matches) {
        if (places.isEmpty()) return matches;
        return IntStream.range(0, matches.size())
                .mapToObj(i -> {
                    Match found = matches.get(i);
                    Optional<Place> decided = places.get(words.get(i));
                    if (decided == null) return found;
                    return decided.map(place -> new Match(place, Match.State.PLACED, 1, DECIDED, found.runnersUp()))
                            .orElseGet(() -> new Match(null, Match.State.UNPLACED, 1, LEFT_OUT, found.runnersUp()));
                })
                .toList();
    }

    static final String DECIDED = "Decided by hand.";
    static final String LEFT_OUT = "Left out by hand.";
}
