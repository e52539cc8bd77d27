package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.Collection;
import java.util.List;
import sarnik.language.Language;

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
        return switch (last) {
            case "and" -> Language.all(all);
            case "or" -> Language.any(all);
            default -> {
                String before = String.join(", ", all.subList(0, all.size() - 1));
                String end = all.get(all.size() - 1);
                yield last.equals("nor") ? phrase("{0} nor {1}", before, end) : before + " " + last + " " + end;
            }
        };
    }
}
