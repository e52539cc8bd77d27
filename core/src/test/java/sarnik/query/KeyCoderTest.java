package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

@DisplayName("Codes of keys")
class KeyCoderTest {

    private static KeyCoder coder(Column column, GroupKey key) {
        return KeyCoder.of(new Table(Map.of("c", column)), key);
    }

    /** The texts of all rows; null for those that lack a value. */
    private static List<String> texts(KeyCoder coder, int rows) {
        return IntStream.range(0, rows)
                .mapToObj(row -> coder.text(coder.code(row)))
                .toList();
    }

    private static DateColumn dates(String... dates) {
        return new DateColumn(Arrays.stream(dates)
                .mapToInt(day -> day == null
                        ? DateColumn.MISSING
                        : (int) LocalDate.parse(day).toEpochDay())
                .toArray());
    }

    private static TimeColumn times(String... times) {
        return new TimeColumn(Arrays.stream(times)
                .mapToLong(time -> time == null
                        ? TimeColumn.MISSING
                        : LocalDateTime.parse(time).toEpochSecond(ZoneOffset.UTC))
                .toArray());
    }

    private static void areInOrder(Column column, GroupKey key, String... expected) {
        KeyCoder coder = coder(column, key);
        assertThat(texts(coder, expected.length)).containsExactly(expected);
        assertThat(coder.hasMissing(expected.length))
                .isEqualTo(Arrays.asList(expected).contains(null));
        assertThat(coder.text(coder.size() - 1)).as("the last stands for none").isNull();
        List<String> known = Arrays.stream(expected).filter(e -> e != null).toList();
        for (int i = 0; i < expected.length; i++) {
            int code = coder.code(i);
            assertThat(code).isBetween(0, coder.size() - 1);
            if (expected[i] == null) assertThat(coder.rank(code)).isEqualTo(coder.size() - 1);
        }
        // Given in ascending order.
        for (int i = 1; i < known.size(); i++)
            assertThat(coder.rank(coder.code(Arrays.asList(expected).indexOf(known.get(i - 1)))))
                    .isLessThanOrEqualTo(
                            coder.rank(coder.code(Arrays.asList(expected).indexOf(known.get(i)))));
    }

    @Test
    void ofValuesAsTheyAre() {
        GroupKey key = new GroupKey.Of("c");
        areInOrder(dates("2025-12-31", null, "2026-01-02"), key, "2025-12-31", null, "2026-01-02");
        areInOrder(times("2025-12-31T23:59:00", null), key, "2025-12-31T23:59", null);
        areInOrder(new WholeColumn(new long[] {-4, WholeColumn.MISSING, 9}), key, "-4", null, "9");
        areInOrder(new DecimalColumn(new double[] {-0.5, Double.NaN, 0.1 + 0.2}), key, "-0.5", null, "" + (0.1 + 0.2));
        areInOrder(new DecimalColumn(new double[] {-0.25, Double.NaN, 12.5}).narrow(), key, "-0.25", null, "12.5");
        areInOrder(
                new CodedColumn(ColumnType.TEXT, Codes.of(new int[] {1, -1, 0}, 3, 2), List.of("zinc", "alum")),
                key,
                "alum",
                null,
                "zinc");
    }

    @Test
    void ofWholeNumbersFarApart() {
        GroupKey key = new GroupKey.Of("c");
        long least = Long.MIN_VALUE + 5;
        areInOrder(
                new WholeColumn(new long[] {least, WholeColumn.MISSING, 3, 3, Long.MAX_VALUE}),
                key,
                "" + least,
                null,
                "3",
                "3",
                "" + Long.MAX_VALUE);
        areInOrder(new WholeColumn(new long[] {10, 10 + (1 << 22) - 1}), key, "10", "" + (10 + (1 << 22) - 1));
        areInOrder(new WholeColumn(new long[] {10, 10 + (1 << 22)}), key, "10", "" + (10 + (1 << 22)));
        assertThat(coder(new WholeColumn(new long[] {10, 10 + (1 << 22)}), key).size())
                .as("only values that occur have codes")
                .isEqualTo(3);
    }

    @Test
    void ofNothing() {
        for (Column column : List.of(dates(null, null), times(null, null), new WholeColumn(new long[] {
            WholeColumn.MISSING, WholeColumn.MISSING
        }))) {
            areInOrder(column, new GroupKey.Of("c"), null, null);
            if (column.type() != ColumnType.WHOLE)
                areInOrder(column, new GroupKey.Step("c", TimeStep.MONTH, null), null, null);
        }
    }

