package sarnik.statistics;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The age bands of a table beside those of a standard population: what they have in common are the bands in which both
 * can be counted.
 *
 * @param starts the first years of the common bands, ascending; each ends where the next begins, the last has no end
 * @param of for each text in the order asked for the number of its common band; -1 for one that says no age
 * @param weights the standard's weight of each common band
 */
public record AgeBands(int[] starts, int[] of, double[] weights) {

    private static final Pattern NUMBER = Pattern.compile("\\d{1,3}");
    /** No letter before a word. */
    private static final String BEFORE = "(^|[^\\p{L}])";

    /** No letter behind it. */
    private static final String BEHIND = "([^\\p{L}]|$)";

    private static final Pattern BELOW =
            Pattern.compile("(?iu)^\\s*(ages?\\s+)?(<|≤|under|below|less than|younger than|up to|unter|bis"
                    + "|menos de|menores? de|hasta|até|moins de|jusqu|(y_)?lt)"
                    + "|\\d.*[^\\p{L}](and|or) (under|below|less|younger)" + BEHIND
                    + "|\\d.*[^\\p{L}](y|o|e|ou|et|und|oder) (menos|moins|menores|weniger|jünger)" + BEHIND);
    private static final Pattern OPEN = Pattern.compile("(?iu)[+>≥]|y_ge|" + BEFORE
            + "(over|older|above|more|plus|from|más|mais|mayores|ab|älter|mehr|desde|dès|partir)" + BEHIND);
    private static final Pattern MONTHS =
            Pattern.compile("(?iu)" + BEFORE + "(months?|monaten?|meses|mes|mois)" + BEHIND);
    private static final int OLDEST = 130;
    private static final int MONTHS_OF_A_YEAR = 12;

    /**
     * A band as it is written.
     *
     * @param from its first year
     * @param to its last year, or the first of the next one, since both are written
     */
    private record Band(String text, int from, int to) {

        static Optional<Band> of(String text) {
            if (text == null) return Optional.empty();
            List<Integer> years = new ArrayList<>();
            Matcher number = NUMBER.matcher(text);
            while (number.find()) years.add(Integer.parseInt(number.group()));
            if (years.isEmpty() || years.get(0) > OLDEST) return Optional.empty();
            int first = years.get(0);
            int last = years.size() > 1 && years.get(1) > first && years.get(1) <= OLDEST ? years.get(1) : first;
            if (MONTHS.matcher(text).find()) {
                first /= MONTHS_OF_A_YEAR;
                last /= MONTHS_OF_A_YEAR;
            }
            if (last == first && BELOW.matcher(text).find()) return Optional.of(new Band(text, 0, last));
            if (last == first && OPEN.matcher(text).find()) last = Integer.MAX_VALUE;
            return Optional.of(new Band(text, first, last));
        }

        /** Whether somebody may be counted in both, this one being no younger than the other. */
        boolean isWithin(Band younger) {
            if (from == younger.from) return to != younger.to;
            return from < younger.to;
        }
    }

    /**
     * The first year of an age band as people write it: "0–4", "85+", "under 5", "4 and under", "from 65 on", "6–11
     * months"; empty where none is said.
     */
    public static OptionalInt start(String text) {
        return Band.of(text).map(band -> OptionalInt.of(band.from())).orElse(OptionalInt.empty());
    }

    private static void checkApart(List<String> texts) {
        List<Band> bands = texts.stream()
                .flatMap(text -> Band.of(text).stream())
                .sorted(Comparator.comparingInt(Band::from).thenComparingInt(Band::to))
                .toList();
        for (int b = 1; b < bands.size(); b++)
            if (bands.get(b).isWithin(bands.get(b - 1)))
                throw new IllegalArgumentException(phrase(
                        "The age bands “{0}” and “{1}” overlap, so people would be counted twice. Narrow the layer to bands that do not.",
                        bands.get(b - 1).text(), bands.get(b).text()));
    }

    /**
     * @param texts the values of the column of age bands, or ages in years
     * @throws IllegalArgumentException where they are no age bands, or overlap, or have no border in common with the
     *     standard's; the message says what to do
     */
    public static AgeBands of(List<String> texts, StandardPopulation standard) {
        TreeSet<Integer> own = new TreeSet<>();
        for (String text : texts) start(text).ifPresent(own::add);
        if (own.size() < 2)
            throw new IllegalArgumentException(
                    phrase("At least two age bands are needed, such as 0–4 and 5–9; there are {0}.", own.size()));
        checkApart(texts);
        TreeSet<Integer> common = new TreeSet<>(own);
        common.retainAll(
                standard.bands().stream().map(StandardPopulation.Band::from).toList());
        common.add(own.first());
        if (common.size() < 2)
            throw new IllegalArgumentException(phrase(
                    "The age bands begin at {0} years, and {1} has no border among them.",
                    String.join(", ", own.stream().map(String::valueOf).toList()), standard.name()));
        int[] starts = common.stream().mapToInt(Integer::intValue).toArray();
        int[] of = texts.stream()
                .mapToInt(text ->
                        start(text).isEmpty() ? -1 : in(starts, start(text).getAsInt()))
                .toArray();
        return new AgeBands(starts, of, weights(standard, starts));
    }

    /** Those younger than the first band are not in the table, and not in what it is compared with. */
    private static double[] weights(StandardPopulation standard, int[] starts) {
        if (starts[0] == 0) return standard.weights(starts);
        int[] fromBirth = new int[starts.length + 1];
        System.arraycopy(starts, 0, fromBirth, 1, starts.length);
        double[] weights = standard.weights(fromBirth);
        return Arrays.copyOfRange(weights, 1, weights.length);
    }

    private static int in(int[] starts, int year) {
        int at = Arrays.binarySearch(starts, year);
        return at >= 0 ? at : -at - 2;
    }

    /** How many bands are counted apart. */
    public int size() {
        return starts.length;
    }

    /** The common bands as people write them. */
    public List<String> words() {
        List<String> words = new ArrayList<>();
        for (int b = 0; b < starts.length; b++)
            words.add(b + 1 < starts.length ? starts[b] + "–" + (starts[b + 1] - 1) : starts[b] + "+");
        return words;
    }
}
