package sarnik.place;

import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * The list of places that ships with Sarnik: the towns of the world over 500 people with all capitals, the
 * municipalities of
 * Spain, regions, provinces and countries, with their names in many languages and scripts. Immutable, safe to share
 * between
 * threads.
 *
 * <p>Sources: GeoNames (CC BY 4.0), Instituto Geográfico Nacional (CC BY 4.0), Natural Earth, Unicode CLDR. See
 * {@code docs/data.md}.
 */
public final class Gazetteer {

    private final GazetteerIndex index;
    private final NameTable towns;
    private final NameTable regions;
    private final NameTable countries;

    /** Made when it is first asked. */
    private volatile TownIndex townIndex;

    /** How many towns lie in each country, region and province, by code; made when it is first asked. */
    private volatile Map<String, Integer> counts;

    /** A region that is known by its shape alone holds towns this near to its middle, metres. */
    private static final double WITHIN_SHAPE = 60_000;

    /**
     * A place under one of its names.
     *
     * @param main whether it is the name it goes by
     * @param whole whether with its article
     * @param lesser whether it is a part of a town, or there no more
     */
    record Named(Place place, boolean main, boolean whole, boolean lesser) {}

    /** Places that are not to be found by name; null for none. */
    private final Predicate<Place> hidden;

    private Gazetteer(GazetteerIndex index, Predicate<Place> hidden) {
        this.index = index;
        this.hidden = hidden;
        towns = index.table(NameTable.Of.TOWNS);
        regions = index.table(NameTable.Of.REGIONS);
        countries = index.table(NameTable.Of.COUNTRIES);
    }

    private static final class Holder {
        private static final Gazetteer SHIPPED = new Gazetteer(GazetteerIndex.shipped(), null);
    }

    /**
     * The shipped gazetteer; mapped from its index on first use, which is built where it is not there yet.
     *
     * @throws UncheckedIOException when the packs are missing from the class path
     */
    public static Gazetteer shipped() {
        return Holder.SHIPPED;
    }

    /**
     * The same list without some places: how it is to place what no list knows can be tried with places that are known.
     */
    Gazetteer without(Predicate<Place> places) {
        return new Gazetteer(index, places);
    }

    private Optional<Place> byKey(String key) {
        int found = index.byKey(key);
        return found < 0 ? Optional.empty() : Optional.of(index.place(found));
    }

    /** The place of this id. */
    public Optional<Place> find(String id) {
        return byKey("i:" + id).filter(place -> place.id().equals(id));
    }

    /** The area (country, region or province) with this code, such as {@code ES}, {@code ES.55} or {@code ES.55.SO}. */
    public Optional<Place> area(String code) {
        return byKey("a:" + code);
    }

    /** The province of a place, or its region where the country's provinces are its regions (Portugal's districts). */
    public Optional<Place> provinceOf(Place place) {
        String code = place.country().equals("ES") && !place.province().isEmpty() ? place.province() : place.region();
        return area(code);
    }

    /** All towns of a country, largest first. */
    public List<Place> townsOf(String country) {
        return IntStream.range(0, index.size())
                .filter(i -> isTown(i) && index.country(i).equals(country))
                .mapToObj(index::place)
                .sorted(Comparator.comparingLong(Place::population).reversed().thenComparing(Place::id))
                .toList();
    }

    private boolean isTown(int i) {
        return index.level(i) == PlaceLevel.TOWN && index.seat(i) >= 0;
    }

    /**
     * The town nearest to a point.
     *
     * @param within metres; farther ones do not count
     */
    Optional<Place> nearestTown(double lon, double lat, double within) {
        return townIndex().nearest(lon, lat, within);
    }

    private TownIndex townIndex() {
        TownIndex known = townIndex;
        if (known == null) {
            synchronized (this) {
                if (townIndex == null)
                    townIndex = new TownIndex(
                            IntStream.range(0, index.size())
                                    .filter(this::isTown)
                                    .toArray(),
                            index::lon,
                            index::lat,
                            index::place);
                known = townIndex;
            }
        }
        return known;
    }

    /** Towns of this written name, each once, with the best way in which the name fits. */
    List<Named> towns(String written) {
        for (String spelling : PlaceNames.spellings(written)) {
            List<Named> found = townsFolded(PlaceNames.fold(spelling));
            if (!found.isEmpty()) return found;
        }
        return List.of();
    }

    /**
     * Whether an area holds a town: it is the town's own region or province, or a shape by itself in whose middle the
     * town lies.
     */
    static boolean holds(Place area, Place town) {
        if (area.level() == PlaceLevel.PROVINCE) return area.province().equals(town.province());
        if (area.region().indexOf('-') < 0) return area.region().equals(town.region());
        return area.country().equals(town.country()) && area.metresTo(town) < WITHIN_SHAPE;
    }

    /** The share of all towns that lie in a country. */
    double shareOf(String country) {
        return counted().getOrDefault(country, 1) / (double) index.size();
    }

    /** The share of all towns that lie in some areas. */
    double shareOf(List<Place> areas) {
        double sum = 0;
        for (Place area : areas)
            sum += counted().getOrDefault(area.level() == PlaceLevel.PROVINCE ? area.province() : area.region(), 1);
        return Math.min(1, sum / index.size());
    }

    private Map<String, Integer> counted() {
        Map<String, Integer> known = counts;
        if (known == null) {
            known = index.townsByCode();
            counts = known;
        }
        return known;
    }

