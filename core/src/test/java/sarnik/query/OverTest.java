package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.table.Table;
import sarnik.table.TestTables;

/** Measures over measures, and conditions on groups, worked out by hand. */
@DisplayName("Over the groups of an answer")
class OverTest {

    private static final double NONE = Double.NaN;

    /** Groups in the order of their keys; of the eight the first five belong together, and the last three. */
    private static final double[] VALUES = {4, 2, NONE, 2, 8, NONE, 5, 1};

    private static final long[] PARTS = {0, 0, 0, 0, 0, 1, 1, 1};

    private static double[] of(Over over, double[] values, long[] parts) {
        return of(over, values, parts, null);
    }

    private static double[] of(Over over, double[] values, long[] parts, long[] steps) {
        // Found out of order, so that the order is what counts.
        int size = values.length;
        int[] order = new int[size];
        double[] turned = new double[size];
        long[] turnedParts = new long[size];
        long[] turnedSteps = steps == null ? null : new long[size];
        for (int i = 0; i < size; i++) {
            order[i] = size - 1 - i;
            turned[order[i]] = values[i];
            turnedParts[order[i]] = parts[i];
            if (steps != null) turnedSteps[order[i]] = steps[i];
        }
        double[] found = over.of(turned, order, turnedParts, turnedSteps);
        return Arrays.stream(order).mapToDouble(g -> found[g]).toArray();
    }

    @ParameterizedTest
    @CsvSource({
        "SHARE,, 0.25 0.125 - 0.125 0.5 - 0.8333333333333334 0.16666666666666666",
        "RUNNING,, 4 6 6 8 16 - 5 6",
        "RANK,, 2 3 - 3 1 - 1 2",
        "DIFFERENCE,, - -2 - - 6 - - -4",
        "DIFFERENCE, 2, - - - 0 - - - -",
        "MOVING,, 4 3 3 2.6666666666666665 4 - 5 3",
        "MOVING, 2, 4 3 2 2 5 - 5 3",
        "MOVING, 0, 4 2 - 2 8 - 5 1"
    })
    void isWorkedOutWithinWhatBelongsTogether(Over.Kind kind, Integer steps, String expected) {
        assertThat(of(new Over(kind, steps, true), VALUES, PARTS)).containsExactly(numbers(expected));
    }

    private static double[] numbers(String words) {
        return Arrays.stream(words.split(" "))
                .mapToDouble(word -> word.equals("-") ? NONE : Double.parseDouble(word))
                .toArray();
    }

    /** Of the first town the steps 10, 11, 13, 14 and one that is missing; of the second 8, 20 and 21. */
    @ParameterizedTest
    @CsvSource({
        "SHARE,, 0.25 0.125 - 0.125 0.5 - 0.8333333333333334 0.16666666666666666",
        "RUNNING,, 4 6 6 8 16 - 5 6",
        "RANK,, 2 3 - 3 1 - 1 2",
        "DIFFERENCE,, - -2 - - - - - -4",
        "DIFFERENCE, 2, - - - - - - - -",
        "DIFFERENCE, 3, - - - 0 - - - -",
        "DIFFERENCE, 4, - - - -2 - - - -",
        "MOVING,, 4 3 3 2.6666666666666665 8 - 5 3",
        "MOVING, 2, 4 3 - 2 8 - 5 3",
        "MOVING, 3, 4 3 2 2 8 - 5 3"
    })
    void stepsOfTimeAreCountedByTheCalendar(Over.Kind kind, Integer steps, String expected) {
        long[] times = {10, 11, 13, 14, Long.MAX_VALUE, 8, 20, 21};
        assertThat(of(new Over(kind, steps, true), VALUES, PARTS, times)).containsExactly(numbers(expected));
    }

    /** A town that sold nothing in some months of a year. */
    @Test
    void aYearBeforeIsTheSameMonthEvenWhereMonthsLackRows() {
        Table table = TestTables.csv(
                "town,day,litres",
                "A,2025-01-05,30",
                "A,2025-03-05,10",
                "A,2026-01-07,33",
                "A,2026-02-05,7",
                "A,2026-03-09,15",
                "B,2026-03-05,5",
                "B,,6");
        Measure litres = new Measure(Summary.SUM, "litres");
        Query query = Query.by(
                List.of(),
                List.of(new GroupKey.Of("town"), new GroupKey.Step("day", TimeStep.MONTH, null)),
                List.of(
                        litres.over(new Over(Over.Kind.DIFFERENCE, 12, null)),
                        litres.over(new Over(Over.Kind.DIFFERENCE, null, null)),
                        litres.over(new Over(Over.Kind.MOVING, 3, null))));
        Frame frame = new InMemoryEngine().answer(table, query);
        assertThat(frame.keys().get(1))
                .containsExactly("2025-01", "2025-03", "2026-01", "2026-02", "2026-03", "2026-03", null);
        assertThat(frame.values().get(0)).containsExactly(NONE, NONE, 3, NONE, 5, NONE, NONE);
        assertThat(frame.values().get(1)).containsExactly(NONE, NONE, NONE, -26, 8, NONE, NONE);
        assertThat(frame.values().get(2)).containsExactly(30, 20, 33, 20, 55 / 3.0, 5, 6);
    }

    @Test
    void aRunningTotalLosesNothingOnItsWay() {
        double[] values = {1e16, 1, 1, -1e16};
        assertThat(of(new Over(Over.Kind.RUNNING, null, null), values, new long[4]))
                .endsWith(1e16 + 2, 2);
    }

