package sarnik.visual;

import java.time.LocalDate;
import java.time.format.TextStyle;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sarnik.query.TimeStep;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Extremes;

/** What steps of time are called. */
public final class StepWords {

    private static final List<String> DAYS = List.of("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun");

    private StepWords() {}

    /** The step of which the span of the data has a good number. */
    public static TimeStep stepFor(Column column) {
        Optional<Extremes> ends = column.extremes();
        if (ends.isEmpty()) return TimeStep.DAY;
        String first = column.text(ends.get().lowest());
        String last = column.text(ends.get().highest());
        long days = LocalDate.parse(last.substring(0, 10)).toEpochDay()
                - LocalDate.parse(first.substring(0, 10)).toEpochDay();
        if (column.type() == ColumnType.TIME && days <= 4) return TimeStep.HOUR;
        if (days <= 100) return TimeStep.DAY;
        if (days <= 400) return TimeStep.WEEK;
        if (days <= 3660) return TimeStep.MONTH;
        return days <= 14_640 ? TimeStep.QUARTER : TimeStep.YEAR;
    }

    /** A step that follows others, short: "3 May 2026", "May 2026", "week 21, 2026". */
    public static String of(TimeStep step, long number) {
        return switch (step) {
            case MINUTE, HOUR -> {
                String text = step.text(number);
                yield text.substring(11) + ", " + day(LocalDate.parse(text.substring(0, 10)));
            }
            case DAY -> {
                LocalDate day = step.firstDay(number);
                yield day(day) + " " + day.getYear();
            }
            case WEEK -> {
                String[] parts = step.text(number).split("-W");
                yield "week " + Integer.parseInt(parts[1]) + ", " + parts[0];
            }
            case MONTH -> {
                LocalDate day = step.firstDay(number);
                yield month(day) + " " + day.getYear();
            }
            case QUARTER -> step.text(number).replace("-", " ");
            default -> step.text(number);
        };
    }

    /** The text of a step's key as people read it: weekdays and months by name, hours with a colon. */
    public static String of(TimeStep step, String text) {
        if (text == null) return "(missing)";
        return switch (step) {
            case WEEKDAY -> DAYS.get(Integer.parseInt(text) - 1);
            case MONTH_OF_YEAR -> month(LocalDate.of(2000, Integer.parseInt(text), 1));
            case HOUR_OF_DAY -> text + ":00";
            default -> of(step, step.number(text));
        };
    }

    private static String day(LocalDate day) {
        return day.getDayOfMonth() + " " + month(day);
    }

    private static String month(LocalDate day) {
        return day.getMonth().getDisplayName(TextStyle.SHORT, Locale.ENGLISH);
    }
}
