package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/** Distinct values by group, held against sets of plain Java. */
@DisplayName("Distinct values")
class DistinctTallyTest {

    private final Random random = new Random(11);

    /** Rows of two segments: of each the value, its code, and the group that the segment numbers by itself. */
    private record Rows(Table table, int[] codes, int[] groups) {

        KeyCoder coder() {
            return KeyCoder.of(table, new GroupKey.Of("value"));
        }
    }

    private Rows rows(int rows, int values, int groups) {
        int[] codes = random.ints(rows, -1, values).toArray();
        CodedColumn column = new CodedColumn(
                ColumnType.TEXT,
                Codes.of(codes, rows, values),
                IntStream.range(0, values).mapToObj(v -> "v" + v).toList());
        return new Rows(
                new Table(Map.of("value", column)),
                codes,
                random.ints(rows, 0, groups).toArray());
    }

    private static void add(DistinctTally tally, Rows rows, int from, int to) {
        for (int start = from; start < to; start += 1000) {
            int first = start;
            int count = Math.min(1000, to - start);
            tally.add(
                    IntStream.range(0, count).map(i -> first + i).toArray(),
                    IntStream.range(0, count).map(i -> rows.groups[first + i]).toArray(),
                    count);
        }
    }

    @ParameterizedTest(name = "{0} rows of {1} values in {2} groups; known beforehand: {3}")
    @CsvSource({
        "1, 1, 1, true",
        "1, 1, 1, false",
        "3000, 63, 5, true",
        "3000, 64, 5, true",
        "3000, 3, 90, true",
        "3000, 700, 40, true",
        "3000, 700, 40, false",
        "400000, 90, 7, false",
        "200000, 50000, 2000, true",
        "200000, 50000, 900, true"
    })
    void areCountedOnceInEachGroup(int size, int values, int groups, boolean known) {
        Rows rows = rows(size, values, groups);
        // The second segment numbers the groups the other way round, unless they are known beforehand.
        int half = size / 2;
        DistinctTally first = new DistinctTally(rows.coder(), known ? groups : -1);
        DistinctTally second = new DistinctTally(rows.coder(), known ? groups : -1);
        add(first, rows, 0, half);
        int[] turned = IntStream.range(0, groups).map(g -> groups - 1 - g).toArray();
        Rows there = known
                ? rows
                : new Rows(
                        rows.table,
                        rows.codes,
                        IntStream.of(rows.groups).map(g -> turned[g]).toArray());
        add(second, there, half, size);
        first.merge(second, known ? null : turned);

        List<TreeSet<Integer>> expected =
                IntStream.range(0, groups).mapToObj(g -> new TreeSet<Integer>()).toList();
        for (int row = 0; row < size; row++)
            if (rows.codes[row] >= 0) expected.get(rows.groups[row]).add(rows.codes[row]);
        assertThat(first.results(groups))
                .containsExactly(expected.stream().mapToDouble(TreeSet::size).toArray());

        // Of every third value nothing is known.
        Map<String, Double> figures = new HashMap<>();
        for (int v = 0; v < values; v++) if (v % 3 != 1) figures.put("v" + v, v * 0.5);
        assertThat(first.results(groups, figures))
                .containsExactly(expected.stream()
                        .mapToDouble(set -> set.stream().anyMatch(v -> v % 3 != 1)
                                ? set.stream()
                                        .filter(v -> v % 3 != 1)
                                        .mapToDouble(v -> v * 0.5)
                                        .sum()
                                : Double.NaN)
                        .toArray());
    }
}
