package sarnik.formula;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.util.Set;

/** Functions of dates (days since 1970-01-01) and date-times (seconds since 1970-01-01T00:00). */
final class Moments {

    static final long DAY = 86_400;
    static final Set<String> OF_DATES =
            Set.of("YEAR", "QUARTER", "MONTH", "WEEK", "DAY", "DOW", "ISODOW", "DOY", "EPOCH");
    static final Set<String> OF_TIMES = Set.of("HOUR", "MINUTE", "SECOND");
    static final Set<String> OF_INTERVALS = Set.of("YEAR", "MONTH", "DAY", "HOUR", "MINUTE", "SECOND", "EPOCH");
    static final Set<String> TRUNCATED = Set.of("year", "quarter", "month", "week", "day", "hour", "minute", "second");
    private static final DateTimeFormatter TEXT = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss");

    private Moments() {}

    static LocalDateTime at(long second) {
        return LocalDateTime.ofEpochSecond(second, 0, ZoneOffset.UTC);
    }

    static double extract(String field, long second) {
        LocalDateTime at = at(second);
        return switch (field) {
            case "YEAR" -> at.getYear();
            case "QUARTER" -> at.get(IsoFields.QUARTER_OF_YEAR);
            case "MONTH" -> at.getMonthValue();
            case "WEEK" -> at.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR);
            case "DAY" -> at.getDayOfMonth();
            case "DOW" ->
                at.getDayOfWeek() == DayOfWeek.SUNDAY ? 0 : at.getDayOfWeek().getValue();
            case "ISODOW" -> at.getDayOfWeek().getValue();
            case "DOY" -> at.getDayOfYear();
            case "HOUR" -> at.getHour();
            case "MINUTE" -> at.getMinute();
            case "SECOND" -> at.getSecond();
            default -> second;
        };
    }

    static double extract(String field, Interval interval) {
        return switch (field) {
            case "YEAR" -> interval.months() / 12;
            case "MONTH" -> interval.months() % 12;
            case "DAY" -> interval.days();
            case "HOUR" -> interval.seconds() / 3600;
            case "MINUTE" -> interval.seconds() / 60 % 60;
            case "SECOND" -> interval.seconds() % 60;
            default -> interval.epoch();
        };
    }

    static long truncate(String field, long second) {
        LocalDateTime at = at(second);
        LocalDate day = at.toLocalDate();
        LocalDateTime cut = switch (field) {
            case "year" -> day.withDayOfYear(1).atStartOfDay();
            case "quarter" ->
                day.withDayOfMonth(1)
                        .withMonth((day.getMonthValue() - 1) / 3 * 3 + 1)
                        .atStartOfDay();
            case "month" -> day.withDayOfMonth(1).atStartOfDay();
            case "week" -> day.with(DayOfWeek.MONDAY).atStartOfDay();
            case "day" -> day.atStartOfDay();
            case "hour" -> at.truncatedTo(ChronoUnit.HOURS);
            case "minute" -> at.truncatedTo(ChronoUnit.MINUTES);
            default -> at;
        };
        return cut.toEpochSecond(ZoneOffset.UTC);
    }

    static String text(long second) {
        return TEXT.format(at(second));
    }

    static int date(String text) {
        try {
            return (int) LocalDate.parse(text.strip()).toEpochDay();
        } catch (DateTimeException unread) {
            throw new RowError("a text that is no date");
        }
    }

    static long time(String text) {
        String iso = text.strip().replaceFirst(" +", "T");
        try {
            return (iso.contains("T")
                            ? LocalDateTime.parse(iso)
                            : LocalDate.parse(iso).atStartOfDay())
                    .toEpochSecond(ZoneOffset.UTC);
        } catch (DateTimeException unread) {
            throw new RowError("a text that is no date with time");
        }
    }

    /** The first day that a date can be, 4713 BC as in PostgreSQL. */
    private static final long FIRST_DAY = -2_440_588;

    /** The day after the last that a date can be, in the year 5874898. */
    private static final long AFTER_LAST_DAY = 2_145_042_906;

    /** The same for date-times, in the year 294277. */
    private static final long AFTER_LAST_DAY_WITH_TIME =
            LocalDate.of(294_277, 1, 1).toEpochDay();

    /** The day, if a date can be it. */
    static int day(long day) {
        if (day < FIRST_DAY || day >= AFTER_LAST_DAY) throw new RowError("a date out of range");
        return (int) day;
    }

    /** The midnight with which a day begins, if a date-time can be it. */
    static long midnight(long day) {
        if (day < FIRST_DAY || day >= AFTER_LAST_DAY_WITH_TIME) throw new RowError("a date out of range");
        return day * DAY;
    }

    /** A moment moved by an interval. */
    static long moved(long second, Interval by) {
        try {
            long moved = by.addTo(second);
            midnight(Math.floorDiv(moved, DAY));
            return moved;
        } catch (ArithmeticException | DateTimeException large) {
            throw new RowError("a date out of range");
        }
    }
}
