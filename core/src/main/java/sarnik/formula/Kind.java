package sarnik.formula;

import sarnik.table.ColumnType;

/** The types of values in a formula. */
public enum Kind {
    TEXT("text", ColumnType.TEXT, "text"),
    WHOLE("a whole number", ColumnType.WHOLE, "bigint"),
    DECIMAL("a decimal number", ColumnType.DECIMAL, "double precision"),
    DATE("a date", ColumnType.DATE, "date"),
    TIME("a date with time", ColumnType.TIME, "timestamp"),
    YES_NO("yes or no", ColumnType.YES_NO, "boolean"),
    INTERVAL("an interval", null, "interval"),
    PLACE("a place", null, null),
    /** NULL, which fits every type. */
    NOTHING("nothing (NULL)", null, "text");

    private final String words;
    private final ColumnType column;
    private final String sql;

    Kind(String words, ColumnType column, String sql) {
        this.words = words;
        this.column = column;
        this.sql = sql;
    }

    /** The type as people read it, with its article. */
    public String words() {
        return words;
    }

    /** The type of a column that can hold such values; null where none can. */
    public ColumnType column() {
        return column;
    }

    String sql() {
        return sql;
    }

    boolean isNumber() {
        return this == WHOLE || this == DECIMAL;
    }

    static Kind of(ColumnType type) {
        return switch (type) {
            case TEXT -> TEXT;
            case WHOLE -> WHOLE;
            case DECIMAL -> DECIMAL;
            case DATE -> DATE;
            case TIME -> TIME;
            case YES_NO -> YES_NO;
        };
    }
}
