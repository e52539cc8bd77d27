package sarnik.place;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.geo.Area;
import sarnik.geo.BoundarySet;

/**
 * Matches codes and names with the areas of a boundary set: codes with lost leading zeros too, names in any case and
 * without accents, countries by every name they have.
 */
public final class AreaMatcher {

    private final String set;
    private final Map<String, Area> byCode = new HashMap<>();
    private final Map<String, Area> byName = new HashMap<>();
    /** Names that several areas have. */
    private final Set<String> shared = new HashSet<>();

    AreaMatcher(BoundarySet boundaries) {
        set = boundaries.name();
        for (Area area : boundaries.areas()) {
            byCode.put(area.code(), area);
            // Names in two languages, such as "Alacant/Alicante", are known by each of them.
            for (String name : area.name().split("/")) add(name, area);
            add(area.name(), area);
        }
    }

    private void add(String name, Area area) {
        String folded = PlaceNames.fold(name);
        if (folded.isEmpty()) return;
        Area other = byName.put(folded, area);
        if (other != null && other != area) shared.add(folded);
    }

    Match match(String value) {
        if (value.isEmpty()) return Match.unplaced("The value is missing.");
        Area exact = byCode.get(value);
        if (exact != null) return placed(exact, 0.99, "The code fits.");
        if (value.matches("[0-9]+")) {
            for (int zeros = 1; zeros <= 4; zeros++) {
                Area mended = byCode.get("0".repeat(zeros) + value);
                if (mended != null) return placed(mended, 0.95, "The code fits with its lost leading zero.");
            }
        }
        String folded = PlaceNames.fold(value);
        Area named = byName.get(folded);
        if (named == null) named = byOtherName(value);
        if (named == null) return Match.unplaced("No area of “%s” has the code or name “%s”.".formatted(set, value));
        if (shared.contains(folded))
            return new Match(
                    place(set, named),
                    Match.State.DOUBTFUL,
                    0.5,
                    "Several areas are called so; this is one of them. Codes tell them apart.",
                    List.of());
        return placed(named, 0.98, "The name fits.");
    }

    /**
     * The area of a country or a region that is written by another of its names or codes; null where that is no area
     * of this set.
     */
    private Area byOtherName(String value) {
        if (NoPlace.is(value) && !value.matches("[0-9]{3}")) return null;
        Gazetteer gazetteer = Gazetteer.shipped();
        Area country = gazetteer
                .country(value)
                .or(() -> gazetteer
                        .byCode(value)
                        .filter(p -> p.level() == PlaceLevel.COUNTRY)
                        .map(Place::country))
                .map(byCode::get)
                .orElse(null);
        if (country != null) return country;
        List<Area> regions = gazetteer.regions(value).stream()
                .map(p -> byName.get(PlaceNames.fold(p.name())))
                .filter(a -> a != null && !shared.contains(PlaceNames.fold(a.name())))
                .distinct()
                .toList();
        return regions.size() == 1 ? regions.get(0) : null;
    }

    private Match placed(Area area, double confidence, String reason) {
        return new Match(place(set, area), Match.State.PLACED, confidence, reason, List.of());
    }

    /** An area of the set of this name as a place, at a point inside it. */
    public static Place place(String set, Area area) {
        double[] at = area.inside();
        return new Place(
                "a" + set + "/" + area.code(), PlaceLevel.AREA, area.name(), "", "", "", false, at[0], at[1], 0);
    }
}
