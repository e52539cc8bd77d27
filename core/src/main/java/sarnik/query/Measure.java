package sarnik.query;

import sarnik.language.Language;

/**
 * A column with a summary.
 *
 * @param column the column; null with {@link Summary#COUNT} counts rows; the formula's name with {@link
 *     Summary#FORMULA}
 * @param at of a percentile which, 0 to 100; null for others
 * @param over what is worked out of its values in all groups; null for the values themselves
 */
public record Measure(Summary summary, String column, Double at, Over over) {

    /** The number of rows. */
    public static final Measure ROWS = new Measure(Summary.COUNT, null);

    public Measure(Summary summary, String column) {
        this(summary, column, null, null);
    }

    /** The same, worked out over all groups. */
    public Measure over(Over how) {
        return new Measure(summary, column, at, how);
    }

    /** The same without what is worked out over all groups. */
    public Measure plain() {
        return over == null ? this : new Measure(summary, column, at, null);
    }

    /** The percentile that is gathered, 0 to 1; empty for other summaries. */
    public double fraction() {
        return summary == Summary.MEDIAN || at == null ? 0.5 : Math.max(0, Math.min(100, at)) / 100;
    }

    /** Whether all values of a group have to be gathered. */
    boolean isGathered() {
        return summary == Summary.MEDIAN || summary == Summary.PERCENTILE;
    }

    /** The measure as people read it: "sum of litres", "number of rows". */
    public String words() {
        return wordsOf(column);
    }

    /** The measure in words. @param called what its column is called */
    public String wordsOf(String called) {
        String plain = column == null
                ? Language.phrase("number of rows")
                : summary == Summary.FORMULA ? column : summary.said(at, called);
        return over == null ? plain : over.kind().said(plain);
    }
}
