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

    /** Beside the forms of a text: it is a number with a unit, which fits them without it. */
    private static final long HAS_UNIT = 1L << 62;

    /** Beside the forms of a text: it is a whole number below a thousand, or one above, without any mark. */
    private static final long SMALL = 1L << 61;

    private static final long LARGE = 1L << 60;

    /** Beside the forms of a text: a unit stands beside its number, or an offset from UTC behind its time. */
    private static final long MARKED = 1L << 59;

    private static final long BESIDE = HAS_UNIT | SMALL | LARGE | MARKED;

    /** So many numbers of which none has one or two digits behind its mark are hardly decimals. */
    private static final int MANY_MARKED = 40;

    /** How many cells fit each form, by its place among all. */
    private final long[] fits = new long[FORMS.length];

    /** The forms that are still asked, a bit for each. */
    private long asked;

    private final Set<String> units = new TreeSet<>();
    private final Set<String> flags = new TreeSet<>();
    private final Recent recent = new Recent();
    private final boolean dates;
    private final boolean tidy;
    private long filled;
    private boolean codes;
    private long small;
    private long large;
    private long withMark;
    /** The first number with a mark; null where there was none yet. */
    private String marked;

    /**
     * Cells that are words for "no value": they do not speak against a form, but they fill a column that has nothing
     * else.
     */
    private long strangers;

    /**
     * @param mark the mark before decimals; null where it is found by looking
     * @param moments whether the column's name says that it holds times, so that long numbers may be seconds
     * @param dates whether it says that it holds dates, so that numbers may be days or months
     * @param tidy whether texts are taken without what cannot be seen
     */
    FormGuess(Shaping.DecimalMark mark, boolean moments, boolean dates, boolean tidy) {
        this.tidy = tidy;
        this.dates = dates;
        for (CellForm form : FORMS) {
            if (!moments && (form == CellForm.EPOCH_SECONDS || form == CellForm.EPOCH_MILLISECONDS)) continue;
            if (form != CellForm.TEXT && (mark == null || form.decimalMark() == null || form.decimalMark() == mark))
                asked |= form.bit();
        }
    }

    /** Cells that were not shown to {@link #see}. */
    void strangers(long count) {
        strangers = count;
    }

    /**
     * @param text a trimmed, non-empty cell
     * @return forms that it fits as it stands, a bit for each ({@link CellForm#bit}); not all of them
     */
    long see(String text) {
        filled++;
        // Of a column of texts nothing is asked any more.
        if (asked == CellForm.TEXT.bit()) {
            fits[CellForm.TEXT.ordinal()]++;
            return asked;
        }
        int slot = recent.slot(text);
        long found;
        if (recent.holds(slot, text)) {
            found = recent.number(slot);
            for (long forms = found & asked; forms != 0; forms &= forms - 1) fits[Long.numberOfTrailingZeros(forms)]++;
        } else {
            found = look(tidy ? CellText.plain(text) : text);
            recent.keep(slot, text, found);
        }
        if ((found & SMALL) != 0) small++;
        if ((found & LARGE) != 0) large++;
        if ((found & MARKED) != 0) withMark++;
        // A form that misses a quarter of the first thousand cells is not asked again.
        if (filled == PATIENCE)
            for (CellForm form : FORMS) if (fits[form.ordinal()] * 4 < filled * 3) asked &= ~form.bit();
        return (found & HAS_UNIT) == 0 ? found & ~BESIDE : 0;
    }

    /** Counts what a text that was not met lately fits. @return the forms that it fits, and what is beside them */
    private long look(String text) {
        codes |= CellForm.isCode(text);
        boolean whole = CellForm.WHOLE.fits(text);
        WrittenAmount amount = whole || !mayBeAmount(text) ? null : WrittenAmount.of(text);
        if (amount != null && !amount.unit().isEmpty()) units.add(amount.unit());
        if (amount != null && !amount.flag().isEmpty()) flags.add(amount.flag());
        long found = amount == null ? 0 : HAS_UNIT;
        if (amount != null ? !amount.unit().isEmpty() : WrittenMoment.hasOffset(text)) found |= MARKED;
        String number = amount == null ? text : amount.number();
        if (whole || amount != null && CellForm.WHOLE.fits(number)) found |= isBelowAThousand(number) ? SMALL : LARGE;
        for (long left = asked; left != 0; left &= left - 1) {
            CellForm form = FORMS[Long.numberOfTrailingZeros(left)];
            // A whole number is written in every form of number: most cells of numbers need to be looked at once only.
            boolean fit = whole
                    ? form.type().isNumber() || form.fits(text)
                    : form.type().isNumber() ? form.fits(number) : form.fits(text);
            if (!fit) continue;
            fits[form.ordinal()]++;
            found |= form.bit();
            if (marked == null && form.decimalMark() != null && (found & (SMALL | LARGE)) == 0) marked = number;
        }
        return found;
    }

    /** @param whole a sign, or none, and digits */
    private static boolean isBelowAThousand(String whole) {
        return whole.length() <= (Character.isDigit(whole.charAt(0)) ? 3 : 4);
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

    /** How many of its cells have a unit beside their number, or an offset from UTC behind their time. */
    long marked() {
        return withMark;
    }

    /** How many of its cells are filled. */
    long filled() {
        return filled;
    }

    /** Marks behind some of its numbers that lead to notes. */
    Set<String> flags() {
        return flags;
    }

    /** The units beside its numbers where there are several, which cannot be added up; none of what is mostly words. */
    Set<String> units() {
        return asked == CellForm.TEXT.bit() ? Set.of() : units;
    }

    /** Whether its dates can be read with the day first and with the month first. */
    boolean isEitherWay() {
        CellForm first = form(null);
        return first.turned() != first && count(first) == count(first.turned());
    }

    /**
     * The first of its numbers with a mark, where all of them can be read with the mark before decimals and with the mark
     * between thousands ("1,204"), as it is written; null where that is no question.
     */
    String markedEitherWay() {
        return decimalsOrThousands() == null ? null : marked;
    }

    /** The form with decimals that fits as well as the one in which its mark parts thousands; null where none does. */
    private CellForm decimalsOrThousands() {
        CellForm first = form(null);
        return marked != null && first.parted() != null && count(first.parted()) == most() ? first : null;
    }

    /**
     * The likelier mark before decimals of numbers that can be read either way; null where that is no question. That
     * thousands are parted is likely where whole numbers stand beside, all of them below a thousand, and out of the
     * question where one of them is above.
     *
     * @param usual the mark before decimals in files that are written so; null where that tells nothing
     */
    Shaping.DecimalMark likelierMark(Shaping.DecimalMark usual) {
        CellForm decimals = decimalsOrThousands();
        if (decimals == null) return null;
        boolean isUsual = decimals == CellForm.DECIMAL_POINT || decimals.decimalMark() == usual;
        boolean parts = small > 0 ? !isUsual || filled - small >= MANY_MARKED : !isUsual && usual != null;
        return (parts && large == 0 ? decimals.parted() : decimals).decimalMark();
    }

    /**
     * @param mark the mark before decimals in numbers that can be read either way; null for the one that they have
     * @param monthFirst whether dates that can be read either way have their month first
     */
    CellForm form(Shaping.DecimalMark mark, boolean monthFirst) {
        CellForm first = form(mark);
        return first.isDayFirst() && monthFirst && isEitherWay() ? first.turned() : first;
    }

    /** @param mark the mark before decimals in numbers that can be read either way; null for the one that they have */
    CellForm form(Shaping.DecimalMark mark) {
        if (codes || filled == 0 || filled < strangers) return CellForm.TEXT;
        long most = most();
        if (most < filled * ENOUGH) return CellForm.TEXT;
        CellForm first = Arrays.stream(FORMS)
                .filter(form -> count(form) == most && (dates || !form.isDateByName()))
                .findFirst()
                .orElse(CellForm.TEXT);
        // What is nearly all "no" is no column of yes and no: other words would be lost.
        if (first == CellForm.YES_NO && most < filled) return CellForm.TEXT;
        if (first.type().isNumber() && units.size() > 1) return CellForm.TEXT;
        CellForm parted = mark == null ? null : first.parted();
        return parted != null && parted.decimalMark() == mark && count(parted) == most ? parted : first;
    }

    private long most() {
        return Arrays.stream(FORMS).mapToLong(this::count).max().orElse(0);
    }

    private long count(CellForm form) {
        return (asked & form.bit()) == 0 ? -1 : fits[form.ordinal()];
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
    CellForm formOf(ColumnType type, Shaping.DecimalMark mark, boolean monthFirst) {
        CellForm guess = form(mark, monthFirst);
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
