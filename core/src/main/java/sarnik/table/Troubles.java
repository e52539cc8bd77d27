package sarnik.table;

import java.util.List;

/**
 * What a reader could not take as it stood.
 *
 * @param first the first troubles in the order of the file, at most {@link #KEPT}
 * @param total number of all troubles, kept or not
 */
public record Troubles(List<Trouble> first, long total) {

    /** How many troubles are kept in words; all are counted. */
    public static final int KEPT = 10_000;

    public Troubles {
        first = List.copyOf(first);
    }

    /**
     * One cell or row that could not be read as it stood.
     *
     * @param line line of the file, the first is 1
     * @param column name of the column, or null where the whole row is meant
     * @param text the text found, shortened to 80 characters
     * @param why what was done and why, a sentence
     */
    public record Trouble(long line, String column, String text, String why) {}
}
