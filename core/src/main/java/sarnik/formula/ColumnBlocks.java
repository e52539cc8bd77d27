package sarnik.formula;

import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;
import sarnik.table.Wholes;

/** Reads columns in blocks. */
final class ColumnBlocks {

    private ColumnBlocks() {}

    static BlockNumbers of(Column column) {
        if (column instanceof DecimalColumn decimals) return () -> decimals::read;
        if (column instanceof WholeColumn wholes) return of(wholes.values());
        if (column instanceof TimeColumn times) return of(times.seconds());
        if (column instanceof DateColumn dates) return of(dates.days());
        Codes codes = ((CodedColumn) column).codes();
        return () -> (rows, count, into) -> {
            for (int i = 0; i < count; i++) {
                int code = codes.get(rows[i]);
                into[i] = code < 0 ? Double.NaN : code;
            }
        };
    }

    private static BlockNumbers of(Wholes values) {
        return () -> values::read;
    }
}
