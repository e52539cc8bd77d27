package sarnik.place;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Finds names that are a slip of the pen away from what is written. Immutable, safe to share between threads.
 *
 * <p>Deletion neighbourhoods (Mor and Fraenkel 1982): a name and a writing that share a form with at most one letter taken
 * out of each are compared by optimal string alignment (Damerau 1964; a letter too many, too few, another, or two swapped).
 * So every single slip is found, and of two slips those where each side has a letter the other lacks.
 */
final class FuzzyNames {

    private static final int SHORTEST = 4;
    private static final int SHORTEST_FOR_TWO = 8;

    private final String[] names;
    /** Hashes of all forms, ascending, and beside each the name it belongs to. */
    private final long[] forms;
    private final int[] nameOf;

    /**
     * @param slips number of slips, 1 or 2
     */
    record Near(String name, int slips) {}

    /**
     * @param folded names as {@link PlaceNames#fold} writes them; short ones are left out
     */
    FuzzyNames(Collection<String> folded) {
        names = folded.stream().filter(n -> n.length() >= SHORTEST).distinct().toArray(String[]::new);
        int count = 0;
        for (String name : names) count += name.length() + 1;
        long[] hashed = new long[count];
        Integer[] order = new Integer[count];
        int[] owners = new int[count];
        int at = 0;
        for (int n = 0; n < names.length; n++) {
            for (int out = -1; out < names[n].length(); out++) {
                hashed[at] = hash(names[n], out);
                owners[at] = n;
                order[at] = at;
                at++;
            }
        }
        Arrays.parallelSort(order, Comparator.comparingLong(i -> hashed[i]));
        forms = new long[count];
        nameOf = new int[count];
        for (int i = 0; i < count; i++) {
            forms[i] = hashed[order[i]];
            nameOf[i] = owners[order[i]];
        }
    }

    /** FNV-1a over 64 bits (Fowler, Noll and Vo) of a text with one letter left out; -1 leaves none out. */
    private static long hash(String text, int out) {
        long hash = 0xcbf29ce484222325L;
        for (int i = 0; i < text.length(); i++) {
            if (i == out) continue;
            hash = (hash ^ text.charAt(i)) * 0x100000001b3L;
        }
        return hash;
    }

    /** Names near a folded writing, nearest first; the writing itself is not among them. */
    List<Near> near(String written) {
        if (written.length() < SHORTEST) return List.of();
        int most = written.length() < SHORTEST_FOR_TWO ? 1 : 2;
        Set<Integer> seen = new HashSet<>();
        List<Near> found = new ArrayList<>();
        for (int out = -1; out < written.length(); out++) {
            long hash = hash(written, out);
            int i = Arrays.binarySearch(forms, hash);
            if (i < 0) continue;
            while (i > 0 && forms[i - 1] == hash) i--;
            for (; i < forms.length && forms[i] == hash; i++) {
                if (!seen.add(nameOf[i])) continue;
                int slips = distance(written, names[nameOf[i]], most);
                if (slips > 0 && slips <= most) found.add(new Near(names[nameOf[i]], slips));
            }
        }
        found.sort(Comparator.comparingInt(Near::slips).thenComparing(Near::name));
        return found;
    }

    /** Optimal string alignment distance; anything above {@code most} may come back as most + 1. */
    static int distance(String a, String b, int most) {
        if (Math.abs(a.length() - b.length()) > most) return most + 1;
        int[] before = new int[b.length() + 1];
        int[] last = new int[b.length() + 1];
        int[] now = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) last[j] = j;
        for (int i = 1; i <= a.length(); i++) {
            now[0] = i;
            int least = i;
            for (int j = 1; j <= b.length(); j++) {
                int same = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                now[j] = Math.min(Math.min(last[j] + 1, now[j - 1] + 1), last[j - 1] + same);
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    now[j] = Math.min(now[j], before[j - 2] + 1);
                }
                least = Math.min(least, now[j]);
            }
            if (least > most) return most + 1;
            int[] spare = before;
            before = last;
            last = now;
            now = spare;
        }
        return last[b.length()];
    }
}
