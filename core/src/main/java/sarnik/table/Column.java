package sarnik.table;

import java.util.List;
import java.util.Optional;

/**
 * An immutable column of values, all of one type; any of them may be missing. Safe to share between threads.
 *
 * <p>Missing values are marked inside the arrays by a value that cannot occur otherwise (stated at each kind), so that
 * a scan reads one array only.
 */
public sealed interface Column permits KnownColumn {

    /**
     * A column of values that are written in their canonical text form.
     *
     * @param texts one for each row; null or empty where it is missing
     */
    static Column of(ColumnType type, List<String> texts) {
        ColumnBuilder builder = ColumnBuilder.canonical(type, texts.size());
        for (String text : texts) builder.add(text == null ? "" : text);
        return builder.build();
    }

    ColumnType type();

    /** Number of rows. */
    int size();

    boolean isMissing(int row);

    /** Whether every row has a value; looked through when it is first asked for. */
    boolean isComplete();

    /**
     * The rows with its smallest and its largest value; looked through when they are first asked for.
     *
     * @return empty where no row has a value
     * @throws IllegalArgumentException when the column's values have no order: text and yes/no
     */
    Optional<Extremes> extremes();

    /**
     * The value in its canonical text form: numbers as Java writes them, dates and times as ISO 8601, yes/no as "yes"
     * and "no".
     *
     * @return the text, or null where the value is missing
     */
    String text(int row);

    /** How many rows a row stands for: 1, but where rows were put together. */
    int weight(int row);

    /** The weights of all rows; null where each is 1. */
    int[] weights();

    /**
     * The same values in a table whose rows were put together.
     *
     * @param weights how many rows each row stands for
     */
    Column weighted(int[] weights);

    /** Bytes held by the column's arrays and, for text, its dictionary (estimated at 2 bytes a character plus 48). */
    long bytes();
}
