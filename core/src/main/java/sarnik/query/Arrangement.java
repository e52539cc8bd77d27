package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/**
 * The order of groups: ranked, sorted and cut as a query asks. Equal ones stand by key, missing values last.
 */
final class Arrangement {

    private final List<double[]> values;
    /** Groups in the order of their keys. */
    private final int[] byKey;
    /** Where each group stands in that order. */
    private final int[] place;

    /**
     * @param keys of each group a number that ascends with its key
     * @param keySpace above every key
     * @param values for each measure the value of each group
     */
    Arrangement(long[] keys, long keySpace, List<double[]> values) {
        this.values = values;
        int groups = keys.length;
        if (keySpace <= Long.MAX_VALUE / Math.max(1, groups)) {
            // Key and group share a number, so that plain numbers can be sorted.
            long[] packed = new long[groups];
            for (int g = 0; g < groups; g++) packed[g] = keys[g] * groups + g;
            Arrays.sort(packed);
            byKey = Arrays.stream(packed).mapToInt(p -> (int) (p % groups)).toArray();
        } else {
            byKey = IntStream.range(0, groups)
                    .boxed()
                    .sorted(Comparator.comparingLong(g -> keys[g]))
                    .mapToInt(g -> g)
                    .toArray();
        }
        place = new int[groups];
        for (int p = 0; p < groups; p++) place[byKey[p]] = p;
    }

    /**
     * The groups that the query keeps, in its order; what rank and limit take away is added to the steps. Measures over
     * measures are worked out in place.
     *
     * @param parts for a number of first keys, what the groups have in common that share them
     */
    int[] arrange(Query query, IntFunction<long[]> parts, List<RowTrail.Step> steps) {
        for (int m = 0; m < query.measures().size(); m++) {
            Over over = query.measures().get(m).over();
            if (over != null)
                values.set(
                        m,
                        over.of(
                                values.get(m),
                                byKey,
                                parts.apply(over.common(query.groupBy().size()))));
        }
        int[] groups = byKey;
        for (Having having : query.having()) {
            groups = Arrays.stream(groups)
                    .filter(g -> having.keeps(values.get(having.measure())[g]))
                    .toArray();
            steps.add(new RowTrail.Step(having.words(), groups.length, RowTrail.Unit.GROUPS));
        }
        if (query.rank().isPresent()) {
            Rank rank = query.rank().get();
            groups = ranked(groups, rank);
            Measure by = query.measures().get(rank.measure());
            steps.add(new RowTrail.Step(
                    rank.said(RowTrail.named(by.words(), by.column())), groups.length, RowTrail.Unit.GROUPS));
        }
        int[] sorted = sorted(groups, query.sort());
        if (sorted.length <= query.limit()) return sorted;
        steps.add(new RowTrail.Step(phrase("Only the first {0}", query.limit()), query.limit(), RowTrail.Unit.GROUPS));
        return Arrays.copyOf(sorted, query.limit());
    }

    private int[] sorted(int[] groups, Sort sort) {
        List<Integer> order = new ArrayList<>(Arrays.stream(groups).boxed().toList());
        if (sort.measure() >= 0) {
            order.sort(byValue(values.get(sort.measure()), sort.descending()));
        } else if (sort.descending()) {
            Collections.reverse(order);
        }
        return order.stream().mapToInt(Integer::intValue).toArray();
    }

    /** The best groups in the order of their keys, found with a heap of as many as are wanted. */
    private int[] ranked(int[] among, Rank rank) {
        if (rank.end() == Rank.End.BOTH) {
            Set<Integer> kept = new HashSet<>();
            for (Rank.End end : List.of(Rank.End.TOP, Rank.End.BOTTOM))
                for (int g : ranked(among, new Rank(rank.measure(), end, rank.count(), rank.keepTies()))) kept.add(g);
            return Arrays.stream(among).filter(kept::contains).toArray();
        }
        double[] measured = values.get(rank.measure());
        Comparator<Integer> best = byValue(measured, rank.end() == Rank.End.TOP);
        PriorityQueue<Integer> kept = new PriorityQueue<>(Math.min(rank.count(), place.length) + 1, best.reversed());
        for (int g : among) {
            if (Double.isNaN(measured[g])) continue;
            kept.add(g);
            if (kept.size() > rank.count()) kept.poll();
        }
        if (kept.isEmpty()) return new int[0];
        double last = measured[kept.peek()];
        boolean[] isKept = new boolean[place.length];
        for (int g : kept) isKept[g] = true;
        return Arrays.stream(among)
                .filter(g -> isKept[g] || rank.keepTies() && measured[g] == last && kept.size() == rank.count())
                .toArray();
    }

    private Comparator<Integer> byValue(double[] measured, boolean descending) {
        return (a, b) -> {
            double x = measured[a];
            double y = measured[b];
            int order = Double.isNaN(x) || Double.isNaN(y)
                    ? Boolean.compare(Double.isNaN(x), Double.isNaN(y))
                    : descending ? Double.compare(y, x) : Double.compare(x, y);
            return order != 0 ? order : Integer.compare(place[a], place[b]);
        };
    }
}
