package sarnik.app.dataset;

import sarnik.table.ColumnType;

/** A column as a version describes it; the n-th stands in the database as {@code c<n>}. */
record StoredColumn(String name, ColumnType type) {

    static String sqlType(ColumnType type) {
        return switch (type) {
            case TEXT -> "text";
            case WHOLE -> "bigint";
            case DECIMAL -> "double precision";
            case DATE -> "date";
            case TIME -> "timestamp";
            case YES_NO -> "boolean";
        };
    }
}
