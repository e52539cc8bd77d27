package sarnik.data;

import java.util.Collection;
import java.util.List;

/** Lists in sentences. */
public final class Words {

    private static final int NAMED = 3;

    private Words() {}

    /**
     * "a, b or c"; more than three as "a, b, c and 4 more".
     *
     * @param last the word before the last of them
     */
    public static String list(Collection<String> words, String last) {
        List<String> all = List.copyOf(words);
        if (all.isEmpty()) return "nothing";
        if (all.size() == 1) return all.get(0);
        if (all.size() > NAMED)
            return String.join(", ", all.subList(0, NAMED)) + " and " + (all.size() - NAMED) + " more";
        return String.join(", ", all.subList(0, all.size() - 1)) + " " + last + " " + all.get(all.size() - 1);
    }
}
