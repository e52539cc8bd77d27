package sarnik.place;

import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import sarnik.table.CodedColumn;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/** Guesses which columns of a table tell where its rows are, from the columns' names and from their values. */
public final class PlacingGuess {

    private static final int LOOKED_AT = 400;
    private static final double ENOUGH = 0.5;
    private static final double NAME_COUNTS = 0.4;

    private static final Set<String> TOWN_NAMES = Set.of("town", "city", "municipality", "village", "settlement", "place",
            "municipio", "ciudad", "localidad", "poblacion", "pueblo", "concelho", "cidade", "localidade", "ville", "ort");
    private static final Set<String> PROVINCE_NAMES = Set.of("province", "provincia", "district", "distrito", "region",
            "county", "state", "department", "comunidad", "estado");
    private static final Set<String> COUNTRY_NAMES = Set.of("country", "pais", "nation", "land", "pays");

    private final Gazetteer gazetteer;

    public PlacingGuess(Gazetteer gazetteer) {
        this.gazetteer = gazetteer;
    }

    /** The likeliest recipe by name; {@link Placing.ByName#isEmpty() empty} when no column holds places. */
    public Placing.ByName guess(Table table) {
        String country = best(table, Set.of(), COUNTRY_NAMES, v -> gazetteer.country(v).isPresent());
        String town = best(table, taken(country), TOWN_NAMES, v -> !gazetteer.towns(v).isEmpty());
        String province = best(table, taken(country, town), PROVINCE_NAMES, v -> !gazetteer.regions(v).isEmpty());
        // Provinces often bear their capital's name: the column of the narrower name wins only if it says so or reaches further.
        if (town != null && province == null && isNamed(town, PROVINCE_NAMES)) return new Placing.ByName(null, town, country);
        return new Placing.ByName(town, province, country);
    }

    private static Set<String> taken(String... names) {
        return java.util.Arrays.stream(names).filter(n -> n != null).collect(java.util.stream.Collectors.toSet());
    }

    private String best(Table table, Set<String> taken, Set<String> words, Predicate<String> isKnown) {
        String best = null;
        double bestScore = ENOUGH;
        for (String name : table.names()) {
            if (taken.contains(name) || !(table.column(name) instanceof CodedColumn column) || column.type() != ColumnType.TEXT) continue;
            if (words != TOWN_NAMES && isNamed(name, TOWN_NAMES)) continue;
            if (words == TOWN_NAMES && (isNamed(name, PROVINCE_NAMES) || isNamed(name, COUNTRY_NAMES))
                    && anyNamed(table, TOWN_NAMES)) continue;
            if (words == PROVINCE_NAMES && isNamed(name, COUNTRY_NAMES)) continue;
            double share = share(column.dictionary(), isKnown);
            if (share < 0.2) continue;
            double score = share + (isNamed(name, words) ? NAME_COUNTS : 0);
            if (score > bestScore) {
                bestScore = score;
                best = name;
            }
        }
        return best;
    }

    private static boolean anyNamed(Table table, Set<String> words) {
        return table.names().stream().anyMatch(n -> isNamed(n, words));
    }

    private static boolean isNamed(String name, Set<String> words) {
        for (String word : PlaceNames.fold(name).split(" ")) if (words.contains(word)) return true;
        return false;
    }

    private static double share(List<String> values, Predicate<String> isKnown) {
        if (values.isEmpty()) return 0;
        int step = Math.max(1, values.size() / LOOKED_AT);
        int seen = 0;
        int known = 0;
        for (int i = 0; i < values.size(); i += step) {
            seen++;
            if (isKnown.test(values.get(i))) known++;
        }
        return (double) known / seen;
    }
}
