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

    FormGuess() {
        for (CellForm form : CellForm.values()) if (form != CellForm.TEXT) fits.put(form, new long[1]);
    }

    /**
     * @param text a trimmed, non-empty cell
     */
    void see(String text) {
        filled++;
        codes |= CellForm.isCode(text);
        for (Map.Entry<CellForm, long[]> entry : fits.entrySet()) {
            if (entry.getKey().fits(text)) entry.getValue()[0]++;
        }
        // A form that misses a quarter of the first thousand cells is not asked again.
        if (filled == PATIENCE) fits.values().removeIf(count -> count[0] * 4 < filled * 3);
    }

    CellForm form() {
        if (codes || filled == 0) return CellForm.TEXT;
        long most = fits.values().stream().mapToLong(count -> count[0]).max().orElse(0);
        if (most < filled * ENOUGH) return CellForm.TEXT;
        return fits.entrySet().stream()
                .filter(entry -> entry.getValue()[0] == most)
                .findFirst()
                .map(Map.Entry::getKey)
                .orElse(CellForm.TEXT);
    }

    /** The best way to read the column when it has to be of this type. */
    CellForm formOf(ColumnType type) {
        CellForm best = null;
        long most = -1;
        for (CellForm form : CellForm.values()) {
            if (form.type() != type) continue;
            long count = fits.containsKey(form) ? fits.get(form)[0] : 0;
            if (count > most) {
                most = count;
                best = form;
            }
        }
        return best;
    }
}
