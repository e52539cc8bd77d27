package sarnik.statistics;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
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
    private static final Pattern BELOW =
            Pattern.compile("(?i)^\\s*(<|under|below|less than|unter|menos de|moins de|menor)");
    private static final int OLDEST = 130;

    /**
     * The first year of an age band as people write it: "0–4", "85+", "under 5", "from 65 on"; empty where none is
     * said.
     */
    public static OptionalInt start(String text) {
        if (text == null) return OptionalInt.empty();
        Matcher number = NUMBER.matcher(text);
        if (!number.find()) return OptionalInt.empty();
        if (BELOW.matcher(text).find()) return OptionalInt.of(0);
        int years = Integer.parseInt(number.group());
        return years > OLDEST ? OptionalInt.empty() : OptionalInt.of(years);
    }

    /**
     * @param texts the values of the column of age bands, or ages in years
     * @throws IllegalArgumentException where they are no age bands, or have no border in common with the standard's;
     *     the message says what to do
     */
    public static AgeBands of(List<String> texts, StandardPopulation standard) {
        TreeSet<Integer> own = new TreeSet<>();
        for (String text : texts) start(text).ifPresent(own::add);
        if (own.size() < 2)
            throw new IllegalArgumentException(
                    phrase("At least two age bands are needed, such as 0–4 and 5–9; there are {0}.", own.size()));
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
