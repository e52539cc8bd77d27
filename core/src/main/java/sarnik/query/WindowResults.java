package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import sarnik.formula.MeasureFormula.Window;
import sarnik.table.Sums;

/** What the window functions of a measure formula come to, group by group; as PostgreSQL has them. */
final class WindowResults {

    private final List<String> columns;
    private final long[][] keys;

    /**
     * @param columns those that the groups are made by
     * @param keys for each of them a number for each group that ascends with its key, {@link Long#MAX_VALUE} for a
     *     missing one
     */
    WindowResults(List<String> columns, long[][] keys) {
        this.columns = columns;
        this.keys = keys;
    }

    /**
     * @param sums for each group a number for each part of the formula
     * @throws QueryException when the groups are not made by a column that the window names
     */
    double[] of(Window window, double[][] sums) {
        int groups = sums.length;
        long[][] partition = window.partition().stream().map(this::key).toArray(long[][]::new);
        Comparator<Integer> together = (a, b) -> 0;
        for (long[] key : partition) together = together.thenComparing(g -> key[g]);
        Comparator<Integer> order = (a, b) -> 0;
        for (Window.By by : window.order()) order = order.thenComparing(by(by, sums));
        Comparator<Integer> ties = (a, b) -> 0;
        for (long[] key : keys) ties = ties.thenComparing(g -> key[g]);
        int[] sorted = IntStream.range(0, groups)
                .boxed()
                .sorted(together.thenComparing(order).thenComparing(ties))
                .mapToInt(g -> g)
                .toArray();
        double[] values = new double[groups];
        for (int g = 0; g < groups; g++)
            values[g] = window.argument() == null ? 1 : window.argument().applyAsDouble(sums[g]);
        double[] out = new double[groups];
        int start = 0;
        while (start < groups) {
            int end = start + 1;
            while (end < groups && together.compare(sorted[start], sorted[end]) == 0) end++;
            part(window, Arrays.copyOfRange(sorted, start, end), order, values, out);
            start = end;
        }
        return out;
    }

    private long[] key(String column) {
        int at = columns.indexOf(column);
        if (at >= 0) return keys[at];
        throw new QueryException(
                phrase("A measure goes along “{0}”, by which the figures here are not grouped", column));
    }

    private Comparator<Integer> by(Window.By by, double[][] sums) {
        if (by.key() != null) {
            long[] key = key(by.key());
            Comparator<Integer> missing = Comparator.comparing(g -> key[g] == Long.MAX_VALUE);
            Comparator<Integer> size = Comparator.comparingLong(g -> key[g]);
            return missing.thenComparing(by.down() ? size.reversed() : size);
        }
        double[] values = new double[sums.length];
        // 0 and -0 are equal.
        for (int g = 0; g < values.length; g++) values[g] = by.value().applyAsDouble(sums[g]) + 0.0;
        Comparator<Integer> missing = Comparator.comparing(g -> Double.isNaN(values[g]));
        Comparator<Integer> size = Comparator.comparingDouble(g -> values[g]);
        return missing.thenComparing(by.down() ? size.reversed() : size);
    }

    /** Groups that belong together, in their order. */
    private static void part(Window window, int[] groups, Comparator<Integer> order, double[] values, double[] out) {
        int place = 0;
        int dense = 0;
        int equals = 0;
        // What begins with the first goes on from one to the next; else each would take as long as all before it.
        Taken taken = window.before() < 0 || window.before() == Integer.MAX_VALUE ? new Taken(groups, values) : null;
        for (int i = 0; i < groups.length; i++) {
            boolean same = i > 0 && order.compare(groups[i - 1], groups[i]) == 0;
            if (!same) {
                place = i + 1;
                dense++;
                equals = i + 1;
                while (equals < groups.length && order.compare(groups[i], groups[equals]) == 0) equals++;
            }
            out[groups[i]] = switch (window.function()) {
                case "RANK" -> place;
                case "DENSE_RANK" -> dense;
                case "ROW_NUMBER" -> i + 1;
                case "LAG" -> neighbour(groups, i - (long) window.steps(), values);
                case "LEAD" -> neighbour(groups, i + (long) window.steps(), values);
                default -> {
                    int end =
                            window.before() < 0 ? equals : (int) Math.min(groups.length, i + (long) window.after() + 1);
                    if (taken != null) {
                        taken.upTo(end);
                        yield taken.result(window.function());
                    }
                    Taken frame = new Taken(groups, values, (int) Math.max(0, i - (long) window.before()));
                    frame.upTo(end);
                    yield frame.result(window.function());
                }
            };
        }
    }

    private static double neighbour(int[] groups, long at, double[] values) {
        return at < 0 || at >= groups.length ? Double.NaN : values[groups[(int) at]];
    }

    /** What rows that follow each other come to. */
    private static final class Taken {

        private final int[] groups;
        private final double[] values;
        private final Sums.Running sum = new Sums.Running();
        private int next;
        private long count;
        private double least = Double.NaN;
        private double most = Double.NaN;

        Taken(int[] groups, double[] values) {
            this(groups, values, 0);
        }

        Taken(int[] groups, double[] values, int first) {
            this.groups = groups;
            this.values = values;
            this.next = first;
        }

        void upTo(int end) {
            for (; next < end; next++) {
                double value = values[groups[next]];
                if (Double.isNaN(value)) continue;
                count++;
                sum.add(value);
                least = count == 1 ? value : Math.min(least, value);
                most = count == 1 ? value : Math.max(most, value);
            }
        }

        double result(String function) {
            if (function.equals("COUNT")) return count;
            if (count == 0) return Double.NaN;
            return switch (function) {
                case "SUM" -> sum.sum();
                case "AVG" -> sum.sum() / count;
                case "MIN" -> least;
                default -> most;
            };
        }
    }
}
