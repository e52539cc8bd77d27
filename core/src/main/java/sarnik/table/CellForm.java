package sarnik.table;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.Set;

/** The ways in which a value can be written in a cell of text, in the order in which they are preferred. */
public enum CellForm {
    YES_NO(ColumnType.YES_NO),
    WHOLE(ColumnType.WHOLE),
    DECIMAL_POINT(ColumnType.DECIMAL),
    DECIMAL_COMMA(ColumnType.DECIMAL),
    /** Thousands parted by commas, blanks or apostrophes, decimals after a point: 1,234.5. */
    GROUPED_POINT(ColumnType.DECIMAL),
    /** Thousands parted by points, blanks or apostrophes, decimals after a comma: 1.234,5. */
    GROUPED_COMMA(ColumnType.DECIMAL),
    DATE_ISO(ColumnType.DATE),
    DATE_DAY_FIRST(ColumnType.DATE),
    DATE_MONTH_FIRST(ColumnType.DATE),
    TIME_ISO(ColumnType.TIME),
    TEXT(ColumnType.TEXT);

    private static final Set<String> YES = Set.of("yes", "true", "sí", "si", "sim");
    private static final Set<String> NO = Set.of("no", "false", "não", "nao");
    private final ColumnType type;

    CellForm(ColumnType type) {
        this.type = type;
    }

    public ColumnType type() {
        return type;
    }

    /** The mark before decimals in this form; null where it does not matter. */
    Shaping.DecimalMark decimalMark() {
        return switch (this) {
            case DECIMAL_POINT, GROUPED_POINT -> Shaping.DecimalMark.POINT;
            case DECIMAL_COMMA, GROUPED_COMMA -> Shaping.DecimalMark.COMMA;
            default -> null;
        };
    }

    /** Whether the trimmed, non-empty text is written in this form. */
    boolean fits(String text) {
        return switch (this) {
            case TEXT -> true;
            case YES_NO -> yesNo(text) >= 0;
            case WHOLE -> isNumber(text, (char) 0) && text.length() <= 18;
            case DECIMAL_POINT -> isNumber(text, '.');
            case DECIMAL_COMMA -> isNumber(text, ',');
            case GROUPED_POINT -> isGrouped(text, ',', '.');
            case GROUPED_COMMA -> isGrouped(text, '.', ',');
            case DATE_ISO, DATE_DAY_FIRST, DATE_MONTH_FIRST -> date(text) != DateColumn.MISSING;
            case TIME_ISO -> time(text) != TimeColumn.MISSING;
        };
    }

    /** 1 for yes, 0 for no, -1 where the text is neither. */
    static int yesNo(String text) {
        if (text.length() > 5) return -1;
        String word = text.toLowerCase(Locale.ROOT);
        return YES.contains(word) ? 1 : NO.contains(word) ? 0 : -1;
    }

    /** The number written in a text that {@link #fits} the form. */
    double decimal(String text) {
        return switch (this) {
            case DECIMAL_COMMA -> Double.parseDouble(text.replace(',', '.'));
            case GROUPED_POINT -> Double.parseDouble(ungrouped(text, ','));
            case GROUPED_COMMA -> Double.parseDouble(ungrouped(text, '.').replace(',', '.'));
            default -> Double.parseDouble(text);
        };
    }

    /** Days since 1970-01-01, or {@link DateColumn#MISSING} where the text is no date of this form. */
    int date(String text) {
        if (text.length() < 8 || text.length() > 10) return DateColumn.MISSING;
        char mark = this == DATE_ISO ? '-' : text.indexOf('/') > 0 ? '/' : '.';
        int first = text.indexOf(mark);
        int second = text.indexOf(mark, first + 1);
        if (first < 1 || second < 0) return DateColumn.MISSING;
        int a = digits(text, 0, first);
        int b = digits(text, first + 1, second);
        int c = digits(text, second + 1, text.length());
        if (a < 0 || b < 0 || c < 0) return DateColumn.MISSING;
        return switch (this) {
            case DATE_ISO -> first == 4 ? epochDay(a, b, c) : DateColumn.MISSING;
            case DATE_DAY_FIRST -> text.length() - second == 5 ? epochDay(c, b, a) : DateColumn.MISSING;
            case DATE_MONTH_FIRST -> text.length() - second == 5 ? epochDay(c, a, b) : DateColumn.MISSING;
            default -> DateColumn.MISSING;
        };
    }

