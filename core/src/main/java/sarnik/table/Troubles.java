package sarnik.table;

import java.util.List;
import java.util.Map;

/**
 * What a reader could not take as it stood.
 *
 * @param first the first troubles in the order of the file, at most {@link #KEPT}
 * @param total number of all troubles, kept or not
 * @param unread for each column, by its name in the table, how many of its cells did not fit its type and are missing
 *     now
 */
public record Troubles(List<Trouble> first, long total, Map<String, Long> unread) {

    /** How many troubles are kept in words; all are counted. */
    public static final int KEPT = 10_000;

    public Troubles {
        first = List.copyOf(first);
        unread = Map.copyOf(unread);
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
