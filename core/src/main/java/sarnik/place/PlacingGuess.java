package sarnik.place;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import sarnik.geo.BoundarySet;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Reading;
import sarnik.table.Table;

/** Guesses which columns of a table tell where its rows are, from the columns' names and from their values. */
public final class PlacingGuess {

    private static final int LOOKED_AT = 400;
    private static final double ENOUGH = 0.5;
    private static final double NAME_COUNTS = 0.4;

    /** A name that is a slip away from a town's counts so much of one that is written right. */
    private static final double SLIP_COUNTS = 0.6;

    /** So many of a column's values have to be words at least. */
    private static final double MOST_NAMELESS = 0.3;

    /** So many of the towns of a column lie in one country, or are large. */
    private static final double TOGETHER = 0.5;

    private static final int LARGE = 100_000;

    /** What is written like a date or a time: a time is never a place. */
    private static final Pattern MOMENT = Pattern.compile(
            "\\d{1,4}[-/.]\\d{1,2}[-/.]\\d{1,4}|\\d{1,2}:\\d{2}|\\d{4}-?[QW]\\d|^[A-Za-z]{3,9}\\.? \\d{2,4}$");

    private static final Set<String> TOWN_NAMES = Set.of(
            "town",
            "city",
            "municipality",
            "village",
            "settlement",
            "place",
            "municipio",
            "ciudad",
            "localidad",
            "poblacion",
            "pueblo",
            "concelho",
            "cidade",
            "localidade",
            "ville",
            "ort");
    private static final Set<String> PROVINCE_NAMES = Set.of(
            "province",
            "provincia",
            "district",
            "distrito",
            "region",
            "county",
            "state",
            "department",
            "comunidad",
            "estado");
    private static final Set<String> COUNTRY_NAMES = Set.of("country", "pais", "nation", "land", "pays");

    private static final Set<String> ORIGIN_NAMES =
            Set.of("origin", "from", "source", "depot", "origen", "desde", "origem");
    private static final Set<String> DESTINATION_NAMES = Set.of("destination", "to", "target", "destino", "hasta");
    private static final Set<String> LAT_NAMES = Set.of("lat", "latitude", "latitud", "breite", "y");
    private static final Set<String> LON_NAMES = Set.of("lon", "lng", "long", "longitude", "longitud", "lange", "x");
    private static final Set<String> EASTING_NAMES = Set.of(
            "x",
            "easting",
            "east",
            "utmx",
            "xutm",
            "coordx",
            "xcoord",
            "este",
            "utm",
            "e",
            "ost",
            "rechtswert",
            "oost");
    private static final Set<String> NORTHING_NAMES = Set.of(
            "y", "northing", "north", "utmy", "yutm", "coordy", "ycoord", "norte", "n", "nord", "hochwert", "noord");
    private static final Set<String> BOTH_NAMES =
            Set.of("coordinates", "coordinate", "coordenadas", "position", "location", "point", "latlon", "gps");
    private static final int FEWEST_CODES = 5;
    private static final double CODES_THAT_FIT = 0.95;
    private static final double NEARLY_ALL = 0.9;
    private static final double MOST = 0.6;

    private final Gazetteer gazetteer;

    public PlacingGuess(Gazetteer gazetteer) {
        this.gazetteer = gazetteer;
    }

    /**
     * By the file's own shapes, which come before any column that looks as if it told a place; empty where most rows
     * have none.
     */
    public Optional<Placing> ownShapes(Reading reading) {
        if (reading.position().isEmpty()) return Optional.empty();
        Column lon = reading.table().column(reading.position().get(0));
        int filled = 0;
        for (int row = 0; row < lon.size(); row++) if (lon.text(row) != null) filled++;
        return filled < MOST * lon.size()
                ? Optional.empty()
                : Optional.of(new Placing.ByCoordinates(
                        reading.position().get(1), reading.position().get(0)));
    }

    /** The likeliest recipe: by coordinates where nearly every row has them, else by name; empty when nothing tells. */
    public Optional<Placing> guess(Table table) {
        Optional<Placing> between = coordinatesOfEnds(table);
        if (between.isPresent()) return between;
        Optional<Placing> coordinates = coordinates(table);
        if (coordinates.isPresent()) return coordinates;
        Optional<Placing> journey = journey(table);
        if (journey.isPresent()) return journey;
        Placing.ByName names = names(table);
        return names.isEmpty() ? Optional.empty() : Optional.of(names);
    }

    /**
     * A column of codes, digits only, that are nearly all those of areas of one of these sets; the first that fits.
     *
     * @param sets the likeliest first
     */
    public Optional<Placing> codes(Table table, List<BoundarySet> sets) {
        for (BoundarySet set : sets) {
            AreaMatcher matcher = new AreaMatcher(set);
            for (String name : table.names()) {
                List<String> codes = digits(table.column(name));
                if (codes.size() < FEWEST_CODES) continue;
                long fit = codes.stream()
                        .filter(c -> matcher.match(c).place() != null)
                        .count();
                if (fit >= CODES_THAT_FIT * codes.size()) return Optional.of(new Placing.ByArea(name, set.name()));
            }
        }
        return Optional.empty();
    }

