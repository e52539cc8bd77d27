package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.temporal.IsoFields;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import sarnik.table.Table;
import sarnik.table.TestTables;
import sarnik.table.WholeColumn;

/** Against Java's own calendar. */
@DisplayName("Steps of time")
class TimeStepTest {

    private static final Map<TimeStep, DateTimeFormatter> WRITTEN = Map.of(
            TimeStep.MINUTE, DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm"),
            TimeStep.HOUR, DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH':00'"),
            TimeStep.DAY, DateTimeFormatter.ofPattern("uuuu-MM-dd"),
            TimeStep.WEEK,
                    new DateTimeFormatterBuilder()
                            .appendValue(IsoFields.WEEK_BASED_YEAR, 4)
                            .appendLiteral("-W")
                            .appendValue(IsoFields.WEEK_OF_WEEK_BASED_YEAR, 2)
                            .toFormatter(),
            TimeStep.MONTH, DateTimeFormatter.ofPattern("uuuu-MM"),
            TimeStep.QUARTER, DateTimeFormatter.ofPattern("uuuu-'Q'q"),
            TimeStep.YEAR, DateTimeFormatter.ofPattern("uuuu"),
            TimeStep.HOUR_OF_DAY, DateTimeFormatter.ofPattern("HH"),
            TimeStep.MONTH_OF_YEAR, DateTimeFormatter.ofPattern("MM"));

    /** Moments of the years 0 to 9999, more of them about the turn of a year. */
    private static LocalDateTime some(Random random) {
        LocalDate day = random.nextBoolean()
                ? LocalDate.of(random.nextInt(10_000), 1, 1).plusDays(random.nextInt(9) - 4L)
                : LocalDate.of(random.nextInt(10_000), 1, 1).plusDays(random.nextInt(365));
        if (day.getYear() < 1 || day.getYear() > 9998) day = LocalDate.of(2026, 12, 31);
        return day.atTime(random.nextInt(24), random.nextInt(60), random.nextInt(60));
    }

    private static long number(TimeStep step, LocalDateTime at) {
        return step.number(at.toLocalDate().toEpochDay(), at.getHour() * 60 + at.getMinute());
    }

    @ParameterizedTest
    @EnumSource
    void areWrittenAsTheCalendarHasThemAndReadAgain(TimeStep step) {
        Random random = new Random(16);
        for (int i = 0; i < 3000; i++) {
            LocalDateTime at = some(random);
            long number = number(step, at);
            String text = step.text(number);
            String expected = step == TimeStep.WEEKDAY
                    ? String.valueOf(at.getDayOfWeek().getValue())
                    : WRITTEN.get(step).format(at);
            assertThat(text).as("%s of %s", step, at).isEqualTo(expected);
            assertThat(step.number(text)).as(text).isEqualTo(number);
        }
    }

    @ParameterizedTest
    @EnumSource
    void beginOnTheirFirstDayUnlessTheyComeAgain(TimeStep step) {
        assertThat(step.comesAgain()).isEqualTo(step.ordinal() >= TimeStep.HOUR_OF_DAY.ordinal());
        if (step.comesAgain()) {
            assertThatThrownBy(() -> step.firstDay(1)).hasMessage(step.words() + " comes again and again");
            assertThatThrownBy(() -> step.last(1)).hasMessageContaining("comes again");
            assertThatThrownBy(() -> step.counted(1)).hasMessageContaining("comes again");
            return;
        }
        Random random = new Random(17);
        for (int i = 0; i < 2000; i++) {
            LocalDateTime at = some(random);
            long number = number(step, at);
            LocalDate first = step.firstDay(number);
            LocalDate next = step.firstDay(number + 1);
            assertThat(first).isBeforeOrEqualTo(at.toLocalDate());
            if (step.needsTime()) {
                assertThat(first).isEqualTo(at.toLocalDate());
                continue;
            }
            assertThat(next).isAfter(at.toLocalDate());
            assertThat(number(step, first.atStartOfDay())).isEqualTo(number);
            assertThat(number(step, next.minusDays(1).atStartOfDay())).isEqualTo(number);
            assertThat(step.plus(first, 1)).isEqualTo(next);
            assertThat(step.plus(next, -1)).isEqualTo(first);
            assertThat(step.plus(first, 4)).isEqualTo(step.firstDay(number + 4));
        }
    }

    @ParameterizedTest
    @CsvSource({
        "MINUTE, the last minute, the last 3 minutes, 1 minute, 3 minutes",
        "HOUR, the last hour, the last 3 hours, 1 hour, 3 hours",
        "DAY, the last day, the last 3 days, 1 day, 3 days",
        "WEEK, the last week, the last 3 weeks, 1 week, 3 weeks",
        "MONTH, the last month, the last 3 months, 1 month, 3 months",
        "QUARTER, the last quarter, the last 3 quarters, 1 quarter, 3 quarters",
        "YEAR, the last year, the last 3 years, 1 year, 3 years"
    })
    void areCounted(TimeStep step, String last, String lastThree, String one, String three) {
        assertThat(step.last(1)).isEqualTo(last);
        assertThat(step.last(3)).isEqualTo(lastThree);
        assertThat(step.counted(1)).isEqualTo(one);
        assertThat(step.counted(3)).isEqualTo(three);
    }

    @ParameterizedTest
    @EnumSource
    void areCalledInEnglishAsInTheCode(TimeStep step) {
        assertThat(step.said()).isEqualTo(step.words());
    }

    @Test
    void areFoundForEachRow() {
        Table table = TestTables.csv(
                "day,at,town", "1969-12-31,1969-12-31T23:59:30,Soria", ",,Soria", "2026-05-31,2026-05-31T06:07:00,");
        assertThat(table.column("at").type().words()).contains("time");
        WholeColumn hours = TimeStep.HOUR.numbers(table.column("at"));
        assertThat(hours.get(0)).isEqualTo(-1);
        assertThat(hours.isMissing(1)).isTrue();
        assertThat(TimeStep.HOUR.text(hours.get(2))).isEqualTo("2026-05-31T06:00");
        assertThat(TimeStep.MINUTE.numbers(table.column("at")).get(0)).isEqualTo(-1);
        WholeColumn days = TimeStep.DAY.numbers(table.column("day"));
        assertThat(days.get(0)).isEqualTo(-1);
        assertThat(days.isMissing(1)).isTrue();
        assertThat(TimeStep.MONTH.text(
                        TimeStep.MONTH.numbers(table.column("day")).get(2)))
                .isEqualTo("2026-05");
        assertThatThrownBy(() -> TimeStep.HOUR.numbers(table.column("day")))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining("Steps of time (hour) are shared by dates or times; the type here is “date”");
        assertThatThrownBy(() -> TimeStep.DAY.numbers(table.column("town")))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining("the type here is “text”");
        assertThatThrownBy(() -> TimeStep.HOUR_OF_DAY.plus(LocalDate.EPOCH, 1))
                .hasMessageContaining("is no stretch of days");
    }
}
