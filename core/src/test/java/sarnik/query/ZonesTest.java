package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("Hours by the clock of a zone")
class ZonesTest {

    /** Each quarter of an hour about both changes of the clock of 2026 in Europe, and about new year. */
    private static final List<LocalDateTime> MOMENTS = moments();

    private static List<LocalDateTime> moments() {
        List<LocalDateTime> moments = new ArrayList<>();
        for (String day : List.of("2026-03-28", "2026-03-29", "2026-10-25", "2025-12-31"))
            for (int quarter = 0; quarter < 96; quarter++)
                moments.add(LocalDateTime.parse(day + "T00:00:00").plusMinutes(15L * quarter));
        return moments;
    }

    private static Table table() {
        List<String> lines = new ArrayList<>(List.of("at"));
        MOMENTS.forEach(moment -> lines.add(moment.withSecond(1).toString()));
        return TestTables.csv(lines.toArray(String[]::new));
    }

    private static Map<String, Double> counts(TimeStep step, String zone) {
        Frame frame = new InMemoryEngine()
                .answer(
                        table(),
                        Query.by(List.of(), List.of(new GroupKey.Step("at", step, zone)), List.of(Measure.ROWS)));
        Map<String, Double> counts = new TreeMap<>();
        for (int g = 0; g < frame.size(); g++) counts.put(frame.key(0, g), frame.value(0, g));
        return counts;
    }

    /** The second in which the clock changes shows the new time already, also as the first or the last that there is. */
    @ParameterizedTest
    @CsvSource({
        "2026-03-29T00:59:59, 2026-03-29T01:00:00, 2026-03-29T01:00, 2026-03-29T03:00",
        "2026-03-29T01:00:00, 2026-03-29T01:00:01, 2026-03-29T03:00, ",
        "2026-10-25T00:59:59, 2026-10-25T01:00:00, 2026-10-25T02:00, ",
        "2026-03-29T01:00:00, 2026-10-25T01:00:00, 2026-03-29T03:00, 2026-10-25T02:00"
    })
    void changeInTheVerySecond(String first, String last, String shown, String other) {
        Frame frame = new InMemoryEngine()
                .answer(
                        TestTables.csv("at", first, last),
                        Query.by(
                                List.of(),
                                List.of(new GroupKey.Step("at", TimeStep.HOUR, "Europe/Madrid")),
                                List.of(Measure.ROWS)));
        List<String> hours = new ArrayList<>();
        for (int g = 0; g < frame.size(); g++) hours.add(frame.key(0, g));
        assertThat(hours).containsExactlyInAnyOrderElementsOf(other == null ? List.of(shown) : List.of(shown, other));
    }

    /**
     * Zones an hour, half an hour and three quarters of an hour off, with changes of the clock of an hour and of half
     * of one.
     */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "Europe/Madrid",
                "Atlantic/Canary",
                "Asia/Kolkata",
                "Asia/Kathmandu",
                "Australia/Lord_Howe",
                "America/St_Johns",
                "Pacific/Kiritimati"
            })
    void areThoseThatTheClockShowed(String zone) {
        for (TimeStep step : List.of(TimeStep.HOUR, TimeStep.HOUR_OF_DAY, TimeStep.DAY, TimeStep.WEEKDAY)) {
            Map<String, Double> plain = new TreeMap<>();
            for (LocalDateTime moment : MOMENTS) {
                LocalDateTime local = moment.atOffset(ZoneOffset.UTC)
                        .atZoneSameInstant(ZoneId.of(zone))
                        .toLocalDateTime();
                String key = switch (step) {
                    case HOUR -> "%sT%02d:00".formatted(local.toLocalDate(), local.getHour());
                    case HOUR_OF_DAY -> "%02d".formatted(local.getHour());
                    case DAY -> local.toLocalDate().toString();
                    default -> String.valueOf(local.getDayOfWeek().getValue());
                };
                plain.merge(key, 1.0, Double::sum);
            }
            assertThat(counts(step, zone)).as("%s by %s", zone, step).isEqualTo(plain);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "2026-03-29T02:00, 0, the hour that the clock leapt over",
        "2026-10-25T02:00, 8, the hour that it showed twice",
        "2026-03-29T03:00, 4, any other"
    })
    void areNoneOrTwiceWhereTheClockIsChanged(String hour, double rows, String which) {
        assertThat(counts(TimeStep.HOUR, "Europe/Madrid").getOrDefault(hour, 0.0))
                .as(which)
                .isEqualTo(rows);
    }

    @Test
    void ofAZoneThatIsNoneAreRefused() {
        assertThatThrownBy(() -> counts(TimeStep.HOUR, "Europe/Nowhere")).isInstanceOf(QueryException.class);
    }
}