    /**
     * Places that a person may mean by some words: towns, regions and provinces of that name, else towns whose name is
     * a slip
     * away; those that go by the name come before those that have it besides, and of either the likeliest first.
     *
     * @param most how many at the most
     */
    public List<Place> search(String words, int most) {
        Words split = Words.of(words, this);
        Stream<Place> found = split.town() == null
                ? Stream.of()
                : new NamePlacer(this)
                        .candidates(split).towns().stream()
                                .sorted(Comparator.comparing((Candidates.Town t) -> !NamePlacer.isMain(t))
                                        .thenComparing(Comparator.comparingDouble(Candidates.Town::weight)
                                                .reversed()))
                                .map(Candidates.Town::place);
        return Stream.concat(found, regions(words).stream())
                .distinct()
                .limit(most)
                .toList();
    }

    private List<Named> townsFolded(String whole) {
        int[] found = towns.bearers(whole);
        if (found.length == 0) found = towns.bearers(PlaceNames.withoutArticle(whole));
        Stream<Named> named = Arrays.stream(found).mapToObj(this::named);
        return (hidden == null ? named : named.filter(n -> !hidden.test(n.place()))).toList();
    }

    private Named named(int bearer) {
        int place = bearer >> NameTable.FLAGS;
        return new Named(
                index.place(place),
                (bearer & NameTable.MAIN) != 0,
                (bearer & NameTable.WHOLE) != 0,
                index.seat(place) < 0);
    }

    private List<Place> places(int[] bearers) {
        return Arrays.stream(bearers)
                .mapToObj(b -> index.place(b >> NameTable.FLAGS))
                .distinct()
                .toList();
    }

    /** How a written name that is not in the list as it stands may still be meant. */
    enum Slip {
        ABBREVIATED("written out as"),
        SWAPPED("with its words in another order"),
        ONE_SLIP("one letter off"),
        TWO_SLIPS("two letters off");

        private final String words;

        Slip(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    /**
     * A place whose name is not quite what is written.
     *
     * @param name the name that is near, folded
     */
    record Nearly(Named named, Slip slip, String name) {}

    /** Towns that may be meant by a name that is not written as it is, each with the least slip. */
    List<Nearly> nearlyTowns(String written) {
        String whole = PlaceNames.fold(written);
        Map<Place, Nearly> found = new LinkedHashMap<>();
        for (String out : PlaceNames.writtenOut(whole))
            townsFolded(out).forEach(n -> found.putIfAbsent(n.place(), new Nearly(n, Slip.ABBREVIATED, out)));
        for (String name : towns.withTheWords(PlaceNames.bag(whole))) {
            if (!name.equals(whole))
                townsFolded(name).forEach(n -> found.putIfAbsent(n.place(), new Nearly(n, Slip.SWAPPED, name)));
        }
        for (NameTable.Near near : towns.near(whole)) {
            townsFolded(near.name())
                    .forEach(n -> found.putIfAbsent(
                            n.place(), new Nearly(n, near.slips() == 1 ? Slip.ONE_SLIP : Slip.TWO_SLIPS, near.name())));
        }
        return List.copyOf(found.values());
    }

    /** Regions and provinces whose name is a slip away from what is written. */
    List<Place> nearlyRegions(String written) {
        List<NameTable.Near> near = regions.near(PlaceNames.fold(written));
        return near.stream()
                .filter(n -> n.slips() == near.get(0).slips())
                .flatMap(n -> places(regions.bearers(n.name())).stream())
                .distinct()
                .toList();
    }

    /** Regions and provinces of this written name or code; empty when there is none. */
    List<Place> regions(String written) {
        for (String spelling : PlaceNames.spellings(written)) {
            for (String folded : PlaceNames.ofAreas(PlaceNames.fold(spelling))) {
                int[] found = regions.bearers(folded);
                if (found.length == 0) found = regions.bearers(PlaceNames.withoutArticle(folded));
                if (found.length > 0) return places(found);
            }
        }
        return List.of();
    }

    /** The country, region, province or municipality with this code as it stands. */
    Optional<Place> byCode(String code) {
        if (code.matches("[0-9]{5}")) return byKey("m:" + code);
        if (code.matches("[0-9]{3}") || code.matches("[A-Za-z]{2,3}"))
            return byKey("c:" + code.toUpperCase(Locale.ROOT));
        if (code.matches("[0-9]{2}")) return byKey("n:" + code);
        return code.matches("[A-Za-z]{2}-[A-Za-z0-9]{1,3}")
                ? byKey("c:" + code.toUpperCase(Locale.ROOT))
                : Optional.empty();
    }

    /** The alpha-2 code of a country written as a name or an ISO 3166-1 alpha-2 or alpha-3 code. */
    Optional<String> country(String written) {
        if (written == null) return Optional.empty();
        for (String spelling : PlaceNames.names(written)) {
            int[] found = countries.bearers(PlaceNames.squashed(spelling));
            if (found.length > 0) return Optional.of(index.country(found[0] >> NameTable.FLAGS));
        }
        return Optional.empty();
    }

    /** Whether some words are the letters of a country's code, rather than its name. */
    boolean isCountryCode(String written) {
        int[] found = countries.bearers(PlaceNames.squashed(written));
        return found.length > 0
                && (found[0] & NameTable.CODE) != 0
                && written.strip().length() <= 3;
    }
}
