package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.LongIndex;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/** The engine against sums written out with plain collections, on tables large enough to be cut into segments. */
class EngineAgainstPlainJavaTest {

    private final QueryEngine engine = new InMemoryEngine();

    @Property(tries = 25)
    void groupedSumsCountsAndDistinctCounts(
            @ForAll @IntRange(min = 1, max = 700_000) int rows,
            @ForAll @IntRange(min = 1, max = 90_000) int keys,
            @ForAll long seed) {
        Random random = new Random(seed);
        int[] town =
                IntStream.range(0, rows).map(i -> random.nextInt(keys + 1) - 1).toArray();
        long[] pieces = IntStream.range(0, rows)
                .mapToLong(i -> random.nextInt(10) == 0 ? WholeColumn.MISSING : random.nextInt(50))
                .toArray();
        double[] litres = IntStream.range(0, rows)
                .mapToDouble(i -> random.nextInt(8) == 0 ? Double.NaN : random.nextInt(1000) / 4.0)
                .toArray();
        List<String> names = IntStream.range(0, keys).mapToObj(i -> "town " + i).toList();
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("town", new CodedColumn(ColumnType.TEXT, Codes.of(town, rows, keys), names));
        columns.put("pieces", new WholeColumn(pieces));
        columns.put("litres", seed % 2 == 0 ? new DecimalColumn(litres) : new DecimalColumn(litres).narrow());
        Frame frame = engine.answer(
                new Table(columns),
                Query.of(
                        List.of(new Stage("some", List.of(new Condition.Between("litres", "20", "200")))),
                        List.of("town"),
                        List.of(
                                Measure.ROWS,
                                new Measure(Summary.SUM, "litres"),
                                new Measure(Summary.DISTINCT, "pieces"),
                                new Measure(Summary.MAXIMUM, "pieces"))));

        Map<Integer, List<Integer>> groups = IntStream.range(0, rows)
                .filter(i -> litres[i] >= 20 && litres[i] <= 200)
                .boxed()
                .collect(Collectors.groupingBy(i -> town[i]));
        assertThat(frame.size()).isEqualTo(groups.size());
        for (int g = 0; g < frame.size(); g++) {
            String key = frame.key(0, g);
            List<Integer> members = groups.get(key == null ? -1 : Integer.parseInt(key.substring(5)));
            assertThat(frame.value(0, g)).isEqualTo(members.size());
            assertThat(frame.value(1, g))
                    .isCloseTo(members.stream().mapToDouble(i -> litres[i]).sum(), within(1e-6));
            assertThat(frame.value(2, g))
                    .isEqualTo(members.stream()
                            .map(i -> pieces[i])
                            .filter(p -> p != WholeColumn.MISSING)
                            .distinct()
                            .count());
            double most = members.stream()
                    .mapToDouble(i -> pieces[i] == WholeColumn.MISSING ? Double.NEGATIVE_INFINITY : pieces[i])
                    .max()
                    .orElseThrow();
            if (Double.isInfinite(most)) assertThat(frame.value(3, g)).isNaN();
            else assertThat(frame.value(3, g)).isEqualTo(most);
        }
    }

    @Property(tries = 200)
    void numbersOfLongsAreThoseOfAMap(@ForAll long seed, @ForAll @IntRange(min = 1, max = 5000) int count) {
        Random random = new Random(seed);
        LongIndex index = new LongIndex();
        Map<Long, Integer> expected = new LinkedHashMap<>();
        List<Long> keys = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            long key = random.nextBoolean() ? random.nextInt(200) : random.nextLong() & Long.MAX_VALUE;
            keys.add(key);
            expected.putIfAbsent(key, expected.size());
        }
        for (long key : keys) assertThat(index.number(key)).isEqualTo(expected.get(key));
        assertThat(index.size()).isEqualTo(expected.size());
        expected.forEach((key, number) -> assertThat(index.key(number)).isEqualTo(key));
    }
}
