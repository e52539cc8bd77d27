package sarnik.formula;

import java.util.Collection;
import java.util.Comparator;
import java.util.Locale;

/** Suggests what may have been meant by a name that is not known. */
final class Nearest {

    private Nearest() {}

    /** " Did you mean “litres”?", or the first names there are, or nothing. */
    static String suggestion(String name, Collection<String> known) {
        String wanted = name.toLowerCase(Locale.ROOT);
        var best = known.stream()
                .min(Comparator.comparingInt((String k) -> distance(wanted, k.toLowerCase(Locale.ROOT)))
                        .thenComparing(k -> k));
        if (best.isPresent() && distance(wanted, best.get().toLowerCase(Locale.ROOT)) <= Math.max(1, name.length() / 3))
            return " Did you mean “" + best.get() + "”?";
        if (known.isEmpty()) return "";
        return " There is: " + String.join(", ", known.stream().limit(8).toList()) + (known.size() > 8 ? ", …" : "")
                + ".";
    }

    /** Levenshtein's distance: letters to add, to take away or to change. */
    private static int distance(String a, String b) {
        int[] row = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) row[j] = j;
        for (int i = 1; i <= a.length(); i++) {
            int diagonal = row[0];
            row[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int changed = diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                diagonal = row[j];
                row[j] = Math.min(changed, 1 + Math.min(row[j], row[j - 1]));
            }
        }
        return row[b.length()];
    }
}
