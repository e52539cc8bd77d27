package sarnik.place;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Places things that say where they are: each is one place, by its name, wherever it has gone. */
final class ThingPlacer {

    private static final double NEAR_A_TOWN = 25_000;

    /** A town is looked for anew once a thing has gone so far, in degrees. */
    private static final double CELL = 0.02;

    private static final int MOST_CELLS = 100_000;

    /** The nearest town of a cell; a place without a name where there is none. */
    private static final Map<Long, Place> TOWNS = new ConcurrentHashMap<>();

    private static final Place NO_TOWN = new Place("", PlaceLevel.POINT, "", "", "", "", false, 0, 0, 0);

    private final Gazetteer gazetteer;
    private final Map<String, String> names;

    /** @param names what things are called, by what tells them apart */
    ThingPlacer(Gazetteer gazetteer, Map<String, String> names) {
        this.gazetteer = gazetteer;
        this.names = names;
    }

    /** @param words the thing as {@code town}, its latitude as {@code province} and its longitude as {@code country} */
    Match place(Words words) {
        String thing = words.town();
        if (thing.isEmpty()) return Match.unplaced("It is not said what this is.");
        if (words.province().isEmpty() || words.country().isEmpty())
            return Match.unplaced("It has not said where it is.");
        double lat = Degrees.read(words.province());
        double lon = Degrees.read(words.country());
        if (!(Math.abs(lat) <= 90 && Math.abs(lon) <= 180))
            return Match.unplaced("“%s, %s” lies outside the world.".formatted(words.province(), words.country()));
        Place near = town(lon, lat);
        Place place = new Place(
                "t" + thing,
                PlaceLevel.POINT,
                names.getOrDefault(thing, thing),
                near.country(),
                near.region(),
                near.province(),
                false,
                lon,
                lat,
                0);
        return new Match(place, Match.State.PLACED, 0.98, "It says where it is.", List.of());
    }

    private Place town(double lon, double lat) {
        long x = (long) Math.floor(lon / CELL);
        long y = (long) Math.floor(lat / CELL);
        if (TOWNS.size() > MOST_CELLS) TOWNS.clear();
        return TOWNS.computeIfAbsent(
                x << 32 | y & 0xffffffffL,
                cell -> gazetteer
                        .nearestTown((x + 0.5) * CELL, (y + 0.5) * CELL, NEAR_A_TOWN)
                        .orElse(NO_TOWN));
    }
}
