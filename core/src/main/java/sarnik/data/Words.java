package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.Collection;
import java.util.List;

/** Lists in sentences. */
public final class Words {

    private static final int NAMED = 3;

    private Words() {}

    /**
     * "a, b or c"; more than three as "a, b, c and 4 more".
     *
     * @param last the word before the last of them: and, or, nor, then
     */
    public static String list(Collection<String> words, String last) {
        List<String> all = List.copyOf(words);
        if (all.isEmpty()) return phrase("nothing");
        if (all.size() == 1) return all.get(0);
        if (all.size() > NAMED)
            return phrase("{0} and {1} more", String.join(", ", all.subList(0, NAMED)), all.size() - NAMED);
        String before = String.join(", ", all.subList(0, all.size() - 1));
        String end = all.get(all.size() - 1);
        return switch (last) {
            case "and" -> phrase("{0} and {1}", before, end);
            case "or" -> phrase("{0} or {1}", before, end);
            case "nor" -> phrase("{0} nor {1}", before, end);
            default -> before + " " + last + " " + end;
        };
    }
}
