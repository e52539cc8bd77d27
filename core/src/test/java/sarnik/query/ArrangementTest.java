package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Ranking, sorting and cutting against the same done plainly with a sorted list. */
class ArrangementTest {

    private static Query query(Optional<Rank> rank, Sort sort, int limit) {
        return new Query(List.of(), List.of("g"), Query.Missing.KEPT, List.of(Measure.ROWS), rank, sort, limit);
    }

    @Property(tries = 400)
    void anyOrderIsThatOfAPlainSort(@ForAll long seed) {
        Random random = new Random(seed);
        int groups = random.nextInt(40);
        long keySpace = new long[] {50, 1000, Long.MAX_VALUE / 2}[random.nextInt(3)];
        long[] keys = random.longs(0, keySpace).distinct().limit(groups).toArray();
        double[] values = IntStream.range(0, groups)
                .mapToDouble(i -> random.nextInt(6) == 0 ? Double.NaN : (random.nextInt(5) - 2) * -1.0)
                .toArray();
        Optional<Rank> rank = random.nextBoolean()
                ? Optional.of(
                        new Rank(0, Rank.End.values()[random.nextInt(3)], 1 + random.nextInt(8), random.nextBoolean()))
                : Optional.empty();
        Sort sort = random.nextBoolean() ? new Sort(-1, random.nextBoolean()) : new Sort(0, random.nextBoolean());
        int limit = random.nextBoolean() ? 5 : Integer.MAX_VALUE;

        int[] found = new Arrangement(keys, keySpace, new ArrayList<>(List.of(values)))
                .arrange(query(rank, sort, limit), common -> new long[0], null, new ArrayList<>());

        assertThat(found).containsExactly(plainly(keys, values, rank, sort, limit));
    }

    private static int[] plainly(long[] keys, double[] measured, Optional<Rank> rank, Sort sort, int limit) {
        Comparator<Integer> byKey = Comparator.comparingLong(g -> keys[g]);
        // 0 and -0 are equal.
        double[] values = Arrays.stream(measured).map(v -> v + 0.0).toArray();
        List<Integer> order =
                new ArrayList<>(IntStream.range(0, keys.length).boxed().toList());
        if (rank.isPresent()) {
            Set<Integer> kept = new HashSet<>();
            if (rank.get().end() != Rank.End.BOTTOM) kept.addAll(best(order, values, rank.get(), true, byKey));
            if (rank.get().end() != Rank.End.TOP) kept.addAll(best(order, values, rank.get(), false, byKey));
            order.retainAll(kept);
        }
        order.sort(
                sort.measure() < 0
                        ? (sort.descending() ? byKey.reversed() : byKey)
                        : byValue(values, sort.descending()).thenComparing(byKey));
        return order.stream().limit(limit).mapToInt(g -> g).toArray();
    }

    private static List<Integer> best(
            List<Integer> among, double[] values, Rank rank, boolean largest, Comparator<Integer> byKey) {
        List<Integer> order = new ArrayList<>(among);
        order.removeIf(g -> Double.isNaN(values[g]));
        order.sort(byValue(values, largest).thenComparing(byKey));
        int kept = Math.min(order.size(), rank.count());
        while (rank.keepTies()
                && kept > 0
                && kept < order.size()
                && values[order.get(kept)] == values[order.get(kept - 1)]) kept++;
        return order.subList(0, kept);
    }

    private static Comparator<Integer> byValue(double[] values, boolean descending) {
        Comparator<Integer> missingLast = Comparator.comparing(g -> Double.isNaN(values[g]));
        Comparator<Integer> by = Comparator.comparingDouble(g -> Double.isNaN(values[g]) ? 0 : values[g]);
        return missingLast.thenComparing(descending ? by.reversed() : by);
    }

    @Test
    void whatRankAndLimitTakeAwayAreSteps() {
        List<RowTrail.Step> steps = new ArrayList<>();
        double[] values = {5, 3, 9, 1};
        int[] found = new Arrangement(new long[] {0, 1, 2, 3}, 4, List.of(values))
                .arrange(
                        query(Optional.of(new Rank(0, Rank.End.TOP, 3, false)), new Sort(0, true), 2),
                        keys -> new long[0],
                        null,
                        steps);
        assertThat(found).containsExactly(2, 0);
        assertThat(steps)
                .extracting(RowTrail.Step::words)
                .containsExactly("Only the top 3 by number of rows", "Only the first 2");
        assertThat(steps).extracting(RowTrail.Step::left).containsExactly(3L, 2L);
    }

    @Property(tries = 100)
    void distinctValuesAreCountedAlikeInBitsAndInPairs(@ForAll long seed) {
        Random random = new Random(seed);
        int rows = 1 + random.nextInt(3000);
        int groups = 1 + random.nextInt(20);
        long[] column = IntStream.range(0, rows)
                .mapToLong(i -> random.nextInt(9) == 0 ? sarnik.table.WholeColumn.MISSING : random.nextInt(200))
                .toArray();
        KeyCoder coder = KeyCoder.of(new sarnik.table.WholeColumn(column));
        int[] selection = IntStream.range(0, rows).toArray();
        int[] groupOf =
                IntStream.range(0, rows).map(i -> random.nextInt(groups)).toArray();
        DistinctTally bits = new DistinctTally(coder, groups);
        DistinctTally pairs = new DistinctTally(coder, -1);
        int half = rows / 2;
        DistinctTally rest = new DistinctTally(coder, -1);
        bits.add(selection, groupOf, rows);
        pairs.add(selection, groupOf, half);
        rest.add(Arrays.copyOfRange(selection, half, rows), Arrays.copyOfRange(groupOf, half, rows), rows - half);
        pairs.merge(rest, null);
        double[] expected = new double[groups];
        for (int g = 0; g < groups; g++) {
            int wanted = g;
            expected[g] = IntStream.range(0, rows)
                    .filter(i -> groupOf[i] == wanted && column[i] != sarnik.table.WholeColumn.MISSING)
                    .mapToLong(i -> column[i])
                    .distinct()
                    .count();
        }
        assertThat(bits.results(groups)).containsExactly(expected);
        assertThat(pairs.results(groups)).containsExactly(expected);
    }
}
