package sarnik.table;

/** The kinds of values a column holds. */
public enum ColumnType {
    TEXT("text"),
    WHOLE("whole number"),
    DECIMAL("decimal number"),
    DATE("date"),
    TIME("time"),
    YES_NO("yes/no");

    private final String words;

    ColumnType(String words) {
        this.words = words;
    }

    /** The type as people read it. */
    public String words() {
        return words;
    }

    public boolean isNumber() {
        return this == WHOLE || this == DECIMAL;
    }
}
