package sarnik.formula;

import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/** Reads columns in blocks. */
final class ColumnBlocks {

    private ColumnBlocks() {}

    static BlockNumbers of(Column column) {
        if (column instanceof DecimalColumn decimals) {
            double[] values = decimals.values();
            return () -> (rows, count, into) -> {
                for (int i = 0; i < count; i++) into[i] = values[rows[i]];
            };
        }
        if (column instanceof WholeColumn wholes) return of(wholes.values(), WholeColumn.MISSING);
        if (column instanceof TimeColumn times) return of(times.seconds(), TimeColumn.MISSING);
        if (column instanceof DateColumn dates) {
            int[] days = dates.days();
            return () -> (rows, count, into) -> {
                for (int i = 0; i < count; i++)
                    into[i] = days[rows[i]] == DateColumn.MISSING ? Double.NaN : days[rows[i]];
            };
        }
        Codes codes = ((CodedColumn) column).codes();
        return () -> (rows, count, into) -> {
            for (int i = 0; i < count; i++) {
                int code = codes.get(rows[i]);
                into[i] = code < 0 ? Double.NaN : code;
            }
        };
    }

    private static BlockNumbers of(long[] values, long missing) {
        return () -> (rows, count, into) -> {
            for (int i = 0; i < count; i++) {
                long value = values[rows[i]];
                into[i] = value == missing ? Double.NaN : value;
            }
        };
    }
}
