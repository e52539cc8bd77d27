package sarnik.wiring;

import java.util.List;
import java.util.Map;

/**
 * Something that the checker has found.
 *
 * @param kind what it is, for those who look for one kind
 * @param sentence what is amiss, and why it matters
 * @param about id of the part that it is about, as {@link Wiring} has it; empty for the dashboard as a whole
 * @param mend JSON Patch operations that mend it where that is safe; empty where it is not
 * @param press what the press is called that mends it; empty where there is none
 */
public record Finding(Kind kind, String sentence, String about, List<Map<String, Object>> mend, String press) {

    /** What can be amiss. */
    public enum Kind {
        REACHES_NOTHING,
        FEW_PARTNERS,
        LOOP,
        RANK_AND_FILTER,
        TWO_ON_ONE_COLUMN,
        UNUSED,
        NO_ROW,
        UNITS,
        PAGE_NOBODY_REACHES,
        MISFIT,
        NO_LABEL,
        CONTRAST
    }

    static Finding of(Kind kind, String about, String sentence) {
        return new Finding(kind, sentence, about, List.of(), "");
    }

    static Finding mended(Kind kind, String about, String sentence, String press, Map<String, Object> op) {
        return new Finding(kind, sentence, about, List.of(op), press);
    }
}
