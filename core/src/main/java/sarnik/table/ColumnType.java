package sarnik.table;

import sarnik.language.Language;

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

    /** The type in the language that is spoken. */
    public String said() {
        return switch (this) {
            case TEXT -> Language.phrase("type|text");
            case WHOLE -> Language.phrase("whole number");
            case DECIMAL -> Language.phrase("decimal number");
            case DATE -> Language.phrase("type|date");
            case TIME -> Language.phrase("type|time");
            case YES_NO -> Language.phrase("yes/no");
        };
    }

    public boolean isNumber() {
        return this == WHOLE || this == DECIMAL;
    }
}
