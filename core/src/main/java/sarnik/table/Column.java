package sarnik.table;

/**
 * An immutable column of values, all of one type; any of them may be missing. Safe to share between threads.
 *
 * <p>Missing values are marked inside the arrays by a value that cannot occur otherwise (stated at each kind), so that
 * a scan reads one array only.
 */
public sealed interface Column permits CodedColumn, WholeColumn, DecimalColumn, DateColumn, TimeColumn {

    ColumnType type();

    /** Number of rows. */
    int size();

    boolean isMissing(int row);

    /**
     * The value in its canonical text form: numbers as Java writes them, dates and times as ISO 8601, yes/no as "yes"
     * and "no".
     *
     * @return the text, or null where the value is missing
     */
    String text(int row);

    /** Bytes held by the column's arrays and, for text, its dictionary (estimated at 2 bytes a character plus 48). */
    long bytes();
}
