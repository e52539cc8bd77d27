package sarnik.sentence;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A word of a sentence: a name, a number, a date, or whatever stands in quotation marks.
 *
 * @param key what it is told apart by: small letters, numbers as digits, one and many alike
 * @param written as it was written, without quotation marks
 * @param from where it begins in the sentence
 * @param to where it ends, behind its last letter
 * @param quoted whether it stood in quotation marks
 */
record Word(String key, String written, int from, int to, boolean quoted) {

    private static final Pattern WORDS = Pattern.compile(
            "“([^”]*)”|\"([^\"]*)\"|(?<![\\p{L}\\p{N}])-?[\\p{N}][\\p{L}\\p{N}_%]*(?:[.:'’-][\\p{L}\\p{N}_%]+)*"
                    + "|[\\p{L}\\p{N}_@%{}*#]+(?:[.'’-][\\p{L}\\p{N}_@%]+)*");
    private static final Set<String> ARTICLES = Set.of("the", "a", "an");
    private static final Map<String, String> NUMBERS = Map.ofEntries(
            Map.entry("one", "1"),
            Map.entry("two", "2"),
            Map.entry("three", "3"),
            Map.entry("four", "4"),
            Map.entry("five", "5"),
            Map.entry("six", "6"),
            Map.entry("seven", "7"),
            Map.entry("eight", "8"),
            Map.entry("nine", "9"),
            Map.entry("ten", "10"),
            Map.entry("eleven", "11"),
            Map.entry("twelve", "12"),
            Map.entry("twenty", "20"));
    /** Words of the trade that mean the same as those of briefs. */
    private static final Map<String, String> SAME = Map.of(
            "mean", "average", "avg", "average", "total", "sum", "max", "maximum", "min", "minimum", "count", "number");

    private static final int SHORTEST_PLURAL = 4;

    /** The words of a sentence; articles say nothing and are left out. */
    static List<Word> of(String sentence) {
        List<Word> words = new ArrayList<>();
        Matcher found = WORDS.matcher(sentence);
        while (found.find()) {
            String quoted = found.group(1) != null ? found.group(1) : found.group(2);
            String written = quoted != null ? quoted : found.group();
            String key = quoted != null ? quoted.toLowerCase(Locale.ROOT) : key(written);
            if (quoted != null || !ARTICLES.contains(key))
                words.add(new Word(key, written, found.start(), found.end(), quoted != null));
        }
        return words;
    }

    /** The keys of a sentence's words. */
    static List<String> keys(String sentence) {
        return of(sentence).stream().map(Word::key).toList();
    }

    private static String key(String written) {
        String small = written.toLowerCase(Locale.ROOT);
        if (NUMBERS.containsKey(small)) return NUMBERS.get(small);
        if (SAME.containsKey(small)) return SAME.get(small);
        return small.length() >= SHORTEST_PLURAL && small.endsWith("s") && !small.endsWith("ss")
                ? small.substring(0, small.length() - 1)
                : small;
    }

    boolean isNumber() {
        return !quoted && isNumber(key);
    }

    static boolean isNumber(String key) {
        char last = key.isEmpty() ? ' ' : key.charAt(key.length() - 1);
        return Character.isDigit(last) && key.matches("-?\\d+(\\.\\d+)?");
    }

    /** How many letters have to be changed, left out, added or swapped with the next to make one of the other. */
    static int distance(String one, String other) {
        int[][] d = new int[one.length() + 1][other.length() + 1];
        for (int i = 0; i <= one.length(); i++) d[i][0] = i;
        for (int j = 0; j <= other.length(); j++) d[0][j] = j;
        for (int i = 1; i <= one.length(); i++)
            for (int j = 1; j <= other.length(); j++) {
                int changed = d[i - 1][j - 1] + (one.charAt(i - 1) == other.charAt(j - 1) ? 0 : 1);
                d[i][j] = Math.min(changed, 1 + Math.min(d[i - 1][j], d[i][j - 1]));
                if (i > 1
                        && j > 1
                        && one.charAt(i - 1) == other.charAt(j - 2)
                        && one.charAt(i - 2) == other.charAt(j - 1)) d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
            }
        return d[one.length()][other.length()];
    }
}
