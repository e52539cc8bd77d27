package sarnik.query;

import java.util.List;

/**
 * Asks a table for rows as they are: a part of those that are left, in an order.
 *
 * @param stages row conditions, applied in this order
 * @param columns the columns wanted
 * @param order by what rows are ordered, the first matters most; those that are equal stand as in the table
 * @param find words that some of the columns wanted has to hold, in any case; empty for all rows
 * @param from the first row wanted, from 0
 * @param count the most rows wanted
 */
public record RowQuery(List<Stage> stages, List<String> columns, List<By> order, String find, int from, int count) {

    /** The most rows that may be wanted, counted from the first of all. */
    public static final int MOST = 1_000_000;

    public RowQuery {
        stages = List.copyOf(stages);
        columns = List.copyOf(columns);
        order = List.copyOf(order);
        find = find == null ? "" : find.strip();
        if (columns.isEmpty()) throw new IllegalArgumentException("Rows need a column");
        if (from < 0 || count < 0 || from > MOST || count > MOST)
            throw new IllegalArgumentException("Rows %d to %d are beyond what is given".formatted(from, from + count));
    }

    /**
     * @param column by whose values rows are ordered: numbers and times by size, texts in any case by letter
     * @param down whether the largest come first; what is missing stands last either way
     */
    public record By(String column, boolean down) {}
}
