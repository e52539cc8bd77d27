package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.Optional;
import sarnik.language.Language;
import sarnik.query.TimeStep;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Extremes;

/** What steps of time are called. */
public final class StepWords {

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
                LocalDate day = LocalDate.parse(text.substring(0, 10));
                yield phrase(
                        "clock, day, short month|{0}, {1} {2}",
                        text.substring(11), String.valueOf(day.getDayOfMonth()), month(day));
            }
            case DAY -> {
                yield Language.shortly(step.firstDay(number));
            }
            case WEEK -> {
                String[] parts = step.text(number).split("-W");
                yield phrase("week {0}, {1}", Integer.parseInt(parts[1]), parts[0]);
            }
            case MONTH -> {
                LocalDate day = step.firstDay(number);
                yield phrase("short month, year|{0} {1}", month(day), String.valueOf(day.getYear()));
            }
            case QUARTER -> {
                String[] parts = step.text(number).split("-Q");
                yield phrase("year, quarter|{0} Q{1}", parts[0], parts[1]);
            }
            default -> step.text(number);
        };
    }

    /** The text of a step's key as people read it: weekdays and months by name, hours with a colon. */
    public static String of(TimeStep step, String text) {
        if (text == null) return phrase("(missing)");
        return switch (step) {
            case WEEKDAY -> Language.shortDay(Integer.parseInt(text));
            case MONTH_OF_YEAR -> month(LocalDate.of(2000, Integer.parseInt(text), 1));
            case HOUR_OF_DAY -> text + ":00";
            default -> of(step, step.number(text));
        };
    }

    private static String month(LocalDate day) {
        return Language.shortMonth(day.getMonthValue());
    }
}
