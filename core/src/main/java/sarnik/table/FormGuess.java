package sarnik.table;

import java.util.Arrays;
import java.util.Set;
import java.util.TreeSet;

/**
 * Guesses how the values of one column are written, from all of them: the form that fits most, if it fits at least
 * {@link #ENOUGH} of the filled cells; yes and no have to be all there is. A single code with a leading zero ("08013")
 * makes the
 * column text, and so do amounts in several units, which cannot be added up.
 */
final class FormGuess {

    static final double ENOUGH = 0.95;
    private static final int PATIENCE = 1000;

    private static final CellForm[] FORMS = CellForm.values();

    /** How many cells fit each form, by its place among all. */
    private final long[] fits = new long[FORMS.length];

    /** The forms that are still asked, a bit for each. */
    private long asked;

    private final Set<String> units = new TreeSet<>();
    private final Recent recent = new Recent();
    private long filled;
    private boolean codes;

    /**
     * Cells that are words for "no value": they do not speak against a form, but they fill a column that has nothing
     * else.
     */
    private long strangers;

    /**
     * @param mark the mark before decimals; null where it is found by looking
     * @param moments whether the column's name says that it holds times, so that long numbers may be seconds
     */
    FormGuess(Shaping.DecimalMark mark, boolean moments) {
        for (CellForm form : FORMS) {
            if (!moments && (form == CellForm.EPOCH_SECONDS || form == CellForm.EPOCH_MILLISECONDS)) continue;
            if (form != CellForm.TEXT && (mark == null || form.decimalMark() == null || form.decimalMark() == mark))
                asked |= bit(form);
        }
    }

    private static long bit(CellForm form) {
        return 1L << form.ordinal();
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
        int slot = recent.slot(text);
        if (recent.holds(slot, text)) {
            for (long forms = recent.number(slot) & asked; forms != 0; forms &= forms - 1)
                fits[Long.numberOfTrailingZeros(forms)]++;
        } else {
            recent.keep(slot, text, look(text));
        }
        // A form that misses a quarter of the first thousand cells is not asked again.
        if (filled == PATIENCE)
            for (CellForm form : FORMS) if (fits[form.ordinal()] * 4 < filled * 3) asked &= ~bit(form);
    }

    /** Counts what a text that was not met lately fits. @return the forms that it fits, a bit for each */
    private long look(String text) {
        long found = 0;
        codes |= CellForm.isCode(text);
        boolean whole = CellForm.WHOLE.fits(text);
        WrittenAmount amount = whole || !mayBeAmount(text) ? null : WrittenAmount.of(text);
        if (amount != null && !amount.unit().isEmpty()) units.add(amount.unit());
        for (long left = asked; left != 0; left &= left - 1) {
            CellForm form = FORMS[Long.numberOfTrailingZeros(left)];
            // A whole number is written in every form of number: most cells of numbers need to be looked at once only.
            boolean fit = whole
                    ? form.type().isNumber() || form.fits(text)
                    : form.type().isNumber() ? form.fits(amount == null ? text : amount.number()) : form.fits(text);
            if (!fit) continue;
            fits[form.ordinal()]++;
            found |= bit(form);
        }
        return found;
    }

    /** Whether a text that is no plain number has a digit and, at one of its ends, something that is none. */
    private static boolean mayBeAmount(String text) {
        char last = text.charAt(text.length() - 1);
        return (last < '0' || last > '9' || text.charAt(0) > '9' || text.charAt(0) < '0') && text.length() < 40;
    }

    /** The unit beside all its numbers; empty where there is none. */
    String unit() {
        return units.size() == 1 ? units.iterator().next() : "";
    }

    /** The units beside its numbers where there are several, which cannot be added up. */
    Set<String> units() {
        return units;
    }

    /** Whether its dates can be read with the day first and with the month first. */
    boolean isEitherWay() {
        CellForm first = form(false);
        return first.turned() != first && count(first) == count(first.turned());
    }

    /**
     * @param comma whether numbers that can be read either way have a decimal comma
     * @param monthFirst whether dates that can be read either way have their month first
     */
    CellForm form(boolean comma, boolean monthFirst) {
        CellForm first = form(comma);
        return first.isDayFirst() && monthFirst && isEitherWay() ? first.turned() : first;
    }

    /**
     * @param comma whether numbers that can be read either way have a decimal comma
     */
    CellForm form(boolean comma) {
        if (codes || filled == 0 || filled < strangers) return CellForm.TEXT;
        long most = most();
        if (most < filled * ENOUGH) return CellForm.TEXT;
        CellForm first = Arrays.stream(FORMS)
                .filter(form -> count(form) == most)
                .findFirst()
                .orElse(CellForm.TEXT);
        // What is nearly all "no" is no column of yes and no: other words would be lost.
        if (first == CellForm.YES_NO && most < filled) return CellForm.TEXT;
        if (first.type().isNumber() && units.size() > 1) return CellForm.TEXT;
        return comma && first == CellForm.DECIMAL_POINT && count(CellForm.GROUPED_COMMA) == most
                ? CellForm.GROUPED_COMMA
                : first;
    }

    private long most() {
        return Arrays.stream(FORMS).mapToLong(this::count).max().orElse(0);
    }

    private long count(CellForm form) {
        return (asked & bit(form)) == 0 ? -1 : fits[form.ordinal()];
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
    CellForm formOf(ColumnType type, boolean comma, boolean monthFirst) {
        CellForm guess = form(comma, monthFirst);
        if (guess.type() == type) return guess;
        CellForm best = null;
        long most = -1;
        for (CellForm form : CellForm.values()) {
            if (form.type() != type) continue;
            if (best == null || count(form) > most || count(form) == most && monthFirst && form == best.turned()) {
                most = count(form);
                best = form;
            }
        }
        return best;
    }
}
