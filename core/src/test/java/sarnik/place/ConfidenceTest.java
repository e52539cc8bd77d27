package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/**
 * Generated tables whose truth is known: towns of one region, of a country, of two or of the world, written as people write
 * them. Of the matches that are called 0.9, about nine in ten have to be right.
 */
@DisplayName("Confidence means what it says")
class ConfidenceTest {

    private static final Gazetteer GAZETTEER = Gazetteer.shipped();
    private static final int TABLES = 110;
    private static final int ROWS = 150;

    /** @param truth null for a town that exists nowhere */
    private record Row(Words words, Place truth) {}

    private record Judged(Match match, boolean right) {}

    @Test
    void ofTheMatchesCalledSoManyAreRight() {
        List<Judged> judged = judge(20261125);
        double[] edges = {0.3, 0.6, 0.8, 0.9, 0.96, 1.01};
        for (int b = 0; b + 1 < edges.length; b++) {
            double low = edges[b];
            double high = edges[b + 1];
            List<Judged> bucket = judged.stream().filter(j -> j.match().place() != null && j.match().confidence() >= low && j.match().confidence() < high).toList();
            double said = bucket.stream().mapToDouble(j -> j.match().confidence()).average().orElse(0);
            double right = bucket.stream().filter(Judged::right).count() / (double) bucket.size();
            System.out.printf("  confidence %.2f to %.2f: %5d matches, said %.3f, right %.3f%n", low, high, bucket.size(), said, right);
            assertThat(bucket).as("matches from %.2f to %.2f", low, high).hasSizeGreaterThan(40);
            assertThat(right).as("matches from %.2f to %.2f", low, high).isCloseTo(said, within(0.04 + 2 * Math.sqrt(said * (1 - said) / bucket.size())));
        }
    }

    @Test
    void mostRowsArePlacedAndPlacedOnesAreRight() {
        List<Judged> judged = judge(7);
        List<Judged> placed = judged.stream().filter(j -> j.match().state() == Match.State.PLACED).toList();
        assertThat(placed.size()).isGreaterThan(judged.size() * 8 / 10);
        assertThat(placed.stream().filter(Judged::right).count() / (double) placed.size()).isGreaterThan(0.97);
    }

    @Test
    void theRestOfTheTableTellsNamesakesApart() {
        List<Words> spanish = words("Toledo", "Cuenca", "Ciudad Real", "Albacete", "Guadalajara", "Talavera de la Reina", "Tomelloso");
        List<Words> american = words("Toledo", "Perrysburg", "Findlay", "Sandusky", "Ann Arbor", "Ypsilanti");
        assertThat(new JointPlacer(new NamePlacer(GAZETTEER)).place(spanish)).extracting(m -> m.place().country()).containsOnly("ES");
        Match ohio = new JointPlacer(new NamePlacer(GAZETTEER)).place(american).get(0);
        assertThat(ohio.place().country()).isEqualTo("US");
        assertThat(ohio.reason()).contains("the rest of the table lies near");
    }

    private static List<Words> words(String... towns) {
        return Arrays.stream(towns).map(t -> new Words(t, null, null)).toList();
    }

    private static List<Judged> judge(long seed) {
        Random random = new Random(seed);
        List<Judged> judged = new ArrayList<>();
        for (int t = 0; t < TABLES; t++) {
            List<Row> rows = table(random, t % 5, t % 3).stream().collect(Collectors.collectingAndThen(Collectors.toList(), ArrayList::new));
            List<Match> matches = new JointPlacer(new NamePlacer(GAZETTEER)).place(rows.stream().map(Row::words).toList());
            for (int i = 0; i < rows.size(); i++) judged.add(new Judged(matches.get(i), isRight(matches.get(i), rows.get(i).truth())));
        }
        return judged;
    }

    private static boolean isRight(Match match, Place truth) {
        return truth != null && match.place() != null && match.place().metresTo(truth) < 6000;
    }

    private static List<Row> table(Random random, int scope, int columns) {
        List<Place> towns = new ArrayList<>(switch (scope) {
            case 0 -> GAZETTEER.townsOf("ES").stream().filter(p -> p.region().equals("ES.55")).toList();
            case 1 -> GAZETTEER.townsOf("ES");
            case 2 -> GAZETTEER.townsOf("PT");
            case 3 -> union(GAZETTEER.townsOf("ES"), GAZETTEER.townsOf("PT"));
            default -> world();
        });
        Collections.shuffle(towns, random);
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < ROWS; i++) {
            Place truth = random.nextInt(25) == 0 ? null : towns.get(i);
            Place beside = towns.get(i);
            String town = truth == null ? madeUp(random) : written(truth.name(), random);
            String province = columns == 1 ? GAZETTEER.provinceOf(beside).map(Place::name).orElse("") : null;
            String country = columns == 2 ? new Locale("", beside.country()).getDisplayCountry(Locale.ENGLISH) : null;
            rows.add(new Row(new Words(town, province, country), truth));
        }
        return rows;
    }

    private static List<Place> union(List<Place> a, List<Place> b) {
        List<Place> all = new ArrayList<>(a);
        all.addAll(b);
        return all;
    }

    private static List<Place> world() {
        List<Place> all = new ArrayList<>();
        for (String country : List.of("US", "MX", "AR", "FR", "BR", "DE", "IT", "CO", "GB", "PH")) all.addAll(GAZETTEER.townsOf(country));
        return all;
    }

    /** A name as a person may write it. */
    private static String written(String name, Random random) {
        return switch (random.nextInt(10)) {
            case 0, 1 -> slip(name, random);
            case 2 -> Normalizer.normalize(name, Normalizer.Form.NFD).replaceAll("\\p{M}", "");
            case 3 -> name.toUpperCase(Locale.ROOT);
            case 4 -> swapped(name);
            case 5 -> name.replaceFirst("^Santa ", "Sta. ").replaceFirst("^San ", "S. ").replaceFirst("^Villanueva ", "Vva. ").replaceFirst("^Vila Nova ", "V.N. ");
            default -> name;
        };
    }

    private static String slip(String name, Random random) {
        if (name.length() < 5) return name;
        int at = 1 + random.nextInt(name.length() - 2);
        return switch (random.nextInt(4)) {
            case 0 -> name.substring(0, at) + name.substring(at + 1);
            case 1 -> name.substring(0, at) + (char) ('a' + random.nextInt(26)) + name.substring(at);
            case 2 -> name.substring(0, at) + (char) ('a' + random.nextInt(26)) + name.substring(at + 1);
            default -> name.substring(0, at) + name.charAt(at + 1) + name.charAt(at) + name.substring(at + 2);
        };
    }

    private static String swapped(String name) {
        String[] words = name.split(" ");
        return words.length < 2 ? name : words[words.length - 1] + " " + String.join(" ", Arrays.copyOf(words, words.length - 1));
    }

    private static String madeUp(Random random) {
        String[] heads = {"Villa", "Fonte", "Monte", "Rio", "Casta", "Pena", "Santa ", "Torre", "Alde", "Bel"};
        String[] tails = {"zumbra", "gorda", "lexia", "quera", "mirón", "pardal", "tesca", "vento", "clara", "nova"};
        return heads[random.nextInt(10)] + tails[random.nextInt(10)];
    }
}
