package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/**
 * The order of groups: ranked, sorted and cut as a query asks. Equal ones stand by key, missing values last.
 */
final class Arrangement {

    /** Up to so many places for each group are gone through, which is quicker than to sort. */
    private static final int ROOM = 8;

    private final List<double[]> values;
    /** Groups in the order of their keys. */
    private final int[] byKey;

    /**
     * @param keys of each group a number that ascends with its key
     * @param keySpace above every key
     * @param values for each measure the value of each group
     */
    Arrangement(long[] keys, long keySpace, List<double[]> values) {
        this.values = values;
        byKey = keySpace <= (long) ROOM * keys.length ? counted(keys, (int) keySpace) : sorted(keys, keySpace);
    }

    private static int[] counted(long[] keys, int space) {
        int[] starts = new int[space + 1];
        for (long key : keys) starts[(int) key + 1]++;
        for (int k = 0; k < space; k++) starts[k + 1] += starts[k];
        int[] order = new int[keys.length];
        for (int g = 0; g < keys.length; g++) order[starts[(int) keys[g]]++] = g;
        return order;
    }

    private static int[] sorted(long[] keys, long space) {
        int groups = keys.length;
        if (space > Long.MAX_VALUE / Math.max(1, groups))
            return IntStream.range(0, groups)
                    .boxed()
                    .sorted(Comparator.comparingLong(g -> keys[g]))
                    .mapToInt(g -> g)
                    .toArray();
        // Key and group share a number, so that plain numbers can be sorted.
        long[] packed = new long[groups];
        for (int g = 0; g < groups; g++) packed[g] = keys[g] * groups + g;
        Arrays.sort(packed);
        return Arrays.stream(packed).mapToInt(p -> (int) (p % groups)).toArray();
    }

    /**
     * The groups that the query keeps, in its order; what rank and limit take away is added to the steps. Measures over
     * measures are worked out in place.
     *
     * @param parts for a number of first keys, what the groups have in common that share them
     * @param times the number of the step of time of each group; null where the last key is none
     */
    int[] arrange(Query query, IntFunction<long[]> parts, long[] times, List<RowTrail.Step> steps) {
        for (int m = 0; m < query.measures().size(); m++) {
            Over over = query.measures().get(m).over();
            if (over != null)
                values.set(
                        m,
                        over.of(
                                values.get(m),
                                byKey,
                                parts.apply(over.common(query.groupBy().size())),
                                times));
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
        if (sort.measure() >= 0) return byValue(groups, values.get(sort.measure()), sort.descending());
        int[] order = groups.clone();
        if (sort.descending()) for (int i = 0; i < order.length; i++) order[i] = groups[order.length - 1 - i];
        return order;
    }

    /** Groups in the order of a measure, equal ones as they stood. */
    private static int[] byValue(int[] groups, double[] measured, boolean descending) {
        // Plain numbers are sorted, and each group finds its place among them: the next one that its equals have left.
        double[] numbers = ascending(groups, measured, descending);
        double[] sorted = numbers.clone();
        Arrays.sort(sorted);
        int[] taken = new int[groups.length];
        int[] order = new int[groups.length];
        for (int i = 0; i < groups.length; i++) {
            int first = first(sorted, numbers[i]);
            order[first + taken[first]++] = groups[i];
        }
        return order;
    }

    /** The measure of each group, turned round where large ones come first. */
    private static double[] ascending(int[] groups, double[] measured, boolean descending) {
        double[] numbers = new double[groups.length];
        for (int i = 0; i < numbers.length; i++) {
            // 0 and -0 are equal.
            double value = measured[groups[i]] + 0.0;
            numbers[i] = descending ? 0.0 - value : value;
        }
        return numbers;
    }

    /** Where a number that occurs stands first. */
    private static int first(double[] sorted, double number) {
        int low = 0;
        int high = sorted.length - 1;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (Double.compare(sorted[middle], number) < 0) low = middle + 1;
            else high = middle;
        }
        return low;
    }

    /** The best groups in the order of their keys. */
    private int[] ranked(int[] among, Rank rank) {
        if (rank.end() == Rank.End.BOTH) {
            boolean[] isKept = new boolean[byKey.length];
            for (Rank.End end : List.of(Rank.End.TOP, Rank.End.BOTTOM))
                for (int g : ranked(among, new Rank(rank.measure(), end, rank.count(), rank.keepTies())))
                    isKept[g] = true;
            return Arrays.stream(among).filter(g -> isKept[g]).toArray();
        }
        double[] numbers = ascending(among, values.get(rank.measure()), rank.end() == Rank.End.TOP);
        // The best numbers, the last of them first.
        PriorityQueue<Double> best = new PriorityQueue<>(Comparator.reverseOrder());
        for (double number : numbers) {
            if (Double.isNaN(number)) continue;
            if (best.size() == rank.count()) {
                if (number >= best.peek()) continue;
                best.poll();
            }
            best.add(number);
        }
        if (best.isEmpty()) return new int[0];
        double last = best.peek();
        int ties = best.size();
        for (double number : best) if (number < last) ties--;
        if (rank.keepTies()) ties = among.length;
        int[] kept = new int[among.length];
        int count = 0;
        for (int i = 0; i < among.length; i++) {
            if (numbers[i] < last) kept[count++] = among[i];
            else if (numbers[i] == last && ties-- > 0) kept[count++] = among[i];
        }
        return Arrays.copyOf(kept, count);
    }
}
