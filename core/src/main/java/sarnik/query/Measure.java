package sarnik.query;

/**
 * A column with a summary.
 *
 * @param column the column; null with {@link Summary#COUNT} counts rows; the formula's name with {@link
 *     Summary#FORMULA}
 */
public record Measure(Summary summary, String column) {

    /** The number of rows. */
    public static final Measure ROWS = new Measure(Summary.COUNT, null);

    /** The measure as people read it: "sum of litres", "number of rows". */
    public String words() {
        return column == null
                ? "number of rows"
                : summary == Summary.FORMULA ? column : summary.words() + " of " + column;
    }
}