    @Test
    void averagesOfSevenStepsUnlessSaidOtherwise() {
        assertThat(of(new Over(Over.Kind.MOVING, null, null), new double[] {8, 1, 1, 1, 1, 1, 1, 1}, new long[8]))
                .startsWith(8, 4.5)
                .endsWith(2, 1);
    }

    @Test
    void noShareIsMadeOfASumOfNothing() {
        assertThat(of(new Over(Over.Kind.SHARE, null, null), new double[] {3, -3}, new long[2]))
                .containsOnly(NONE);
        assertThat(of(new Over(Over.Kind.SHARE, null, null), new double[0], new long[0]))
                .isEmpty();
    }

    @Test
    void aShareIsOfThoseThatHaveAllKeysButTheLastInCommon() {
        Table table = TestTables.csv(
                "town,day,litres", "A,2026-01-05,30", "A,2026-02-05,10", "B,2026-01-05,5", "B,2026-02-05,15");
        List<GroupKey> by = List.of(
                new GroupKey.Of("town"),
                new GroupKey.Step("day", TimeStep.MONTH, null),
                new GroupKey.Classes("litres", List.of(0.0, 20.0)));
        for (boolean within : List.of(true, false)) {
            Measure share = new Measure(Summary.SUM, "litres").over(new Over(Over.Kind.SHARE, null, within));
            Frame frame = new InMemoryEngine().answer(table, Query.by(List.of(), by.subList(0, 2), List.of(share)));
            assertThat(frame.values().get(0))
                    .containsExactly(
                            within
                                    ? new double[] {0.75, 0.25, 0.25, 0.75}
                                    : new double[] {0.5, 1 / 6.0, 5 / 60.0, 0.25});
        }
        Frame frame = new InMemoryEngine().answer(table, Query.by(List.of(), by, List.of(Measure.ROWS)));
        assertThat(frame.trail().steps().get(1).words())
                .isEqualTo("Grouped by town, month of day and classes of litres");
    }

    @ParameterizedTest
    @CsvSource({
        "SHARE,, 3, 0",
        "RANK, false, 3, 0",
        "RANK, true, 3, 2",
        "SHARE, true, 0, 0",
        "RUNNING,, 3, 2",
        "MOVING, false, 1, 0",
        "DIFFERENCE,, 2, 1"
    })
    void whatGoesAlongAnOrderKeepsAllKeysButTheLast(Over.Kind kind, Boolean within, int keys, int common) {
        assertThat(new Over(kind, null, within).common(keys)).isEqualTo(common);
    }

    @ParameterizedTest
    @CsvSource({
        "SHARE,, 'CAST(m AS DOUBLE PRECISION) / NULLIF(SUM(m) OVER (), 0)'",
        "RANK, true, CASE WHEN m IS NOT NULL THEN RANK() OVER (PARTITION BY a ORDER BY m DESC NULLS LAST) END",
        "RUNNING,, SUM(m) OVER (PARTITION BY a ORDER BY b NULLS LAST ROWS UNBOUNDED PRECEDING)",
        "DIFFERENCE,, 'm - LAG(m, 1) OVER (PARTITION BY a ORDER BY b NULLS LAST )'",
        "MOVING,, AVG(m) OVER (PARTITION BY a ORDER BY b NULLS LAST ROWS 6 PRECEDING)"
    })
    void isWrittenAsWindowFunctions(Over.Kind kind, Boolean within, String sql) {
        assertThat(new Over(kind, null, within).sql("m", List.of("a", "b"), null))
                .isEqualTo(sql);
    }

    @ParameterizedTest
    @CsvSource({
        "RUNNING,, SUM(m) OVER (PARTITION BY a ORDER BY n NULLS LAST ROWS UNBOUNDED PRECEDING)",
        "DIFFERENCE, 12, 'CASE WHEN b IS NOT NULL THEN m - MAX(m) OVER (PARTITION BY a ORDER BY n NULLS LAST RANGE"
                + " BETWEEN 12 PRECEDING AND 12 PRECEDING) END'",
        "MOVING, 3, AVG(m) OVER (PARTITION BY a ORDER BY n NULLS LAST RANGE 2 PRECEDING)"
    })
    void stepsOfTimeAreWrittenAsRanges(Over.Kind kind, Integer steps, String sql) {
        assertThat(new Over(kind, steps, null).sql("m", List.of("a", "b"), "n")).isEqualTo(sql);
    }

    @ParameterizedTest
    @CsvSource({
        "2, true, 5, true, false, 2 3 5",
        "2, false, 5, true, false, 3 5",
        "2, true, 5, false, false, 2 3",
        ", true, 3, true, false, 1 2 3",
        "3, true, , true, false, 3 5 6",
        "2, true, 5, true, true, -"
    })
    void groupsAreKeptBetweenBounds(
            Double low, boolean withLow, Double high, boolean withHigh, boolean missing, String expected) {
        Having having = new Having(0, low, withLow, high, withHigh, missing, "");
        String kept = List.of(1.0, 2.0, 3.0, 5.0, 6.0, NONE).stream()
                .filter(having::keeps)
                .map(value -> Double.isNaN(value) ? "-" : String.valueOf(value.intValue()))
                .reduce("", (one, other) -> one + " " + other)
                .strip();
        assertThat(kept).isEqualTo(expected);
    }
}
