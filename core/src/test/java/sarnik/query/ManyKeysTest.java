package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/** Groups by several columns of many values, such as a list of orders: their codes do not fit a number together. */
@DisplayName("Groups by several columns of many values")
class ManyKeysTest {

    private static final int ROWS = 300_000;
    private static final int APART = 1000;
    private static final int MISSING = 200;
    private static final int NUMBERS = 50;

    private final Random random = new Random(5);
    private final Map<String, Column> columns = new LinkedHashMap<>();
    /** Of each row what its keys come to, in the order of groups; missing ones stand last. */
    private final long[] expected = new long[ROWS];

    private final long[] numbers = random.longs(ROWS, 0, NUMBERS).toArray();

    /** More rows than a segment has; of each key few values are met, in a dictionary of as many as there are rows. */
    private Table table(int keys) {
        List<String> words =
                IntStream.range(0, ROWS).mapToObj("w%06d"::formatted).toList();
        for (int k = 0; k < keys; k++) {
            int[] codes = new int[ROWS];
            for (int row = 0; row < ROWS; row++) {
                int value = random.nextInt(k == 0 ? 100 : 3);
                codes[row] = value == 0 ? -1 : value * APART;
                expected[row] = expected[row] * (MISSING + 1) + (value == 0 ? MISSING : value);
            }
            columns.put("k" + k, new CodedColumn(ColumnType.TEXT, Codes.of(codes, ROWS, ROWS), words));
        }
        columns.put("n", new WholeColumn(numbers));
        return new Table(columns);
    }

    private static List<String> names(int keys) {
        return IntStream.range(0, keys).mapToObj(k -> "k" + k).toList();
    }

    private static long[] keysOf(Frame frame) {
        long[] keys = new long[frame.keys().get(0).length];
        for (String[] texts : frame.keys())
            for (int g = 0; g < keys.length; g++)
                keys[g] = keys[g] * (MISSING + 1)
                        + (texts[g] == null ? MISSING : Integer.parseInt(texts[g].substring(1)) / APART);
        return keys;
    }

    @ParameterizedTest(name = "{0} keys")
    @ValueSource(ints = {1, 3, 4, 5, 7})
    void areThoseOfPlainJava(int keys) {
        Table table = table(keys);
        Query query = Query.of(
                List.of(),
                names(keys),
                List.of(Measure.ROWS, new Measure(Summary.SUM, "n"), new Measure(Summary.DISTINCT, "n")));
        long[] groups = Arrays.stream(expected).sorted().distinct().toArray();
        double[] rows = new double[groups.length];
        double[] sums = new double[groups.length];
        BitSet[] distinct = new BitSet[groups.length];
        for (int row = 0; row < ROWS; row++) {
            int g = Arrays.binarySearch(groups, expected[row]);
            rows[g]++;
            sums[g] += numbers[row];
            if (distinct[g] == null) distinct[g] = new BitSet();
            distinct[g].set((int) numbers[row]);
        }

        Frame frame = new InMemoryEngine().answer(table, query);

        assertThat(keysOf(frame)).isEqualTo(groups);
        assertThat(frame.values().get(0)).isEqualTo(rows);
        assertThat(frame.values().get(1)).isEqualTo(sums);
        assertThat(frame.values().get(2))
                .isEqualTo(
                        Arrays.stream(distinct).mapToDouble(BitSet::cardinality).toArray());
    }

    @Test
    void areWorkedOverAndSortedAsFewAre() {
        Measure running = Measure.ROWS.over(new Over(Over.Kind.RUNNING, null, null));
        Query query =
                Query.of(List.of(), names(5), List.of(Measure.ROWS, running)).filled();
        Table table = table(5);
        Frame frame = new InMemoryEngine().answer(table, query);
        long[] keys = keysOf(frame);
        assertThat(keys).hasSize(99 * 16);
        double sum = 0;
        for (int g = 0; g < keys.length; g++) {
            boolean goesOn = g > 0 && keys[g] / (MISSING + 1) == keys[g - 1] / (MISSING + 1);
            sum = (goesOn ? sum : 0) + frame.value(0, g);
            assertThat(frame.value(1, g)).isEqualTo(sum);
        }
        Frame down = new InMemoryEngine().answer(table, query.sorted(new Sort(-1, true), 2));
        assertThat(keysOf(down)).containsExactly(keys[keys.length - 1], keys[keys.length - 2]);
    }
}
