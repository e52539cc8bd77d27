package sarnik.query;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.stream.IntStream;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.Table;

/**
 * Answers queries by scanning a table held in memory, over all cores.
 *
 * <p>The rows are cut into segments whose size depends on the table and the query only; each segment is summed up on its
 * own and the parts are merged in the order of the rows. So an answer does not depend on the number of threads. Safe to
 * share between threads.
 */
public final class InMemoryEngine implements QueryEngine {

    private static final int SEGMENT = 1 << 18;
    private static final int SEGMENT_OF_MANY_GROUPS = 1 << 21;

    /** Coders of number and date columns, which take a pass over the column to make. */
    private final Map<Column, KeyCoder> coders = Collections.synchronizedMap(new WeakHashMap<>());

    @Override
    public Frame answer(Table table, Query query) {
        Plan plan = new Plan(table, query, this::coder);
        int segment = plan.dense ? SEGMENT : SEGMENT_OF_MANY_GROUPS;
        int segments = Math.max(1, (table.rows() + segment - 1) / segment);
        List<Partial> partials = IntStream.range(0, segments).parallel().mapToObj(s -> {
            Partial partial = new Partial(plan);
            partial.scan(s * segment, Math.min((s + 1) * segment, table.rows()));
            return partial;
        }).toList();
        Partial all = partials.get(0);
        for (int s = 1; s < segments; s++) all.merge(partials.get(s));
        return frame(table, query, plan, all);
    }

    private KeyCoder coder(Column column) {
        // A coded column carries its codes; hashing it as a map key would read its whole dictionary.
        return column instanceof CodedColumn ? KeyCoder.of(column) : coders.computeIfAbsent(column, KeyCoder::of);
    }

    private static Frame frame(Table table, Query query, Plan plan, Partial all) {
        int groups = all.groups();
        int[] present = IntStream.range(0, groups)
                .filter(g -> all.rows[g] > 0 || plan.coders.length == 0)
                .toArray();
        List<double[]> values = new ArrayList<>();
        for (Measure measure : query.measures()) values.add(values(measure, all, present, groups));
        List<String[]> keys = new ArrayList<>();
        Comparator<Integer> byKey = (a, b) -> 0;
        for (int c = 0; c < plan.coders.length; c++) {
            KeyCoder coder = plan.coders[c];
            int[] codes = new int[present.length];
            String[] texts = new String[present.length];
            for (int i = 0; i < present.length; i++) {
                codes[i] = plan.keyCode(all.index == null ? present[i] : all.index.key(present[i]), c);
                texts[i] = coder.text().apply(codes[i]);
            }
            keys.add(texts);
            // Codes of numbers and dates ascend with their values, missing last; those of text do not.
            byKey = byKey.thenComparing(coder.isOrdered()
                    ? Comparator.comparingInt(g -> codes[g])
                    : Comparator.comparing(g -> texts[g], Comparator.nullsLast(Comparator.naturalOrder())));
        }
        List<RowTrail.Step> steps = new ArrayList<>();
        steps.add(new RowTrail.Step("All rows", table.rows(), RowTrail.Unit.ROWS));
        for (int s = 0; s < plan.stages.size(); s++) {
            String words = s < query.stages().size()
                    ? query.stages().get(s).words()
                    : "Only rows that have a value to group by";
            steps.add(new RowTrail.Step(words, all.stageCounts[s], RowTrail.Unit.ROWS));
        }
        return arrange(query, keys, byKey, values, present.length, steps);
    }

    private static double[] values(Measure measure, Partial all, int[] present, int groups) {
        double[] out = new double[present.length];
        if (measure.summary() == Summary.DISTINCT) {
            double[] counts = all.distinct.get(measure.column()).results(groups);
            for (int i = 0; i < out.length; i++) out[i] = counts[present[i]];
        } else {
            for (int i = 0; i < out.length; i++) out[i] = all.value(measure, present[i]);
        }
        return out;
    }

    private static Frame arrange(Query query, List<String[]> keys, Comparator<Integer> byKey, List<double[]> values, int groups, List<RowTrail.Step> steps) {
        List<Integer> order = new ArrayList<>(IntStream.range(0, groups).boxed().toList());
        if (!query.groupBy().isEmpty()) steps.add(new RowTrail.Step("Grouped by " + String.join(" and ", query.groupBy()), groups, RowTrail.Unit.GROUPS));
        if (query.rank().isPresent()) {
            Rank rank = query.rank().get();
            order = ranked(order, rank, values.get(rank.measure()), byKey);
            steps.add(new RowTrail.Step(
                    "Only the %s %d by %s".formatted(rank.end() == Rank.End.TOP ? "top" : "bottom", rank.count(),
                            query.measures().get(rank.measure()).words()),
                    order.size(), RowTrail.Unit.GROUPS));
        }
        Sort sort = query.sort();
        order.sort(sort.measure() < 0
                ? (sort.descending() ? byKey.reversed() : byKey)
                : byValue(values.get(sort.measure()), sort.descending()).thenComparing(byKey));
        if (order.size() > query.limit()) {
            order = order.subList(0, query.limit());
            steps.add(new RowTrail.Step("Only the first " + query.limit(), order.size(), RowTrail.Unit.GROUPS));
        }
        int[] picked = order.stream().mapToInt(Integer::intValue).toArray();
        return new Frame(
                keys.stream().map(k -> IntStream.of(picked).mapToObj(g -> k[g]).toArray(String[]::new)).toList(),
                values.stream().map(v -> IntStream.of(picked).mapToDouble(g -> v[g]).toArray()).toList(),
                new RowTrail(steps));
    }

    private static List<Integer> ranked(List<Integer> groups, Rank rank, double[] values, Comparator<Integer> byKey) {
        List<Integer> sorted = new ArrayList<>(groups.stream().filter(g -> !Double.isNaN(values[g])).toList());
        sorted.sort(byValue(values, rank.end() == Rank.End.TOP).thenComparing(byKey));
        if (sorted.size() <= rank.count()) return sorted;
        int kept = rank.count();
        if (rank.keepTies()) {
            double last = values[sorted.get(kept - 1)];
            while (kept < sorted.size() && values[sorted.get(kept)] == last) kept++;
        }
        return new ArrayList<>(sorted.subList(0, kept));
    }

    /** By value, missing always last. */
    private static Comparator<Integer> byValue(double[] values, boolean descending) {
        return (a, b) -> {
            boolean noA = Double.isNaN(values[a]);
            boolean noB = Double.isNaN(values[b]);
            if (noA || noB) return Boolean.compare(noA, noB);
            return descending ? Double.compare(values[b], values[a]) : Double.compare(values[a], values[b]);
        };
    }
}
