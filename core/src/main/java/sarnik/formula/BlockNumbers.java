package sarnik.formula;

import java.util.function.DoubleUnaryOperator;
import sarnik.table.Column;

/**
 * Numbers worked out for the rows that are asked for, block by block, instead of being held for all rows. Safe to share
 * between threads: each opens its own.
 */
public interface BlockNumbers {

    /** Rows that are asked for at once, at most. */
    int MOST = 2048;

    /** Works them out for one thread. */
    Reading open();

    /** The numbers of a column: yes is 1 and no 0, dates are days, date-times seconds, texts their codes. */
    static BlockNumbers of(Column column) {
        return ColumnBlocks.of(column);
    }

    /** 1 where a column has a value, else missing. */
    static BlockNumbers filled(Column column) {
        return () -> (rows, count, into) -> {
            for (int i = 0; i < count; i++) into[i] = column.isMissing(rows[i]) ? Double.NaN : 1;
        };
    }

    /** The same for rows that meet a condition; others have none. */
    default BlockNumbers where(BlockNumbers condition) {
        return () -> {
            Reading value = open();
            Reading meets = condition.open();
            double[] met = new double[MOST];
            return (rows, count, into) -> {
                value.fill(rows, count, into);
                meets.fill(rows, count, met);
                for (int i = 0; i < count; i++) if (met[i] != 1) into[i] = Double.NaN;
            };
        };
    }

    /** Each number changed; a missing one stays missing where the change says so. */
    default BlockNumbers changed(DoubleUnaryOperator change) {
        return () -> {
            Reading reading = open();
            return (rows, count, into) -> {
                reading.fill(rows, count, into);
                for (int i = 0; i < count; i++) into[i] = change.applyAsDouble(into[i]);
            };
        };
    }

    /** Works numbers out; used by one thread. */
    interface Reading {

        /**
         * @param rows numbers of rows
         * @param count how many of them, up to {@link #MOST}
         * @param into takes the number of each row; NaN where it is missing or cannot be worked out
         */
        void fill(int[] rows, int count, double[] into);
    }
}
