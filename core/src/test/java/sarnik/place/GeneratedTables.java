package sarnik.place;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;

/**
 * Tables whose truth is known: towns of a country or of many, written as people write them, with what stands beside
 * them. A part
 * of the small towns is hidden from the placer, so that tables hold places that no list knows, with names as places
 * have them.
 * The constants of placing were set on {@link #CALIBRATED}; {@link #HELD_OUT} has other countries and other kinds of
 * dirt.
 */
final class GeneratedTables {

    static final Gazetteer ALL = Gazetteer.shipped();
    static final Gazetteer KNOWN = ALL.without(GeneratedTables::isHidden);

    /** Countries, and how their names are written. */
    enum Kind {
        CALIBRATED(
                List.of("ES", "PT", "US", "FR", "DE", "GB", "BR", "MX", "IN", "IT"),
                List.of("slip", "slip", "accents", "capitals", "swapped")),
        HELD_OUT(
                List.of("PL", "TR", "AR", "AU", "NG", "NL", "SE", "CA", "PH", "RO", "ID", "ZA", "CO", "CZ", "JP"),
                List.of(
                        "a double letter once",
                        "read by a machine",
                        "City of",
                        "lower case",
                        "decoded wrongly",
                        "blanks left out",
                        "postcode"));

        final List<String> countries;
        final List<String> dirt;

        Kind(List<String> countries, List<String> dirt) {
            this.countries = countries;
            this.dirt = dirt;
        }
    }

    /** What stands beside a town's name. */
    enum Beside {
        NOTHING,
        PROVINCE,
        COUNTRY,
        BOTH,
        /** One column with the name and the province in it. */
        MIXED
    }

    private static final int ROWS = 150;
    private static final String WORLD = "*";
    private static final Map<String, List<Place>> TOWNS = new HashMap<>();

    /** @param truth null for a town that no list knows */
    private record Row(Words words, Place truth, String dirt) {}

    /** @param country {@code *} for tables of all countries */
    record Judged(Match match, boolean right, Beside beside, String country, String dirt) {}

    private GeneratedTables() {}

    private static boolean isHidden(Place place) {
        return place.population() < 3000 && Math.floorMod(place.id().hashCode() * 31, 10) == 0;
    }

    /** Places tables of all countries of a kind. */
    static List<Judged> judge(Kind kind, long seed) {
        Random random = new Random(seed);
        List<Judged> judged = new ArrayList<>();
        for (String country : kind.countries) {
            for (Beside beside : Beside.values())
                for (int i = 0; i < 2; i++) judged.addAll(place(kind, country, beside, random));
        }
        for (int i = 0; i < 3; i++)
            for (Beside beside : List.of(Beside.NOTHING, Beside.COUNTRY))
                judged.addAll(place(kind, WORLD, beside, random));
        return judged;
    }

