package sarnik.narrow.dates;

import sarnik.narrow.Filter;
import sarnik.narrow.Terms;

/**
 * A range of a date or time column.
 *
 * @param end which end of it the reader chooses; null for both
 * @param newest whether relative periods are counted from the newest day of the column, instead of from today; null for
 *     no
 */
public record Dates(
        String page, int order, long dataset, String column, String title, Terms terms, End end, Boolean newest)
        implements Filter {

    /** Which ends of a range are chosen. */
    public enum End {
        BOTH,
        /** From a day on. */
        SINCE,
        /** Up to a day. */
        UNTIL
    }

    End ends() {
        return end == null ? End.BOTH : end;
    }

    /** Both ends, on its own page. */
    public Dates(String page, int order, long dataset, String column, String title) {
        this(page, order, dataset, column, title, null, null, null);
    }
}