    /**
     * The distinct values of a text column whose values are all digits, some of them with a leading zero; else none.
     */
    private static List<String> digits(Column column) {
        if (!(column instanceof CodedColumn coded) || coded.type() != ColumnType.TEXT) return List.of();
        boolean codes = coded.dictionary().stream().allMatch(v -> v.matches("[0-9]{1,6}"))
                && coded.dictionary().stream().anyMatch(v -> v.startsWith("0"));
        return codes ? coded.dictionary() : List.of();
    }

    /** Two columns of words or codes, by whose names one is where a row comes from and the other where it goes. */
    private Optional<Placing> journey(Table table) {
        Optional<Placing> from = end(table, ORIGIN_NAMES);
        Optional<Placing> to = end(table, DESTINATION_NAMES);
        if (from.isEmpty() || to.isEmpty() || from.equals(to)) return Optional.empty();
        return Optional.of(new Placing.FromTo(from.get(), to.get()));
    }

    private Optional<Placing> end(Table table, Set<String> names) {
        String words = named(table, names, MOST, this::namesAPlace);
        if (words != null) return Optional.of(new Placing.ByWords(words));
        // Digits alone count hours and pieces as well as provinces.
        String code = named(
                table,
                names,
                NEARLY_ALL,
                v -> v.chars().anyMatch(Character::isLetter)
                        && gazetteer.byCode(v).isPresent());
        return Optional.ofNullable(code).map(Placing.ByCode::new);
    }

    /**
     * The columns by whose names one tells where rows come from and the other where they go, whatever they hold.
     *
     * @return origin and destination; empty where there are no such two
     */
    public static Optional<List<String>> ends(Table table) {
        String from = named(table, ORIGIN_NAMES, v -> true);
        String to = named(table, DESTINATION_NAMES, v -> true);
        return from == null || to == null || from.equals(to) ? Optional.empty() : Optional.of(List.of(from, to));
    }

    /** Four columns of degrees, by whose names two are of where a row comes from and two of where it goes. */
    private static Optional<Placing> coordinatesOfEnds(Table table) {
        Optional<Placing> from = degrees(table, ORIGIN_NAMES);
        Optional<Placing> to = degrees(table, DESTINATION_NAMES);
        return from.flatMap(f -> to.filter(t -> !t.equals(f)).map(t -> new Placing.FromTo(f, t)));
    }

    private static Optional<Placing> degrees(Table table, Set<String> end) {
        List<String> columns =
                table.names().stream().filter(n -> isNamed(n, end)).toList();
        String lat = named(table, columns, LAT_NAMES, NEARLY_ALL, PlacingGuess::isDegrees);
        String lon = named(table, columns, LON_NAMES, NEARLY_ALL, PlacingGuess::isDegrees);
        return lat == null || lon == null ? Optional.empty() : Optional.of(new Placing.ByCoordinates(lat, lon));
    }

    private static boolean isDegrees(String text) {
        return Math.abs(Degrees.read(text)) <= 180;
    }

    private boolean namesAPlace(String words) {
        Words parts = Words.of(words, gazetteer);
        return parts.town() != null
                && !parts.town().isEmpty()
                && !gazetteer.towns(parts.town()).isEmpty();
    }

    private Optional<Placing> coordinates(Table table) {
        String lat = named(table, LAT_NAMES, PlacingGuess::isDegrees);
        String lon = named(table, LON_NAMES, PlacingGuess::isDegrees);
        if (lat != null && lon != null) return Optional.of(new Placing.ByCoordinates(lat, lon));
        String easting = named(table, EASTING_NAMES, PlacingGuess::isMetres);
        String northing = named(table, NORTHING_NAMES, PlacingGuess::isMetres);
        if (easting != null && northing != null) {
            Optional<ProjectionGuess.Guess> guess = new ProjectionGuess(gazetteer).guess(table, easting, northing);
            if (guess.isPresent())
                return Optional.of(new Placing.ByCoordinates(
                        northing, easting, guess.get().epsg(), guess.get().alike()));
        }
        String both = named(table, BOTH_NAMES, v -> Degrees.readPair(v) != null);
        return both == null ? Optional.empty() : Optional.of(new Placing.ByCoordinates(both, null));
    }

    private static boolean isMetres(String text) {
        try {
            return Math.abs(Double.parseDouble(text.replace(',', '.'))) > 1000;
        } catch (NumberFormatException unread) {
            return false;
        }
    }

    /**
     * A column of one of these names whose rows are nearly all filled with values that can be read; null where there
     * is none.
     */
    private static String named(Table table, Set<String> names, Predicate<String> isReadable) {
        return named(table, names, NEARLY_ALL, isReadable);
    }

    private static String named(Table table, Set<String> names, double share, Predicate<String> isReadable) {
        return named(table, table.names(), names, share, isReadable);
    }

