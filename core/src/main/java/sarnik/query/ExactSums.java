package sarnik.query;

import java.util.Optional;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Extremes;
import sarnik.table.SummedColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/**
 * Which columns of numbers can be added up without rounding: those of whole numbers and of decimals with few digits
 * (cents and the like), which are added up in whole steps. Such sums are the same in whatever order their rows are
 * added.
 */
public final class ExactSums {

    /** Below this all whole numbers are held exactly, and so are the sums of those that come to less. */
    private static final double MOST = 0x1p51;

    private ExactSums() {}

    /**
     * So many steps of a column are one.
     *
     * @return 0 where its sums are not exact: it has too many digits or too many rows, or no numbers
     */
    public static double unit(Column column) {
        if (column instanceof SummedColumn summed) return summed.unit();
        double unit = column instanceof DecimalColumn decimal ? decimal.unit() : column instanceof WholeColumn ? 1 : 0;
        if (unit == 0) return 0;
        Optional<Extremes> ends = column.extremes();
        if (ends.isEmpty()) return unit;
        double largest = Math.max(
                size(column, ends.get().lowest()), size(column, ends.get().highest()));
        double rows = column.weights() == null ? column.size() : Table.weight(column.weights());
        return largest * unit * rows < MOST ? unit : 0;
    }

    private static double size(Column column, int row) {
        return Math.abs(column instanceof DecimalColumn decimal ? decimal.get(row) : ((WholeColumn) column).get(row));
    }
}
