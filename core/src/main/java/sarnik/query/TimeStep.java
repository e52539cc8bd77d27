package sarnik.query;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.IsoFields;
import sarnik.language.Language;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/**
 * Steps of time that rows are grouped by: stretches that follow each other, and parts that come again. Weeks are those
 * of ISO 8601: they begin on Monday, and the first of a year holds its first Thursday.
 */
public enum TimeStep {
    MINUTE("minute", "YYYY-MM-DD\"T\"HH24:MI", false),
    HOUR("hour", "YYYY-MM-DD\"T\"HH24:00", false),
    DAY("day", "YYYY-MM-DD", false),
    WEEK("week", "IYYY-\"W\"IW", false),
    MONTH("month", "YYYY-MM", false),
    QUARTER("quarter", "YYYY-\"Q\"Q", false),
    YEAR("year", "YYYY", false),
    HOUR_OF_DAY("hour of the day", "HH24", true),
    WEEKDAY("weekday", "ID", true),
    MONTH_OF_YEAR("month of the year", "MM", true);

    private static final int MINUTES_A_DAY = 24 * 60;
    private static final int HOURS_A_DAY = 24;
    private static final int SECONDS_A_DAY = 86_400;
    private static final int DAYS_A_WEEK = 7;

    /** 1970-01-01 was a Thursday, three days after its week began. */
    private static final int THURSDAY = 3;

    private final String words;
    private final String pattern;
    private final boolean again;

    TimeStep(String words, String pattern, boolean again) {
        this.words = words;
        this.pattern = pattern;
        this.again = again;
    }

    public String words() {
        return words;
    }

    /** What it is called in the language that is spoken. */
    public String said() {
        return switch (this) {
            case MINUTE -> Language.phrase("minute");
            case HOUR -> Language.phrase("hour");
            case DAY -> Language.phrase("day");
            case WEEK -> Language.phrase("week");
            case MONTH -> Language.phrase("step|month");
            case QUARTER -> Language.phrase("quarter");
            case YEAR -> Language.phrase("year");
            case HOUR_OF_DAY -> Language.phrase("hour of the day");
            case WEEKDAY -> Language.phrase("weekday");
            case MONTH_OF_YEAR -> Language.phrase("month of the year");
        };
    }

    /** The last so many of them: "the last 3 months". */
    public String last(int count) {
        return switch (this) {
            case MINUTE -> Language.phrase("{0, plural, one {the last minute} other {the last # minutes}}", count);
            case HOUR -> Language.phrase("{0, plural, one {the last hour} other {the last # hours}}", count);
            case DAY -> Language.phrase("{0, plural, one {the last day} other {the last # days}}", count);
            case WEEK -> Language.phrase("{0, plural, one {the last week} other {the last # weeks}}", count);
            case MONTH -> Language.phrase("{0, plural, one {the last month} other {the last # months}}", count);
            case QUARTER -> Language.phrase("{0, plural, one {the last quarter} other {the last # quarters}}", count);
            case YEAR -> Language.phrase("{0, plural, one {the last year} other {the last # years}}", count);
            default -> throw new IllegalStateException(words + " comes again and again");
        };
    }

    /** So many of them: "3 months". */
    public String counted(int count) {
        return switch (this) {
            case MINUTE -> Language.phrase("{0, plural, one {# minute} other {# minutes}}", count);
            case HOUR -> Language.phrase("{0, plural, one {# hour} other {# hours}}", count);
            case DAY -> Language.phrase("{0, plural, one {# day} other {# days}}", count);
            case WEEK -> Language.phrase("{0, plural, one {# week} other {# weeks}}", count);
            case MONTH -> Language.phrase("{0, plural, one {# month} other {# months}}", count);
            case QUARTER -> Language.phrase("{0, plural, one {# quarter} other {# quarters}}", count);
            case YEAR -> Language.phrase("{0, plural, one {# year} other {# years}}", count);
            default -> throw new IllegalStateException(words + " comes again and again");
        };
    }

    /** The pattern of PostgreSQL's TO_CHAR that gives {@link #text}. */
    String pattern() {
        return pattern;
    }

    /** Whether it comes again: an hour of the day, a weekday. */
    public boolean comesAgain() {
        return again;
    }

    /** Whether it needs a time of the day. */
    public boolean needsTime() {
        return this == MINUTE || this == HOUR || this == HOUR_OF_DAY;
    }

    /**
     * The number of the step that a moment lies in; steps that follow each other have numbers that do.
     *
     * @param day since 1970-01-01
     * @param minute of that day
     */
    public long number(long day, int minute) {
        return switch (this) {
            case MINUTE -> day * MINUTES_A_DAY + minute;
            case HOUR -> day * HOURS_A_DAY + minute / 60;
            case DAY -> day;
            case WEEK -> Math.floorDiv(day + THURSDAY, DAYS_A_WEEK);
            case MONTH -> months(day);
            case QUARTER -> Math.floorDiv(months(day), 3);
            case YEAR -> LocalDate.ofEpochDay(day).getYear();
            case HOUR_OF_DAY -> minute / 60;
            case WEEKDAY -> Math.floorMod(day + THURSDAY, DAYS_A_WEEK);
            case MONTH_OF_YEAR -> Math.floorMod(months(day), 12);
        };
    }

