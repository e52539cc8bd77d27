package sarnik.table;

import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.Locale;
import java.util.Set;

/** The ways in which a value can be written in a cell of text, in the order in which they are preferred. */
public enum CellForm {
    YES_NO(ColumnType.YES_NO),
    /** Seconds since 1970-01-01T00:00Z; looked for where a column is called so, and then before numbers. */
    EPOCH_SECONDS(ColumnType.TIME),
    /** Milliseconds since 1970-01-01T00:00Z. */
    EPOCH_MILLISECONDS(ColumnType.TIME),
    /**
     * Days since 1899-12-30 (ISO/IEC 29500-1, 18.17.4.1), as spreadsheets write dates that lost their format; looked for
     * where a column is called so, and then before numbers.
     */
    SHEET_DAYS(ColumnType.DATE),
    /** Six digits, taken as the first day of a month: 202101; looked for where a column is called so. */
    MONTH_DIGITS(ColumnType.DATE),
    /** Eight digits: 20210131. */
    DATE_COMPACT(ColumnType.DATE),
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
    /** 2021/01/31, 2021.1.31. */
    DATE_YEAR_FIRST(ColumnType.DATE),
    /** 31 Jan 2021, January 31, 2021. */
    DATE_NAMED(ColumnType.DATE),
    /** A week, a month, a quarter or a half, taken as its first day: 2021-W05, Jan 2021, Q1 2021. */
    DATE_PERIOD(ColumnType.DATE),
    TIME_ISO(ColumnType.TIME),
    TIME_YEAR_FIRST(ColumnType.TIME),
    TIME_DAY_FIRST(ColumnType.TIME),
    TIME_MONTH_FIRST(ColumnType.TIME),
    TIME_NAMED(ColumnType.TIME),
    TIME_COMPACT(ColumnType.TIME),
    TEXT(ColumnType.TEXT);

    private static final Set<String> YES = Set.of("yes", "true", "sí", "si", "sim");
    private static final Set<String> NO = Set.of("no", "false", "não", "nao");
    /** Characters of which every whole number has room in 64 bits. */
    private static final int LONGEST_WHOLE = 18;

    private final ColumnType type;

    CellForm(ColumnType type) {
        this.type = type;
    }

    public ColumnType type() {
        return type;
    }

    /** Its bit in a set of forms. */
    long bit() {
        return 1L << ordinal();
    }

    /** The mark before decimals in this form; null where it does not matter. */
    Shaping.DecimalMark decimalMark() {
        return switch (this) {
            case DECIMAL_POINT, GROUPED_POINT -> Shaping.DecimalMark.POINT;
            case DECIMAL_COMMA, GROUPED_COMMA -> Shaping.DecimalMark.COMMA;
            default -> null;
        };
    }

    /** The form in which what this one takes for the mark before decimals parts thousands; null for none. */
    CellForm parted() {
        return switch (this) {
            case DECIMAL_POINT -> GROUPED_COMMA;
            case DECIMAL_COMMA -> GROUPED_POINT;
            default -> null;
        };
    }

    /** Whether the trimmed, non-empty text is written in this form. */
    boolean fits(String text) {
        return switch (this) {
            case TEXT -> true;
            case YES_NO -> yesNo(text) >= 0;
            case WHOLE -> isNumber(text, (char) 0) && text.length() <= LONGEST_WHOLE;
            case DECIMAL_POINT -> isNumber(text, '.');
            case DECIMAL_COMMA -> isNumber(text, ',');
            case GROUPED_POINT -> isGrouped(text, ',', '.');
            case GROUPED_COMMA -> isGrouped(text, '.', ',');
            default -> type == ColumnType.DATE ? date(text) != DateColumn.MISSING : time(text) != TimeColumn.MISSING;
        };
    }

    /** 1 for yes, 0 for no, -1 where the text is neither. */
    static int yesNo(String text) {
        if (text.length() > 5) return -1;
        String word = text.toLowerCase(Locale.ROOT);
        return YES.contains(word) ? 1 : NO.contains(word) ? 0 : -1;
    }