    @Test
    void ofSteps() {
        areInOrder(
                dates("2025-12-31", null, "2026-01-02", "2026-03-01"),
                new GroupKey.Step("c", TimeStep.MONTH, null),
                "2025-12",
                null,
                "2026-01",
                "2026-03");
        TimeColumn times = times("1969-12-31T23:59:59", null, "1970-01-01T00:00:00", "1970-01-01T00:01:00");
        areInOrder(
                times,
                new GroupKey.Step("c", TimeStep.MINUTE, null),
                "1969-12-31T23:59",
                null,
                "1970-01-01T00:00",
                "1970-01-01T00:01");
        areInOrder(
                times,
                new GroupKey.Step("c", TimeStep.HOUR, "Europe/Madrid"),
                "1970-01-01T00:00",
                null,
                "1970-01-01T01:00",
                "1970-01-01T01:00");
        areInOrder(times, new GroupKey.Step("c", TimeStep.YEAR, null), "1969", null, "1970", "1970");
    }

    /** Times that stand for none are often of the years 1 and 9999: they do not take the memory of all between. */
    @ParameterizedTest
    @EnumSource(TimeStep.class)
    void ofStepsFarApart(TimeStep step) {
        Random random = new Random(5);
        String[] near = IntStream.range(0, 200)
                .mapToObj(i -> LocalDateTime.of(2026, 1, 1, 0, 0)
                        .plusSeconds(random.nextInt(400 * 86_400))
                        .toString())
                .toArray(String[]::new);
        String[] far = Arrays.copyOf(near, near.length + 3);
        far[near.length] = "0001-01-01T00:00:00";
        far[near.length + 1] = "9999-12-31T23:59:59";
        GroupKey key = new GroupKey.Step("c", step, null);
        KeyCoder wide = coder(times(far), key);
        assertThat(wide.size()).isLessThan(1 << 23);
        assertThat(texts(wide, near.length)).isEqualTo(texts(coder(times(near), key), near.length));
        assertThat(wide.text(wide.code(near.length + 2))).isNull();
        assertThat(wide.hasMissing(far.length)).isTrue();
        if (step.needsTime()) return;
        String[] days = Arrays.stream(far)
                .map(time -> time == null ? null : time.substring(0, 10))
                .toArray(String[]::new);
        assertThat(texts(coder(dates(days), key), far.length)).isEqualTo(texts(wide, far.length));
    }

    /** Days as far apart as a column can hold them. */
    @Test
    void ofDaysFartherApartThanCanBeLookedUp() {
        DateColumn days = new DateColumn(new int[] {-2_000_000_000, DateColumn.MISSING, 20_000, 20_001, 2_000_000_000});
        KeyCoder coder = coder(days, new GroupKey.Step("c", TimeStep.DAY, null));
        assertThat(coder.size()).isEqualTo(5);
        assertThat(texts(coder, 5).subList(1, 4)).containsExactly(null, "2024-10-04", "2024-10-05");
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void ofClasses(boolean whole) {
        Column column = whole
                ? new WholeColumn(new long[] {-7, 0, WholeColumn.MISSING, 9, 10, 11})
                : new DecimalColumn(new double[] {-7, 0, Double.NaN, 9.99, 10, 11});
        areInOrder(column, new GroupKey.Classes("c", List.of(0.0, 10.0)), "0", "1", null, "1", "2", "2");
    }

    @Test
    void ofWhatTheyDoNotFitAreRefused() {
        CodedColumn words = new CodedColumn(ColumnType.TEXT, Codes.of(new int[] {0}, 1, 1), List.of("word"));
        assertThatThrownBy(() -> coder(words, new GroupKey.Classes("c", List.of(1.0))))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining("which have no classes");
        assertThatThrownBy(() -> coder(words, new GroupKey.Step("c", TimeStep.MONTH, null)))
                .hasMessageContaining("which are no dates");
        assertThatThrownBy(() -> coder(dates("2026-01-01"), new GroupKey.Step("c", TimeStep.HOUR, null)))
                .hasMessageContaining("which have no hours");
        assertThatThrownBy(() -> coder(words, new GroupKey.Of("other"))).hasMessageContaining("no column “other”");
        assertThatThrownBy(() -> coder(times("2026-01-01T00:00:00"), new GroupKey.Step("c", TimeStep.HOUR, "@zone")))
                .hasMessageContaining("only where rows have places");
    }

    @Test
    void ofEachRowsOwnClock() {
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("c", times("2026-07-01T12:00:00", "2026-07-01T12:00:00", "2026-07-01T12:00:00"));
        columns.put(
                "@zone",
                new CodedColumn(
                        ColumnType.TEXT,
                        Codes.of(new int[] {0, 1, -1}, 3, 2),
                        List.of("Europe/Madrid", "Atlantic/Canary")));
        KeyCoder coder = KeyCoder.of(new Table(columns), new GroupKey.Step("c", TimeStep.HOUR, "@zone"));
        assertThat(texts(coder, 2)).containsExactly("2026-07-01T14:00", "2026-07-01T13:00");
    }
}