    /**
     * The number of the step of each row of a column of dates or date-times, missing where it is.
     *
     * @throws QueryException when the column holds something else, or dates without the hours that the step needs
     */
    public WholeColumn numbers(Column column) {
        long[] numbers = new long[column.size()];
        if (column instanceof DateColumn dates && !needsTime()) {
            for (int row = 0; row < numbers.length; row++)
                numbers[row] = dates.isMissing(row) ? WholeColumn.MISSING : number(dates.day(row), 0);
        } else if (column instanceof TimeColumn times) {
            for (int row = 0; row < numbers.length; row++) {
                long seconds = times.second(row);
                numbers[row] = times.isMissing(row)
                        ? WholeColumn.MISSING
                        : number(Math.floorDiv(seconds, SECONDS_A_DAY), (int)
                                (Math.floorMod(seconds, SECONDS_A_DAY) / 60));
            }
        } else {
            throw new QueryException(Language.phrase(
                    "Steps of time ({0}) are shared by dates or times; the type here is “{1}”",
                    said(), column.type().said()));
        }
        return new WholeColumn(numbers);
    }

    private static long months(long day) {
        LocalDate date = LocalDate.ofEpochDay(day);
        return date.getYear() * 12L + date.getMonthValue() - 1;
    }

    /** The text of a step: {@code 2026-05}, {@code 2026-W21}, {@code 2026-Q2}, {@code 14}; weekdays 1 to 7. */
    public String text(long number) {
        return switch (this) {
            case MINUTE ->
                LocalDate.ofEpochDay(Math.floorDiv(number, MINUTES_A_DAY)) + "T"
                        + clock(Math.floorMod(number, MINUTES_A_DAY));
            case HOUR ->
                LocalDate.ofEpochDay(Math.floorDiv(number, HOURS_A_DAY)) + "T" + two(Math.floorMod(number, HOURS_A_DAY))
                        + ":00";
            case DAY -> LocalDate.ofEpochDay(number).toString();
            case WEEK -> {
                LocalDate thursday = LocalDate.ofEpochDay(number * DAYS_A_WEEK);
                yield year(thursday.get(IsoFields.WEEK_BASED_YEAR)) + "-W"
                        + two(thursday.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR));
            }
            case MONTH -> year(Math.floorDiv(number, 12)) + "-" + two(Math.floorMod(number, 12) + 1);
            case QUARTER -> year(Math.floorDiv(number, 4)) + "-Q" + (Math.floorMod(number, 4) + 1);
            case YEAR -> year(number);
            case HOUR_OF_DAY -> two((int) number);
            case WEEKDAY -> String.valueOf(number + 1);
            case MONTH_OF_YEAR -> two((int) number + 1);
        };
    }

    /** The first day of a step that follows others; of one that comes again there is none. */
    public LocalDate firstDay(long number) {
        return switch (this) {
            case MINUTE -> LocalDate.ofEpochDay(Math.floorDiv(number, MINUTES_A_DAY));
            case HOUR -> LocalDate.ofEpochDay(Math.floorDiv(number, HOURS_A_DAY));
            case DAY -> LocalDate.ofEpochDay(number);
            case WEEK -> LocalDate.ofEpochDay(number * DAYS_A_WEEK - THURSDAY);
            case MONTH -> LocalDate.of((int) Math.floorDiv(number, 12), Math.floorMod(number, 12) + 1, 1);
            case QUARTER -> LocalDate.of((int) Math.floorDiv(number, 4), Math.floorMod(number, 4) * 3 + 1, 1);
            case YEAR -> LocalDate.of((int) number, 1, 1);
            default -> throw new IllegalStateException(words + " comes again and again");
        };
    }

    /** The day so many steps later, or before where the count is negative; of a step of days and longer. */
    public LocalDate plus(LocalDate day, int count) {
        return switch (this) {
            case DAY -> day.plusDays(count);
            case WEEK -> day.plusWeeks(count);
            case MONTH -> day.plusMonths(count);
            case QUARTER -> day.plusMonths(3L * count);
            case YEAR -> day.plusYears(count);
            default -> throw new IllegalStateException(words + " is no stretch of days");
        };
    }

    /** The number of the step whose text this is. */
    public long number(String text) {
        return switch (this) {
            case MINUTE, HOUR -> {
                String[] parts = text.split("[T:]");
                yield number(
                        LocalDate.parse(parts[0]).toEpochDay(),
                        Integer.parseInt(parts[1]) * 60 + Integer.parseInt(parts[2]));
            }
            case DAY -> LocalDate.parse(text).toEpochDay();
            case WEEK -> {
                LocalDate january = LocalDate.of(Integer.parseInt(text.substring(0, text.length() - 4)), 1, 4);
                long monday = january.toEpochDay() - (january.getDayOfWeek().getValue() - DayOfWeek.MONDAY.getValue());
                yield number(monday + 7L * (Integer.parseInt(text.substring(text.length() - 2)) - 1), 0);
            }
            case MONTH ->
                Long.parseLong(text.substring(0, text.length() - 3)) * 12
                        + Long.parseLong(text.substring(text.length() - 2))
                        - 1;
            case QUARTER ->
                Long.parseLong(text.substring(0, text.length() - 3)) * 4
                        + Long.parseLong(text.substring(text.length() - 1))
                        - 1;
            case YEAR -> Long.parseLong(text);
            case HOUR_OF_DAY -> Long.parseLong(text);
            case WEEKDAY, MONTH_OF_YEAR -> Long.parseLong(text) - 1;
        };
    }

    private static String year(long year) {
        return year >= 0 && year < 1000 ? "%04d".formatted(year) : String.valueOf(year);
    }

    private static String clock(int minute) {
        return two(minute / 60) + ":" + two(minute % 60);
    }

    private static String two(int number) {
        return number < 10 ? "0" + number : String.valueOf(number);
    }
}
