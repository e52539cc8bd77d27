package sarnik.place;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;

/**
 * The list of places that ships with Sarnik: towns of Spain and Portugal, towns of the world over 15,000 people,
 * provinces, regions and countries, with their names in several languages. Immutable, safe to share between threads.
 *
 * <p>Sources: GeoNames (CC BY 4.0), Instituto Geográfico Nacional (CC BY 4.0), Natural Earth; country names and codes
 * from the JDK. See {@code docs/data.md}.
 */
public final class Gazetteer {

    /** Languages in which a country may be written. */
    private static final List<String> COUNTRY_LANGUAGES = List.of("en", "es", "pt", "fr", "de", "it", "ca", "gl", "eu", "nl");

    /** Degrees of a cell in which towns are looked for by position. */

    private static final Map<String, String> COMMON_SHORT =
            Map.of("uk", "GB", "usa", "US", "united states of america", "US", "holland", "NL", "england", "GB");

    private final Map<String, Place> byId = new HashMap<>();
    private final Map<String, Named[]> towns;
    private final Map<String, Place[]> regions;
    private final Map<String, String> countries = new HashMap<>();
    private final Map<String, String> numericCountries = new HashMap<>();
    private final Map<String, Place> areas = new HashMap<>();
    private final Map<String, Place> municipalities = new HashMap<>();

    /** Made when a name is first not found as it stands. */
    private FuzzyNames fuzzyTowns;

    private FuzzyNames fuzzyRegions;
    private Map<String, List<String>> swapped;
    /** Made when it is first asked. */
    private volatile TownIndex townIndex;

    /** A place under one of its names: {@code main} where it is the name it goes by, {@code whole} with its article. */
    record Named(Place place, boolean main, boolean whole) {}

    private Gazetteer() {
        readCountries();
        Map<String, List<Place>> regionLists = new HashMap<>();
        lines("regions.tsv.gz", c -> {
            PlaceLevel level = c[0].equals("region") ? PlaceLevel.REGION : PlaceLevel.PROVINCE;
            String country = c[1].substring(0, 2);
            String region = level == PlaceLevel.REGION ? c[1] : c[1].substring(0, c[1].lastIndexOf('.'));
            String province = level == PlaceLevel.PROVINCE ? c[1] : "";
            Place place = new Place("r" + c[1], level, c[2], country, region, province, false,
                    Double.parseDouble(c[6]), Double.parseDouble(c[7]), Long.parseLong(c[8]));
            byId.put(place.id(), place);
            areas.put(c[1], place);
            for (String name : names(c[2], c[3])) addRegion(regionLists, name, place);
            if (!c[4].isEmpty()) addRegion(regionLists, c[4], place);
            if (!c[5].isEmpty()) addRegion(regionLists, c[5], place);
        });
        Map<String, List<Named>> townLists = new HashMap<>();
        lines("places.tsv.gz", c -> {
            Place place = new Place(c[0], PlaceLevel.TOWN, c[1], c[3], c[4], c[5], c[7].equals("1"),
                    Double.parseDouble(c[8]), Double.parseDouble(c[9]), Long.parseLong(c[10]));
            byId.put(place.id(), place);
            // The seat speaks for its municipality; the list has the largest place first.
            if (!c[6].isEmpty()) municipalities.merge(c[6], place, (first, next) -> !first.seat() && next.seat() ? next : first);
            for (String name : names(c[1], c[2])) {
                boolean main = name.equals(c[1]) || c[1].contains("/") && c[1].contains(name);
                String whole = PlaceNames.fold(name);
                addTown(townLists, whole, new Named(place, main, true));
                String bare = PlaceNames.withoutArticle(whole);
                if (!bare.equals(whole)) addTown(townLists, bare, new Named(place, main, false));
            }
        });
        towns = new HashMap<>(townLists.size() * 2);
        townLists.forEach((name, list) -> towns.put(name, list.toArray(Named[]::new)));
        regions = new HashMap<>(regionLists.size() * 2);
        regionLists.forEach((name, list) -> regions.put(name, list.toArray(Place[]::new)));
    }

    private static final class Holder {
        private static final Gazetteer SHIPPED = new Gazetteer();
    }

    /**
     * The shipped gazetteer; read on first use, in about a second.
     *
     * @throws UncheckedIOException when the packs are missing from the class path
     */
    public static Gazetteer shipped() {
        return Holder.SHIPPED;
    }