    /** The number written in a text that {@link #fits} the form; "-0.00" is 0. */
    double decimal(String text) {
        // The negative zero that a double knows is no amount of its own, and a column that had one would not be of
        // exact steps.
        return 0.0
                + switch (this) {
                    case DECIMAL_COMMA -> parsed(text.replace(',', '.'));
                    case GROUPED_POINT -> parsed(ungrouped(text, ','));
                    case GROUPED_COMMA -> parsed(ungrouped(text, '.').replace(',', '.'));
                    default -> parsed(text);
                };
    }

    /** Whole numbers of so many digits are exact in a decimal number. */
    private static final int EXACT_DIGITS = 15;

    /** Powers of ten, all exact. */
    private static final double[] TENS = {
        1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15
    };

    /**
     * The nearest decimal number. Of few digits it is their whole number divided by a power of ten: both are exact, so
     * that the quotient is the nearest there is (Clinger, "How to read floating point numbers accurately", 1990).
     */
    private static double parsed(String text) {
        long digits = 0;
        int count = 0;
        int behind = -1;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (isDigit(c)) {
                digits = digits * 10 + (c - '0');
                count++;
                if (behind >= 0) behind++;
            } else if (c == '.' && behind < 0) behind = 0;
            else if (i > 0 || c != '-') return Double.parseDouble(text);
            if (count > EXACT_DIGITS) return Double.parseDouble(text);
        }
        if (count == 0) return Double.parseDouble(text);
        double number = behind <= 0 ? digits : digits / TENS[behind];
        return text.charAt(0) == '-' ? -number : number;
    }

    /** The order of the parts of its dates; null where it has none. */
    private WrittenMoment.Order order() {
        return switch (this) {
            case DATE_ISO, DATE_YEAR_FIRST, TIME_ISO, TIME_YEAR_FIRST -> WrittenMoment.Order.YEAR_FIRST;
            case DATE_DAY_FIRST, TIME_DAY_FIRST -> WrittenMoment.Order.DAY_FIRST;
            case DATE_MONTH_FIRST, TIME_MONTH_FIRST -> WrittenMoment.Order.MONTH_FIRST;
            case DATE_NAMED, TIME_NAMED -> WrittenMoment.Order.NAMED;
            case DATE_COMPACT, TIME_COMPACT -> WrittenMoment.Order.COMPACT;
            case DATE_PERIOD -> WrittenMoment.Order.PERIOD;
            default -> null;
        };
    }

    /** The form of the same type whose days and months stand the other way round; itself where that does not matter. */
    CellForm turned() {
        return switch (this) {
            case DATE_DAY_FIRST -> DATE_MONTH_FIRST;
            case DATE_MONTH_FIRST -> DATE_DAY_FIRST;
            case TIME_DAY_FIRST -> TIME_MONTH_FIRST;
            case TIME_MONTH_FIRST -> TIME_DAY_FIRST;
            default -> this;
        };
    }

    boolean isMonthFirst() {
        return this == DATE_MONTH_FIRST || this == TIME_MONTH_FIRST;
    }

    boolean isDayFirst() {
        return this == DATE_DAY_FIRST || this == TIME_DAY_FIRST;
    }

    /** How it is written, for people; empty where that goes without saying. */
    String words() {
        return switch (this) {
            case DATE_DAY_FIRST, TIME_DAY_FIRST -> "day first";
            case DATE_MONTH_FIRST, TIME_MONTH_FIRST -> "month first";
            case DATE_PERIOD, MONTH_DIGITS -> "a period, taken as its first day";
            case DATE_COMPACT, TIME_COMPACT -> "dates of eight digits";
            case SHEET_DAYS -> "days since 1900, as spreadsheets count them";
            case EPOCH_SECONDS -> "seconds since 1970, as UTC";
            case EPOCH_MILLISECONDS -> "milliseconds since 1970, as UTC";
            default -> "";
        };
    }

    /** Days since 1970-01-01, or {@link DateColumn#MISSING} where the text is no date of this form. */
    int date(String text) {
        if (this == DATE_ISO && (text.length() != 10 || text.charAt(4) != '-')) return DateColumn.MISSING;
        return this == SHEET_DAYS
                ? sheetDay(text)
                : this == MONTH_DIGITS
                        ? text.length() == 6
                                ? WrittenMoment.date(text + "01", WrittenMoment.Order.COMPACT)
                                : DateColumn.MISSING
                        : WrittenMoment.date(text, order());
    }

    /** Whether it is a number first, and a date only where its column is called so. */
    boolean isDateByName() {
        return this == SHEET_DAYS || this == MONTH_DIGITS;
    }

    /** From 1954 to 2119, so that not every number is a date. */
    private static int sheetDay(String text) {
        if (text.length() != 5 || !isNumber(text, (char) 0)) return DateColumn.MISSING;
        int days = Integer.parseInt(text);
        return days < 20_000 || days > 80_000 ? DateColumn.MISSING : days - 25_569;
    }

    /**
     * Seconds since 1970-01-01T00:00, or {@link TimeColumn#MISSING} where the text is no time of this form. Fractions
     * are cut off.
     */
    long time(String text) {
        return switch (this) {
            case EPOCH_SECONDS -> epoch(text, 1);
            case EPOCH_MILLISECONDS -> epoch(text, 1000);
            case TIME_ISO -> isoTime(text);
            default ->
                text.indexOf(':') < 0 && text.indexOf('m') < 0 && text.indexOf('M') < 0
                        ? TimeColumn.MISSING
                        : WrittenMoment.time(text, order());
        };
    }

    /** From 1990 to 2100, so that not every long number is a time. */
    private static long epoch(String text, int each) {
        if (!isNumber(text, (char) 0) || text.length() > 14) return TimeColumn.MISSING;
        long seconds = Math.floorDiv(Long.parseLong(text), each);
        return seconds < 631_152_000L || seconds > 4_102_444_800L ? TimeColumn.MISSING : seconds;
    }

    private static long isoTime(String text) {
        if (text.length() < 16 || text.charAt(4) != '-' || (text.charAt(10) != 'T' && text.charAt(10) != ' '))
            return TimeColumn.MISSING;
        try {
            return LocalDateTime.parse(text.charAt(10) == ' ' ? text.substring(0, 10) + "T" + text.substring(11) : text)
                    .toEpochSecond(ZoneOffset.UTC);
        } catch (DateTimeException otherwise) {
            return WrittenMoment.time(text, WrittenMoment.Order.YEAR_FIRST);
        }
    }

    /**
     * A run of digits that starts with a zero, or of more than a whole number has room for: a code rather than a number,
     * such as "08013" or "89340712345678901234", of which a decimal number would lose the last digits.
     */
    static boolean isCode(String text) {
        if (text.length() <= LONGEST_WHOLE && (text.length() < 2 || text.charAt(0) != '0')) return false;
        for (int i = 0; i < text.length(); i++) if (!isDigit(text.charAt(i))) return false;
        return true;
    }

    /** Whether a trimmed text is a number of any form, with what stands around it; no code. */
    static boolean isAnyNumber(String text) {
        if (text.isEmpty() || isCode(text)) return false;
        WrittenAmount amount = WrittenAmount.of(text);
        String number = amount == null ? text : amount.number();
        return Arrays.stream(values()).anyMatch(form -> form.type.isNumber() && form.fits(number));
    }

    /** Whether a trimmed text may be a year. */
    static boolean isYear(String text) {
        return text.length() == 4 && (text.startsWith("19") || text.startsWith("20")) && WHOLE.fits(text);
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
            // No number is parted whose first digit is a zero: 0,125 is an eighth.
            if (first < 0 ? digits < 1 || digits > 3 || text.charAt(i - digits) == '0' : digits != 3) return false;
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
        int value = WrittenMoment.digits(text, i, text.length());
        return value >= 0 && value < 300;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }
}
