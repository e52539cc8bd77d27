package sarnik.query;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;
import sarnik.table.Table;

/**
 * Answers queries by scanning a table held in memory, over all cores.
 *
 * <p>The rows are cut into segments whose size depends on the table and the query only; each segment is summed up on
 * its
 * own and the parts are merged in the order of the rows. So an answer does not depend on the number of threads. Safe to
 * share between threads.
 */
public final class InMemoryEngine implements QueryEngine {

    private static final int SEGMENT = 1 << 18;
    private static final int SEGMENT_OF_MANY_GROUPS = 1 << 21;

    /**
     * Coders take a pass over their column to make and are kept as long as their table lives. They hold on to columns
     * only,
     * so that they do not keep the table.
     */
    private final Map<Table, Map<String, KeyCoder>> coders = Collections.synchronizedMap(new WeakHashMap<>());

    @Override
    public Frame answer(Table table, Query query) {
        Plan plan = new Plan(table, query, name -> coder(table, name));
        int segment = plan.dense ? SEGMENT : SEGMENT_OF_MANY_GROUPS;
        int segments = Math.max(1, (table.rows() + segment - 1) / segment);
        List<Partial> partials = IntStream.range(0, segments)
                .parallel()
                .mapToObj(s -> {
                    Partial partial = new Partial(plan);
                    partial.scan(s * segment, Math.min((s + 1) * segment, table.rows()));
                    return partial;
                })
                .toList();
        Partial all = partials.get(0);
        for (int s = 1; s < segments; s++) all.merge(partials.get(s));
        return frame(table, query, plan, all);
    }

    private KeyCoder coder(Table table, String name) {
        return coders.computeIfAbsent(table, t -> new ConcurrentHashMap<>())
                .computeIfAbsent(name, n -> KeyCoder.of(table.column(n)));
    }

    private static Frame frame(Table table, Query query, Plan plan, Partial all) {
        int groups = all.groups();
        int[] present = IntStream.range(0, groups)
                .filter(g -> all.rows[g] > 0 || plan.coders.length == 0)
                .toArray();
        List<double[]> values = new ArrayList<>();
        for (Measure measure : query.measures()) values.add(values(measure, plan, all, present, groups));
        long[] ranks = new long[present.length];
        List<String[]> keys = new ArrayList<>();
        for (int c = 0; c < plan.coders.length; c++) {
            KeyCoder coder = plan.coders[c];
            String[] texts = new String[present.length];
            for (int i = 0; i < present.length; i++) {
                int code = plan.keyCode(all.index == null ? present[i] : all.index.key(present[i]), c);
                ranks[i] = ranks[i] * coder.size() + coder.rank(code);
                texts[i] = coder.text(code);
            }
            keys.add(texts);
        }
        List<RowTrail.Step> steps = new ArrayList<>();
        steps.add(new RowTrail.Step("All rows", table.rows(), RowTrail.Unit.ROWS));
        for (int s = 0; s < plan.stages.size(); s++) {
            String words = s < query.stages().size()
                    ? query.stages().get(s).words()
                    : "Only rows that have a value to group by";
            steps.add(new RowTrail.Step(words, all.stageCounts[s], RowTrail.Unit.ROWS));
        }
        if (!query.groupBy().isEmpty()) {
            steps.add(new RowTrail.Step(
                    "Grouped by " + String.join(" and ", query.groupBy()), present.length, RowTrail.Unit.GROUPS));
        }
        int[] order = new Arrangement(ranks, plan.groupSpace, values).arrange(query, steps);
        return new Frame(
                keys.stream()
                        .map(k -> IntStream.of(order).mapToObj(g -> k[g]).toArray(String[]::new))
                        .toList(),
                values.stream()
                        .map(v -> IntStream.of(order).mapToDouble(g -> v[g]).toArray())
                        .toList(),
                new RowTrail(steps));
    }

    private static double[] values(Measure measure, Plan plan, Partial all, int[] present, int groups) {
        double[] out = new double[present.length];
        if (measure.summary() == Summary.DISTINCT) {
            double[] counts = all.distinct.get(measure.column()).results(groups);
            for (int i = 0; i < out.length; i++) out[i] = counts[present[i]];
        } else if (measure.summary() == Summary.MEDIAN) {
            double[] medians =
                    all.gathered.get(measure.column()).results(groups, sorted -> GatherTally.percentile(sorted, 0.5));
            for (int i = 0; i < out.length; i++) out[i] = medians[present[i]];
        } else if (measure.summary() == Summary.FORMULA) {
            double[][] parts = PartResults.of(measure.column(), plan, all, groups);
            for (int i = 0; i < out.length; i++) {
                double[] sums = new double[parts.length];
                for (int p = 0; p < sums.length; p++) sums[p] = parts[p][present[i]];
                out[i] = plan.formula(measure.column()).combine().applyAsDouble(sums);
            }
        } else {
            for (int i = 0; i < out.length; i++) out[i] = all.value(measure, present[i]);
        }
        return out;
    }
}
