package sarnik.format;

import java.util.List;
import java.util.function.IntFunction;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import sarnik.geo.WrittenShape;
import sarnik.table.CodedColumn;
import sarnik.table.Table;

/**
 * The shape of each row of a table that is given out: its own where a column holds it, else the point where it lies.
 *
 * @param table the rows
 * @param column the column of whole shapes; null where there is none
 * @param position longitude and latitude of a row in degrees, or null where it has none; null where rows have no place
 */
record RowShapes(Table table, String column, IntFunction<double[]> position) {

    static RowShapes of(Table table, List<String> columns, IntFunction<double[]> position) {
        return new RowShapes(
                table,
                columns.stream()
                        .filter(c ->
                                table.column(c) instanceof CodedColumn coded && WrittenShape.areAll(coded.dictionary()))
                        .findFirst()
                        .orElse(null),
                position);
    }

    /** Whether rows have shapes at all. */
    boolean any() {
        return column != null || position != null;
    }

    /** The columns but for that of the shapes. */
    List<String> others(List<String> columns) {
        return columns.stream().filter(c -> !c.equals(column)).toList();
    }

    /** The shape of a row, in degrees; null where it has none. */
    Geometry of(int row) {
        Geometry own = column == null
                ? null
                : WrittenShape.inDegrees(table.column(column).text(row));
        if (own != null) return own;
        double[] at = position == null ? null : position.apply(row);
        return at == null ? null : JsonShapes.SHAPES.createPoint(new Coordinate(at[0], at[1]));
    }
}
