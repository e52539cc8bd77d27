package sarnik.app.dataset;

import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/**
 * A column as a version describes it; the n-th stands in the database as {@code c<n>}.
 *
 * @param key whether it is text of which no value is missing or occurs twice, so that rows of others can be tied to
 *     it; null
 *     where that is not known, in versions of an older program
 */
record StoredColumn(String name, ColumnType type, Boolean key) {

    static StoredColumn of(String name, Column column) {
        return new StoredColumn(
                name,
                column.type(),
                column instanceof CodedColumn coded
                        && column.type() == ColumnType.TEXT
                        && column.size() > 0
                        && coded.dictionary().size() == column.size());
    }

    /** A column of which only a face is held, which does not tell whether values occur twice. */
    StoredColumn ofFace() {
        return new StoredColumn(name, type, false);
    }

    boolean isKey() {
        return Boolean.TRUE.equals(key);
    }

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
