package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;

/** Every condition is held against plain Java, for rows that follow each other and for some of them. */
@DisplayName("Rows that meet a condition")
class RowFilterTest {

    /** Enough for codes of four bytes. */
    private static final int ROWS = 40_000;

    private static final LocalDate FIRST = LocalDate.of(2026, 1, 1);
    private static final Table TABLE = table();

    private static boolean lacks(int row) {
        return row % 7 == 0;
    }

    private static int whole(int row) {
        return row % 50 - 25;
    }

    private static double tenths(int row) {
        return (row % 100 - 50) / 10.0;
    }

    private static LocalDate day(int row) {
        return FIRST.plusDays(row % 90);
    }

    private static LocalDateTime time(int row) {
        return FIRST.atStartOfDay().plusMinutes(row % 10_000);
    }

    private static Table table() {
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("few", column(ColumnType.TEXT, row -> "Town " + row % 5));
        columns.put("some", column(ColumnType.TEXT, row -> "Town " + row % 300));
        columns.put("many", column(ColumnType.TEXT, row -> "Town " + row));
        columns.put("whole", column(ColumnType.WHOLE, row -> "" + whole(row)));
        columns.put("tenths", column(ColumnType.DECIMAL, row -> "" + tenths(row)));
        columns.put("thirds", column(ColumnType.DECIMAL, row -> "" + whole(row) / 3.0));
        columns.put("day", column(ColumnType.DATE, row -> day(row).toString()));
        columns.put("time", column(ColumnType.TIME, row -> time(row).toString()));
        return new Table(columns);
    }

    private static Column column(ColumnType type, IntFunction<String> texts) {
        List<String> all = new ArrayList<>();
        for (int row = 0; row < ROWS; row++) all.add(lacks(row) ? null : texts.apply(row));
        return Column.of(type, all);
    }

    /** @param meets asked of rows that lack nothing */
    private static void keeps(Condition condition, IntPredicate meets) {
        IntPredicate all = row -> !lacks(row) && meets.test(row);
        keepsAlso(condition, all);
        keepsAlso(new Condition.Not(condition), row -> !lacks(row) && !meets.test(row));
    }

    private static void keepsAlso(Condition condition, IntPredicate meets) {
        RowFilter filter = RowFilter.of(TABLE, condition);
        int from = 13;
        int to = ROWS - 17;
        int[] range = new int[to - from];
        int kept = filter.keepRange(from, to, range);
        assertThat(Arrays.copyOf(range, kept))
                .as("%s of rows that follow each other", condition)
                .isEqualTo(IntStream.range(from, to).filter(meets).toArray());
        int[] some = IntStream.range(0, ROWS).filter(row -> row % 3 > 0).toArray();
        int[] expected = IntStream.of(some).filter(meets).toArray();
        kept = filter.keep(some, some.length);
        assertThat(Arrays.copyOf(some, kept)).as("%s of some rows", condition).isEqualTo(expected);
    }

    @ParameterizedTest
    @ValueSource(strings = {"few", "some", "many"})
    void areThoseOfItsWords(String column) {
        CodedColumn words = (CodedColumn) TABLE.column(column);
        List<String> two = List.of("Town 3", "Town 2", "no town");
        keeps(new Condition.OneOf(column, two), row -> two.contains(words.text(row)));
        keeps(new Condition.NoneOf(column, two), row -> !two.contains(words.text(row)));
        keeps(new Condition.Contains(column, "OWN 3"), row -> words.text(row).contains("own 3"));
        keeps(new Condition.Filled(column), row -> true);
        keepsAlso(new Condition.Missing(column), RowFilterTest::lacks);
        assertThatThrownBy(() -> RowFilter.of(TABLE, new Condition.Between(column, "a", "b")))
                .hasMessage("“" + column + "” holds text, which has no range");
    }

    @Test
    void wordsAreHeldInOneTwoAndFourBytes() {
        assertThat(((CodedColumn) TABLE.column("few")).codes()).isInstanceOf(Codes.Bytes.class);
        assertThat(((CodedColumn) TABLE.column("some")).codes()).isInstanceOf(Codes.Shorts.class);
        assertThat(((CodedColumn) TABLE.column("many")).codes()).isInstanceOf(Codes.Ints.class);
    }