    /** Seconds since 1970-01-01T00:00, or {@link TimeColumn#MISSING} where the text is no ISO 8601 local date-time. */
    static long time(String text) {
        if (text.length() < 16 || text.charAt(4) != '-' || (text.charAt(10) != 'T' && text.charAt(10) != ' ')) {
            return TimeColumn.MISSING;
        }
        try {
            return LocalDateTime.parse(text.charAt(10) == ' ' ? text.substring(0, 10) + "T" + text.substring(11) : text)
                    .toEpochSecond(ZoneOffset.UTC);
        } catch (DateTimeException unreadable) {
            return TimeColumn.MISSING;
        }
    }

    /** A run of digits that starts with a zero: a code rather than a number, such as "08013". */
    static boolean isCode(String text) {
        if (text.length() < 2 || text.charAt(0) != '0') return false;
        for (int i = 1; i < text.length(); i++) if (!isDigit(text.charAt(i))) return false;
        return true;
    }

    private static int epochDay(int year, int month, int day) {
        try {
            return (int) LocalDate.of(year, month, day).toEpochDay();
        } catch (DateTimeException unreadable) {
            return DateColumn.MISSING;
        }
    }

    private static int digits(String text, int from, int to) {
        if (to == from || to - from > 4) return -1;
        int value = 0;
        for (int i = from; i < to; i++) {
            if (!isDigit(text.charAt(i))) return -1;
            value = value * 10 + text.charAt(i) - '0';
        }
        return value;
    }

    /** Sign, digits, at most one decimal mark, and an exponent only where a decimal mark is allowed. */
    private static boolean isNumber(String text, char mark) {
        int i = text.charAt(0) == '-' || text.charAt(0) == '+' ? 1 : 0;
        int digits = 0;
        boolean marked = false;
        for (; i < text.length(); i++) {
            char c = text.charAt(i);
            if (isDigit(c)) digits++;
            else if (c == mark && mark != 0 && !marked) marked = true;
            else if ((c == 'e' || c == 'E') && mark != 0 && digits > 0) return isExponent(text, i + 1);
            else return false;
        }
        return digits > 0;
    }

    /** A number whose whole part is parted in threes by one kind of mark, or has at most three digits. */
    private static boolean isGrouped(String text, char thousands, char decimal) {
        int i = text.charAt(0) == '-' || text.charAt(0) == '+' ? 1 : 0;
        int end = text.indexOf(decimal, i);
        if (end < 0) end = text.length();
        char used = 0;
        int digits = 0;
        int first = -1;
        for (; i < end; i++) {
            char c = text.charAt(i);
            if (isDigit(c)) {
                digits++;
                continue;
            }
            boolean mark = c == thousands || c == ' ' || c == '\u00A0' || c == '\u202F' || c == '\'' || c == '’';
            if (!mark || (used != 0 && c != used)) return false;
            if (first < 0 ? digits < 1 || digits > 3 : digits != 3) return false;
            first = 0;
            used = c;
            digits = 0;
        }
        if (used != 0 ? digits != 3 : digits < 1) return false;
        for (i = end + 1; i < text.length(); i++) if (!isDigit(text.charAt(i))) return false;
        return true;
    }

    private static String ungrouped(String text, char thousands) {
        StringBuilder plain = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (isDigit(c) || c == '-' || c == '+' || ((c == '.' || c == ',') && c != thousands)) plain.append(c);
        }
        return plain.toString();
    }

    private static boolean isExponent(String text, int from) {
        int i = from < text.length() && (text.charAt(from) == '-' || text.charAt(from) == '+') ? from + 1 : from;
        int value = digits(text, i, text.length());
        return value >= 0 && value < 300;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }
}
