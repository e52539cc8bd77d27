package sarnik.place;

import java.nio.ByteBuffer;
import java.nio.IntBuffer;
import java.nio.LongBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Names and the places that bear them, found by the hash of the folded name, by the words in it whatever their order,
 * and by
 * what is written a slip of the pen away. Immutable, safe to share between threads.
 *
 * <p>Slips are found by deletion neighbourhoods (Mor and Fraenkel 1982): a name and a writing that share a form with
 * at most one
 * letter taken out of each are compared by optimal string alignment (Damerau 1964; a letter too many, too few,
 * another, or two
 * swapped). So every single slip is found, and of two slips those where each side has a letter the other lacks.
 */
final class NameTable {

    /** What the names of a table are of. */
    enum Of {
        TOWNS,
        REGIONS,
        COUNTRIES
    }

    /** Hashes, starts of their bearers, bearers, where the text stands, forms, names of forms, bags, names of bags. */
    static final int PARTS = 8;

    /** Of a bearer: that it is the name it goes by, that it is written with its article, and that it is a code. */
    static final int MAIN = 1;

    static final int WHOLE = 2;
    static final int CODE = 4;
    static final int FLAGS = 3;

    static final int SHORTEST = 4;
    private static final int SHORTEST_FOR_TWO = 8;

    private final LongBuffer hashes;
    private final IntBuffer starts;
    private final IntBuffer bearers;
    private final IntBuffer textAt;
    private final IntBuffer forms;
    private final IntBuffer formNames;
    private final LongBuffer bags;
    private final IntBuffer bagNames;
    private final ByteBuffer texts;

    NameTable(ByteBuffer[] parts, ByteBuffer texts) {
        hashes = parts[0].asLongBuffer();
        starts = parts[1].asIntBuffer();
        bearers = parts[2].asIntBuffer();
        textAt = parts[3].asIntBuffer();
        forms = parts[4].asIntBuffer();
        formNames = parts[5].asIntBuffer();
        bags = parts[6].asLongBuffer();
        bagNames = parts[7].asIntBuffer();
        this.texts = texts;
    }

    /** FNV-1a over 64 bits (Fowler, Noll and Vo). */
    static long hash(String text) {
        return hash(text, -1);
    }

    /** The same of a text with one letter left out; -1 leaves none out. */
    static long hash(String text, int out) {
        long hash = 0xcbf29ce484222325L;
        for (int i = 0; i < text.length(); i++) if (i != out) hash = (hash ^ text.charAt(i)) * 0x100000001b3L;
        return hash;
    }

    /** A hash of 32 bits for a form with a letter left out. */
    static int form(String text, int out) {
        long hash = hash(text, out);
        return (int) (hash ^ hash >>> 32);
    }

    /** Whether slips are looked for in a name: of those that are short, or whose letters are words, all are alike. */
    static boolean isSpelled(String folded) {
        if (folded.length() < SHORTEST) return false;
        for (int i = 0; i < folded.length(); i++) if (folded.charAt(i) >= 0x590) return false;
        return true;
    }

    /** The index of the first of equal hashes; below 0 where there is none. */
    static int search(LongBuffer sorted, long wanted) {
        int low = 0;
        int high = sorted.capacity();
        while (low < high) {
            int middle = low + high >>> 1;
            if (sorted.get(middle) < wanted) low = middle + 1;
            else high = middle;
        }
        return low < sorted.capacity() && sorted.get(low) == wanted ? low : -1;
    }

    private static int search(IntBuffer sorted, int wanted) {
        int low = 0;
        int high = sorted.capacity();
        while (low < high) {
            int middle = low + high >>> 1;
            if (sorted.get(middle) < wanted) low = middle + 1;
            else high = middle;
        }
        return low < sorted.capacity() && sorted.get(low) == wanted ? low : -1;
    }

    /** How many names there are. */
    int size() {
        return hashes.capacity();
    }

    /** Those who bear a folded name: the number of the place times 8, and the flags. */
    int[] bearers(String folded) {
        int name = search(hashes, hash(folded));
        return name < 0 || !text(name).equals(folded) ? NONE : bearers(name);
    }

    private static final int[] NONE = {};

    int[] bearers(int name) {
        int[] found = new int[starts.get(name + 1) - starts.get(name)];
        bearers.get(starts.get(name), found);
        return found;
    }

    String text(int name) {
        int at = textAt.get(name);
        byte[] bytes = new byte[texts.getShort(at)];
        texts.get(at + 2, bytes);
        return new String(bytes, StandardCharsets.UTF_8);
    }

    /** The names that have the same words in whatever order; see {@link PlaceNames#bag}. */
    List<String> withTheWords(String bag) {
        List<String> found = new ArrayList<>();
        long wanted = hash(bag);
        for (int i = search(bags, wanted); i >= 0 && i < bags.capacity() && bags.get(i) == wanted; i++)
            found.add(text(bagNames.get(i)));
        return found;
    }

    /**
     * A name near to what is written.
     *
     * @param slips number of slips, 1 or 2
     */
    record Near(String name, int slips) {}

    /** Names near a folded writing, nearest first; the writing itself is not among them. */
    List<Near> near(String written) {
        if (!isSpelled(written)) return List.of();
        int most = written.length() < SHORTEST_FOR_TWO ? 1 : 2;
        Set<Integer> seen = new HashSet<>();
        List<Near> found = new ArrayList<>();
        for (int out = -1; out < written.length(); out++) {
            int form = form(written, out);
            for (int i = search(forms, form); i >= 0 && i < forms.capacity() && forms.get(i) == form; i++) {
                if (!seen.add(formNames.get(i))) continue;
                String name = text(formNames.get(i));
                int slips = distance(written, name, most);
                if (slips > 0 && slips <= most) found.add(new Near(name, slips));
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
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1))
                    now[j] = Math.min(now[j], before[j - 2] + 1);
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
