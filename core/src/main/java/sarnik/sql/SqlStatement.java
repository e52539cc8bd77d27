package sarnik.sql;

import java.util.List;

/**
 * A question to a database, as text.
 *
 * @param sql one statement that only reads
 * @param outs what each column of the answer holds
 * @param most the most rows that are wanted
 */
public record SqlStatement(String sql, List<Out> outs, int most) {

    /** What a column of an answer holds. */
    public enum Out {
        TEXT,
        /** Whole numbers, {@link Long}. */
        WHOLE,
        /** Decimal numbers, {@link Double}. */
        DECIMAL
    }

    public SqlStatement {
        outs = List.copyOf(outs);
    }
}