    @Test
    void areThoseOfItsWholeNumbers() {
        keeps(
                new Condition.OneOf("whole", List.of("7", "-3", "0")),
                row -> List.of(7, -3, 0).contains(whole(row)));
        keeps(
                new Condition.NoneOf("whole", List.of("7", "-3", "0")),
                row -> !List.of(7, -3, 0).contains(whole(row)));
        keeps(new Condition.Between("whole", "-3", "7"), row -> whole(row) >= -3 && whole(row) <= 7);
        keeps(new Condition.Between("whole", null, "-20"), row -> whole(row) <= -20);
        keeps(new Condition.Between("whole", "20", null), row -> whole(row) >= 20);
        keepsAlso(new Condition.Missing("whole"), RowFilterTest::lacks);
    }

    /** 0.1 times 3 is more than 0.3, and steps that are multiplied are rounded. */
    @ParameterizedTest
    @ValueSource(doubles = {-4.9, -0.3, -0.1, 0, 0.1, 0.3, 0.7, 1.1, 2.3, 2.9, 4.9})
    void areThoseOfItsTenths(double bound) {
        assertThat(((DecimalColumn) TABLE.column("tenths")).steps()).isNotNull();
        String text = "" + bound;
        keeps(new Condition.Between("tenths", text, null), row -> tenths(row) >= bound);
        keeps(new Condition.Between("tenths", null, text), row -> tenths(row) <= bound);
        keeps(new Condition.Between("tenths", text, text), row -> tenths(row) == bound);
        double above = Math.nextUp(bound);
        double below = Math.nextDown(bound);
        keeps(new Condition.Between("tenths", "" + above, null), row -> tenths(row) >= above);
        keeps(new Condition.Between("tenths", null, "" + below), row -> tenths(row) <= below);
        keeps(new Condition.OneOf("tenths", List.of("2.2", text)), row -> tenths(row) == 2.2 || tenths(row) == bound);
    }

    @Test
    void areThoseOfItsOtherDecimals() {
        assertThat(((DecimalColumn) TABLE.column("thirds")).steps()).isNull();
        keeps(new Condition.Between("thirds", "-1", "2"), row -> whole(row) / 3.0 >= -1 && whole(row) / 3.0 <= 2);
        keeps(new Condition.Between("thirds", null, null), row -> true);
        keeps(new Condition.NoneOf("thirds", List.of("2", "-1")), row -> whole(row) != 6 && whole(row) != -3);
    }

    @Test
    void areThoseOfItsDays() {
        keeps(new Condition.Between("day", "2026-01-03", "2026-02-01"), row -> row % 90 >= 2 && row % 90 <= 31);
        keeps(new Condition.Between("day", "2026-01-03T10:00", null), row -> row % 90 >= 2);
        keeps(new Condition.Between("day", null, "2026-01-03"), row -> row % 90 <= 2);
        keeps(new Condition.OneOf("day", List.of("2026-03-01", "2026-01-02")), row -> row % 90 == 59 || row % 90 == 1);
        assertThatThrownBy(() -> RowFilter.of(TABLE, new Condition.Between("day", "in May", null)))
                .hasMessage("“in May” is not a date such as 2026-05-31");
    }

    @Test
    void areThoseOfItsMoments() {
        keeps(
                new Condition.Between("time", "2026-01-02", "2026-01-03"),
                row -> !time(row).isBefore(FIRST.plusDays(1).atStartOfDay())
                        && time(row).isBefore(FIRST.plusDays(3).atStartOfDay()));
        keeps(
                new Condition.Between("time", "2026-01-01T00:05", "2026-01-01T06:30:00"),
                row -> row % 10_000 >= 5 && row % 10_000 <= 390);
        keeps(
                new Condition.OneOf("time", List.of("2026-01-02T00:01", "2026-01-01")),
                row -> row % 10_000 == 1441 || row % 10_000 == 0);
        assertThatThrownBy(() -> RowFilter.of(TABLE, new Condition.Between("time", "2026-01-01 at noon", null)))
                .hasMessage("“2026-01-01 at noon” is not a time such as 2026-05-31T12:30");
    }

    @Test
    void areThoseOfItsGroups() {
        keepsAlso(
                new Condition.InGroups(new GroupKey.Step("day", TimeStep.MONTH, null), List.of("2026-02")),
                row -> !lacks(row) && day(row).getMonthValue() == 2);
    }
}
