package sarnik.table;

import java.util.EnumMap;
import java.util.Map;

/**
 * Guesses how the values of one column are written, from all of them: the form that fits most, if it fits at least
 * {@link #ENOUGH} of the filled cells. A single code with a leading zero ("08013") makes the column text.
 */
final class FormGuess {

    static final double ENOUGH = 0.95;
    private static final int PATIENCE = 1000;

    private final Map<CellForm, long[]> fits = new EnumMap<>(CellForm.class);
    private long filled;
    private boolean codes;

    /** Cells that are words for "no value": they do not speak against a form, but they fill a column that has nothing else. */
    private long strangers;

    /**
     * @param mark the mark before decimals; null where it is found by looking
     */
    FormGuess(Shaping.DecimalMark mark) {
        for (CellForm form : CellForm.values()) {
            if (form != CellForm.TEXT && (mark == null || form.decimalMark() == null || form.decimalMark() == mark)) fits.put(form, new long[1]);
        }
    }

    /** Cells that were not shown to {@link #see}. */
    void strangers(long count) {
        strangers = count;
    }

    /**
     * @param text a trimmed, non-empty cell
     */
    void see(String text) {
        filled++;
        codes |= CellForm.isCode(text);
        boolean whole = CellForm.WHOLE.fits(text);
        for (Map.Entry<CellForm, long[]> entry : fits.entrySet()) {
            // A whole number is written in every form of number: most cells of numbers need to be looked at once only.
            if (whole ? entry.getKey().type().isNumber() || entry.getKey().fits(text) : entry.getKey() != CellForm.WHOLE && entry.getKey().fits(text)) entry.getValue()[0]++;
        }
        // A form that misses a quarter of the first thousand cells is not asked again.
        if (filled == PATIENCE) fits.values().removeIf(count -> count[0] * 4 < filled * 3);
    }

    /**
     * @param comma whether numbers that can be read either way have a decimal comma
     */
    CellForm form(boolean comma) {
        if (codes || filled == 0 || filled < strangers) return CellForm.TEXT;
        long most = most();
        if (most < filled * ENOUGH) return CellForm.TEXT;
        CellForm first = fits.entrySet().stream().filter(entry -> entry.getValue()[0] == most).findFirst().map(Map.Entry::getKey).orElse(CellForm.TEXT);
        return comma && first == CellForm.DECIMAL_POINT && count(CellForm.GROUPED_COMMA) == most ? CellForm.GROUPED_COMMA : first;
    }

    private long most() {
        return fits.values().stream().mapToLong(count -> count[0]).max().orElse(0);
    }

    private long count(CellForm form) {
        return fits.containsKey(form) ? fits.get(form)[0] : -1;
    }

    /** Whether the column holds numbers that only a decimal comma explains. */
    boolean needsComma() {
        return needs(CellForm.DECIMAL_COMMA, CellForm.GROUPED_COMMA, CellForm.DECIMAL_POINT, CellForm.GROUPED_POINT);
    }

    /** Whether the column holds numbers that only a decimal point explains. */
    boolean needsPoint() {
        return needs(CellForm.DECIMAL_POINT, CellForm.GROUPED_POINT, CellForm.DECIMAL_COMMA, CellForm.GROUPED_COMMA);
    }

    private boolean needs(CellForm plain, CellForm grouped, CellForm otherPlain, CellForm otherGrouped) {
        if (codes || filled == 0) return false;
        long here = Math.max(count(plain), count(grouped));
        return here >= filled * ENOUGH && here > Math.max(count(otherPlain), count(otherGrouped));
    }

    /** The best way to read the column when it has to be of this type. */
    CellForm formOf(ColumnType type, boolean comma) {
        CellForm guess = form(comma);
        if (guess.type() == type) return guess;
        CellForm best = null;
        long most = -1;
        for (CellForm form : CellForm.values()) {
            if (form.type() != type) continue;
            if (best == null || count(form) > most) {
                most = count(form);
                best = form;
            }
        }
        return best;
    }
}