    private static List<Judged> place(Kind kind, String country, Beside beside, Random random) {
        List<Row> rows = table(kind, country, beside, random);
        List<Match> matches = new JointPlacer(new NamePlacer(KNOWN))
                .place(rows.stream().map(Row::words).toList());
        List<Judged> judged = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            Place truth = rows.get(i).truth;
            Place found = matches.get(i).place();
            judged.add(new Judged(
                    matches.get(i),
                    truth != null && found != null && found.metresTo(truth) < 6000,
                    beside,
                    country,
                    rows.get(i).dirt));
        }
        return judged;
    }

    private static List<Row> table(Kind kind, String country, Beside beside, Random random) {
        List<Place> pool = country.equals(WORLD)
                ? kind.countries.stream().flatMap(c -> towns(c).stream()).toList()
                : towns(country);
        boolean byPeople = random.nextBoolean();
        boolean clean = random.nextInt(3) == 0;
        double[] until = new double[pool.size()];
        double sum = 0;
        for (int i = 0; i < until.length; i++)
            until[i] = sum += byPeople ? Math.pow(pool.get(i).population() + 200, 0.7) : 1;
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < ROWS; i++) {
            int at = Arrays.binarySearch(until, random.nextDouble() * sum);
            Place town = pool.get(Math.min(pool.size() - 1, at < 0 ? -at - 1 : at));
            boolean madeUp = !clean && random.nextInt(40) == 0;
            String dirt = clean || random.nextInt(10) >= 6 ? "none" : kind.dirt.get(random.nextInt(kind.dirt.size()));
            String name =
                    madeUp ? madeUp(random) : dirt.equals("none") ? town.name() : written(town.name(), dirt, random);
            rows.add(new Row(
                    words(name, town, beside),
                    madeUp || isHidden(town) ? null : town,
                    madeUp || isHidden(town) ? "in no list" : dirt));
        }
        return rows;
    }

    private static List<Place> towns(String country) {
        return TOWNS.computeIfAbsent(country, ALL::townsOf);
    }

    private static Words words(String name, Place town, Beside beside) {
        String province = ALL.provinceOf(town).map(Place::name).orElse("");
        String country = new Locale("", town.country()).getDisplayCountry(Locale.ENGLISH);
        return switch (beside) {
            case NOTHING -> new Words(name, null, null);
            case PROVINCE -> new Words(name, province, null);
            case COUNTRY -> new Words(name, null, country);
            case BOTH -> new Words(name, province, country);
            case MIXED -> Words.of(name + ", " + (province.isEmpty() ? country : province), KNOWN);
        };
    }

    /** A name as a person or a machine may write it. */
    private static String written(String name, String dirt, Random random) {
        return switch (dirt) {
            case "slip" -> slip(name, random);
            case "accents" -> Normalizer.normalize(name, Normalizer.Form.NFD).replaceAll("\\p{M}", "");
            case "capitals" -> name.toUpperCase(Locale.ROOT);
            case "swapped" -> swapped(name);
            case "a double letter once" -> name.replaceFirst("([a-z])\\1", "$1");
            case "read by a machine" -> misread(name, random);
            case "City of" -> "City of " + name;
            case "lower case" -> name.toLowerCase(Locale.ROOT);
            case "decoded wrongly" ->
                new String(name.getBytes(StandardCharsets.UTF_8), Charset.forName("windows-1252"));
            case "blanks left out" -> name.replace(" ", "");
            case "postcode" -> 10_000 + random.nextInt(80_000) + " " + name;
            default -> throw new IllegalArgumentException(dirt);
        };
    }

    private static String misread(String name, Random random) {
        String[][] alike = {{"rn", "m"}, {"l", "1"}, {"o", "0"}, {"cl", "d"}, {"e", "c"}, {"u", "v"}};
        String[] letters = alike[random.nextInt(alike.length)];
        int at = name.indexOf(letters[0], 1);
        return at < 0 ? name : name.substring(0, at) + letters[1] + name.substring(at + letters[0].length());
    }

    private static String slip(String name, Random random) {
        if (name.length() < 5) return name;
        int at = 1 + random.nextInt(name.length() - 2);
        char other = (char) ('a' + random.nextInt(26));
        return switch (random.nextInt(4)) {
            case 0 -> name.substring(0, at) + name.substring(at + 1);
            case 1 -> name.substring(0, at) + other + name.substring(at);
            case 2 -> name.substring(0, at) + other + name.substring(at + 1);
            default -> name.substring(0, at) + name.charAt(at + 1) + name.charAt(at) + name.substring(at + 2);
        };
    }

    private static String swapped(String name) {
        String[] words = name.split(" ");
        return words.length < 2
                ? name
                : words[words.length - 1] + " " + String.join(" ", Arrays.copyOf(words, words.length - 1));
    }

    private static String madeUp(Random random) {
        String[] heads = {
            "Villa", "Fonte", "Monte", "Rio", "Casta", "Pena", "Santa ", "Torre", "Alde", "Bel", "North", "Green",
            "Ober", "Saint "
        };
        String[] tails = {
            "zumbra", "gorda", "lexia", "quera", "miron", "pardal", "tesca", "vento", "clara", "nova", "field", "burg",
            "ton", "dorf"
        };
        return heads[random.nextInt(heads.length)] + tails[random.nextInt(tails.length)];
    }

    /**
     * The expected calibration error (Naeini, Cooper and Hauskrecht 2015): how far what was said lies from what was
     * right, over ten
     * equal steps of confidence, weighed by their matches.
     */
    static double calibrationError(List<Judged> judged) {
        List<Judged> found =
                judged.stream().filter(j -> j.match.place() != null).toList();
        double error = 0;
        for (int step = 0; step < 10; step++) {
            int s = step;
            List<Judged> in = found.stream()
                    .filter(j -> Math.min(9, (int) (j.match.confidence() * 10)) == s)
                    .toList();
            double said = in.stream().mapToDouble(j -> j.match.confidence()).sum();
            error += Math.abs(said - in.stream().filter(Judged::right).count());
        }
        return found.isEmpty() ? 0 : error / found.size();
    }

    /** Of those that are called placed, the share that is right. */
    static double right(List<Judged> judged) {
        return placed(judged).mapToInt(j -> j.right ? 1 : 0).average().orElse(1);
    }

    static Stream<Judged> placed(List<Judged> judged) {
        return judged.stream().filter(j -> j.match.state() == Match.State.PLACED);
    }
}