    /** The place of this id. */
    public Optional<Place> find(String id) {
        return Optional.ofNullable(byId.get(id));
    }

    /** The area (country, region or province) with this code, such as {@code ES}, {@code ES.55} or {@code ES.55.SO}. */
    public Optional<Place> area(String code) {
        return Optional.ofNullable(areas.get(code));
    }

    /** The province of a place, or its region where the country's provinces are its regions (Portugal's districts). */
    public Optional<Place> provinceOf(Place place) {
        String code = place.country().equals("ES") && !place.province().isEmpty() ? place.province() : place.region();
        return area(code);
    }

    /** All towns of a country, largest first. */
    public List<Place> townsOf(String country) {
        return byId.values().stream()
                .filter(p -> p.level() == PlaceLevel.TOWN && p.country().equals(country))
                .sorted((a, b) -> a.population() == b.population()
                        ? a.id().compareTo(b.id())
                        : Long.compare(b.population(), a.population()))
                .toList();
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
                if (townIndex == null) townIndex = new TownIndex(byId.values().stream().filter(p -> p.level() == PlaceLevel.TOWN).toList());
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
     * Places that a person may mean by some words: towns, regions and provinces of that name, else towns whose name is a slip
     * away; the likeliest first.
     *
     * @param most how many at the most
     */
    public List<Place> search(String words, int most) {
        Words split = Words.of(words, this);
        Stream<Place> found = split.town() == null ? Stream.of() : new NamePlacer(this).candidates(split).towns().stream()
                .sorted(Comparator.comparingDouble(Candidates.Town::weight).reversed()).map(Candidates.Town::place);
        return Stream.concat(found, regions(words).stream()).distinct().limit(most).toList();
    }

    private List<Named> townsFolded(String whole) {
        Named[] found = towns.get(whole);
        if (found == null) found = towns.get(PlaceNames.withoutArticle(whole));
        return found == null ? List.of() : Arrays.asList(found);
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

    /** A place whose name is not quite what is written. */
    record Nearly(Named named, Slip slip) {}

    /** Towns that may be meant by a name that is not written as it is, each with the least slip. */
    List<Nearly> nearlyTowns(String written) {
        String whole = PlaceNames.fold(written);
        Map<Place, Nearly> found = new LinkedHashMap<>();
        for (String out : PlaceNames.writtenOut(whole)) townsFolded(out).forEach(n -> found.putIfAbsent(n.place(), new Nearly(n, Slip.ABBREVIATED)));
        for (String name : swapped().getOrDefault(PlaceNames.bag(whole), List.of())) {
            if (!name.equals(whole)) townsFolded(name).forEach(n -> found.putIfAbsent(n.place(), new Nearly(n, Slip.SWAPPED)));
        }
        for (FuzzyNames.Near near : fuzzyTowns().near(whole)) {
            townsFolded(near.name()).forEach(n -> found.putIfAbsent(n.place(), new Nearly(n, near.slips() == 1 ? Slip.ONE_SLIP : Slip.TWO_SLIPS)));
        }
        return List.copyOf(found.values());
    }

    private synchronized FuzzyNames fuzzyTowns() {
        if (fuzzyTowns == null) fuzzyTowns = new FuzzyNames(towns.keySet());
        return fuzzyTowns;
    }

    private synchronized Map<String, List<String>> swapped() {
        if (swapped == null) {
            swapped = towns.keySet().stream().filter(n -> n.indexOf(' ') > 0).collect(Collectors.groupingBy(PlaceNames::bag));
        }
        return swapped;
    }

    /** Regions and provinces whose name is a slip away from what is written. */
    List<Place> nearlyRegions(String written) {
        synchronized (this) {
            if (fuzzyRegions == null) fuzzyRegions = new FuzzyNames(regions.keySet());
        }
        List<FuzzyNames.Near> near = fuzzyRegions.near(PlaceNames.fold(written));
        return near.stream().filter(n -> n.slips() == near.get(0).slips()).flatMap(n -> Arrays.stream(regions.get(n.name()))).distinct().toList();
    }

    /** Regions and provinces of this written name or code; empty when there is none. */
    List<Place> regions(String written) {
        for (String spelling : PlaceNames.spellings(written)) {
            String folded = PlaceNames.fold(spelling);
            Place[] found = regions.get(folded);
            if (found == null) found = regions.get(PlaceNames.withoutArticle(folded));
            if (found != null) return Arrays.asList(found);
        }
        return List.of();
    }

    /** The country, region, province or municipality with this code as it stands. */
    Optional<Place> byCode(String code) {
        if (code.matches("[0-9]{5}")) return Optional.ofNullable(municipalities.get(code));
        if (code.matches("[0-9]{3}") && numericCountries.containsKey(code)) return area(numericCountries.get(code));
        if (code.matches("[A-Za-z]{2,3}")) {
            Optional<Place> country = country(code).flatMap(this::area);
            if (country.isPresent()) return country;
        }
        Place[] found = code.matches("[0-9]{2}|[A-Za-z]{2}-[A-Za-z0-9]{1,3}") ? regions.get(PlaceNames.fold(code)) : null;
        return found == null ? Optional.empty() : Optional.of(found[0]);
    }

    /** The alpha-2 code of a country written as a name or an ISO 3166-1 alpha-2 or alpha-3 code. */
    Optional<String> country(String written) {
        return Optional.ofNullable(countries.get(PlaceNames.fold(written)));
    }

    /** ISO 3166-1 numeric codes. */
    private void readCountryNumbers() {
        try (var lines = new java.io.BufferedReader(new java.io.InputStreamReader(Gazetteer.class.getResourceAsStream("country-codes.tsv"), java.nio.charset.StandardCharsets.UTF_8))) {
            lines.lines().map(line -> line.split("\t")).forEach(c -> numericCountries.put(c[2], c[0]));
        } catch (java.io.IOException broken) {
            throw new java.io.UncheckedIOException(broken);
        }
    }

    private void readCountries() {
        readCountryNumbers();
        for (String code : Locale.getISOCountries()) {
            Locale country = new Locale("", code);
            countries.put(code.toLowerCase(Locale.ROOT), code);
            countries.put(country.getISO3Country().toLowerCase(Locale.ROOT), code);
            for (String language : COUNTRY_LANGUAGES) {
                countries.putIfAbsent(PlaceNames.fold(country.getDisplayCountry(new Locale(language))), code);
            }
        }
        countries.putAll(COMMON_SHORT);
        Map<String, double[]> sums = new HashMap<>();
        lines("places.tsv.gz", c -> {
            double people = Double.parseDouble(c[10]) + 1;
            double[] sum = sums.computeIfAbsent(c[3], k -> new double[3]);
            sum[0] += people * Double.parseDouble(c[8]);
            sum[1] += people * Double.parseDouble(c[9]);
            sum[2] += people;
        });
        sums.forEach((code, sum) -> {
            String name = new Locale("", code).getDisplayCountry(Locale.ENGLISH);
            Place place = new Place("r" + code, PlaceLevel.COUNTRY, name, code, "", "", false,
                    sum[0] / sum[2], sum[1] / sum[2], (long) sum[2]);
            byId.put(place.id(), place);
            areas.put(code, place);
        });
    }

    private static List<String> names(String main, String others) {
        List<String> names = new ArrayList<>();
        names.add(main);
        if (main.contains("/")) names.addAll(List.of(main.split("/")));
        if (!others.isEmpty()) names.addAll(List.of(others.split("\\|")));
        return names;
    }

    private static void addTown(Map<String, List<Named>> lists, String key, Named named) {
        if (key.isEmpty()) return;
        List<Named> list = lists.computeIfAbsent(key, k -> new ArrayList<>(1));
        for (int i = 0; i < list.size(); i++) {
            if (list.get(i).place() == named.place()) {
                Named old = list.get(i);
                list.set(i, new Named(named.place(), old.main() || named.main(), old.whole() || named.whole()));
                return;
            }
        }
        list.add(named);
    }

    private static void addRegion(Map<String, List<Place>> lists, String name, Place place) {
        String whole = PlaceNames.fold(name);
        for (String key : List.of(whole, PlaceNames.withoutArticle(whole))) {
            List<Place> list = lists.computeIfAbsent(key, k -> new ArrayList<>(1));
            if (!list.contains(place)) list.add(place);
        }
    }

    private interface Line {
        void take(String[] cells);
    }

    private static void lines(String pack, Line line) {
        try (var in = Gazetteer.class.getResourceAsStream(pack)) {
            if (in == null) throw new IOException("The pack " + pack + " is missing from the class path");
            var reader = new BufferedReader(new InputStreamReader(new GZIPInputStream(in), StandardCharsets.UTF_8));
            for (String text = reader.readLine(); text != null; text = reader.readLine()) line.take(text.split("\t", -1));
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }
}