    private static String named(
            Table table, List<String> columns, Set<String> names, double share, Predicate<String> isReadable) {
        for (String name : columns) {
            if (!isNamed(name, names)) continue;
            Column column = table.column(name);
            int step = Math.max(1, column.size() / LOOKED_AT);
            int seen = 0;
            int fits = 0;
            for (int row = 0; row < column.size(); row += step) {
                seen++;
                String text = column.text(row);
                if (text != null && isReadable.test(text)) fits++;
            }
            if (fits >= share * seen) return name;
        }
        return null;
    }

    /** The likeliest recipe by name; {@link Placing.ByName#isEmpty() empty} when no column holds places. */
    Placing.ByName names(Table table) {
        String country = best(table, Set.of(), COUNTRY_NAMES, this::isCountry, false);
        String town =
                best(table, taken(country), TOWN_NAMES, v -> !gazetteer.towns(v).isEmpty(), true);
        String province = best(
                table,
                taken(country, town),
                PROVINCE_NAMES,
                v -> !gazetteer.regions(v).isEmpty(),
                false);
        // Provinces often bear their capital's name: the column of the narrower name wins only if it says so or reaches
        // further.
        if (town != null && province == null && isNamed(town, PROVINCE_NAMES))
            return new Placing.ByName(null, town, country);
        return new Placing.ByName(town, province, country);
    }

    /** Letters that are a region's code as well say nothing of a country. */
    private boolean isCountry(String value) {
        return gazetteer.country(value).isPresent()
                && (!gazetteer.isCountryCode(value) || gazetteer.regions(value).isEmpty());
    }

    private static Set<String> taken(String... names) {
        return Arrays.stream(names).filter(n -> n != null).collect(Collectors.toSet());
    }

    /**
     * The column that tells a role best: most of its values are known, or fewer where its name says so.
     *
     * @param towns whether it is towns that are looked for: slips of them count where the column is named so
     */
    private String best(Table table, Set<String> taken, Set<String> words, Predicate<String> isKnown, boolean towns) {
        String best = null;
        double bestScore = ENOUGH;
        for (String name : table.names()) {
            if (taken.contains(name)
                    || !(table.column(name) instanceof CodedColumn column)
                    || column.type() != ColumnType.TEXT) continue;
            if (words != TOWN_NAMES && isNamed(name, TOWN_NAMES)) continue;
            if (words == TOWN_NAMES
                    && (isNamed(name, PROVINCE_NAMES) || isNamed(name, COUNTRY_NAMES))
                    && anyNamed(table, TOWN_NAMES)) continue;
            if (words == PROVINCE_NAMES && isNamed(name, COUNTRY_NAMES)) continue;
            if (words == COUNTRY_NAMES && isNamed(name, PROVINCE_NAMES)) continue;
            List<String> values = sample(column.dictionary());
            boolean named = isNamed(name, words);
            if (values.size()
                    < MOST_NAMELESS * Math.min(LOOKED_AT, column.dictionary().size())) continue;
            double share = share(values, isKnown);
            if (towns && named)
                share += SLIP_COUNTS
                        * share(
                                values,
                                v -> !isKnown.test(v)
                                        && v.length() > 4
                                        && !gazetteer.nearlyTowns(v).isEmpty());
            if (share < 0.2 || towns && !named && !liesSomewhere(values)) continue;
            double score = share + (named ? NAME_COUNTS : 0);
            if (score > bestScore) {
                bestScore = score;
                best = name;
            }
        }
        return best;
    }

    /** Values that may be names, of up to {@link #LOOKED_AT}: words for nothing, numbers, dates and times are none. */
    private static List<String> sample(List<String> values) {
        int step = Math.max(1, values.size() / LOOKED_AT);
        List<String> sample = new ArrayList<>();
        for (int i = 0; i < values.size(); i += step) {
            String value = values.get(i);
            if (!NoPlace.is(value) && !MOMENT.matcher(value).find()) sample.add(PlaceNames.bare(value));
        }
        return sample;
    }

    /**
     * Whether words lie somewhere together, as the towns of a table do, or are large cities: words of other kinds that
     * towns bear too are scattered.
     */
    private boolean liesSomewhere(List<String> values) {
        Map<String, Integer> countries = new HashMap<>();
        int known = 0;
        int large = 0;
        for (String value : values) {
            List<Gazetteer.Named> found = gazetteer.towns(value);
            if (found.isEmpty()) continue;
            known++;
            found.stream().map(n -> n.place().country()).distinct().forEach(c -> countries.merge(c, 1, Integer::sum));
            if (found.stream().anyMatch(n -> n.main() && n.place().population() >= LARGE)) large++;
        }
        int together = countries.values().stream().mapToInt(n -> n).max().orElse(0);
        return Math.max(together, large) >= TOGETHER * known;
    }

    private static boolean anyNamed(Table table, Set<String> words) {
        return table.names().stream().anyMatch(n -> isNamed(n, words));
    }

    private static boolean isNamed(String name, Set<String> words) {
        for (String word : PlaceNames.fold(name).split(" ")) if (words.contains(word)) return true;
        return false;
    }

    private static double share(List<String> values, Predicate<String> isKnown) {
        return values.isEmpty() ? 0 : values.stream().filter(isKnown).count() / (double) values.size();
    }
}
