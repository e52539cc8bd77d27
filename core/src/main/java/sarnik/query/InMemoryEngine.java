package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
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

    /** Rows that are worth a segment of their own, and the most of one: few enough that cores end at the same time. */
    private static final int LEAST_SEGMENT = 1 << 16;

    private static final int MOST_SEGMENT = 1 << 18;
    /** Many groups take time to be put together, so that segments are fewer. */
    private static final int LEAST_OF_MANY_GROUPS = 1 << 18;

    private static final int MOST_OF_MANY_GROUPS = 1 << 21;

    /** Segments of a table for which the least and the most are neither too small nor too large. */
    private static final int SEGMENTS = 8;

    /**
     * Coders take a pass over their column to make and are kept as long as their table lives. They hold on to columns
     * only,
     * so that they do not keep the table.
     */
    private final Map<Table, Map<GroupKey, KeyCoder>> coders = Collections.synchronizedMap(new WeakHashMap<>());

    /** Questions whose keys are kept, for each table: what narrows one visual narrows those beside it too. */
    private static final int MOST_KEPT = 24;

    private final Map<Table, Map<Question, List<String>>> kept = Collections.synchronizedMap(new WeakHashMap<>());

    private record Question(Query query, int key) {}

    private final Segments segments;

    /**
     * @param segments runs the segments of a scan
     */
    public InMemoryEngine(Segments segments) {
        this.segments = segments;
    }

    /** An engine that uses all cores. */
    public InMemoryEngine() {
        this(new ParallelSegments());
    }

    @Override
    public Frame answer(Table table, Query query) {
        return answer(table, List.of(query)).get(0);
    }

    /** Queries of the same stages are answered in one pass over the rows. */
    @Override
    public List<Frame> answer(Table table, List<Query> queries) {
        Map<List<Stage>, List<Integer>> byStages = new LinkedHashMap<>();
        for (int q = 0; q < queries.size(); q++)
            byStages.computeIfAbsent(queries.get(q).stages(), s -> new ArrayList<>())
                    .add(q);
        Frame[] frames = new Frame[queries.size()];
        byStages.forEach((stages, numbers) -> {
            List<Frame> answers =
                    together(table, stages, numbers.stream().map(queries::get).toList());
            for (int i = 0; i < answers.size(); i++) frames[numbers.get(i)] = answers.get(i);
        });
        return List.of(frames);
    }

    @Override
    public List<String> keys(Condition.Among among) {
        Map<Question, List<String>> of = kept.computeIfAbsent(
                among.table(),
                t -> Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
                    @Override
                    protected boolean removeEldestEntry(Map.Entry<Question, List<String>> eldest) {
                        return size() > MOST_KEPT;
                    }
                }));
        // Without what it asks of tables itself: a question that held on to its table would keep it for ever.
        Query plain = among.query().narrowed(resolved(among.query().stages()));
        Question question = new Question(plain, among.key());
        List<String> known = of.get(question);
        if (known != null) return known;
        List<String> keys = QueryEngine.super.keys(
                new Condition.Among(among.column(), among.table(), plain, among.key(), among.not()));
        of.put(question, keys);
        return keys;
    }

    @Override
    public RowPage rows(Table table, RowQuery query) {
        RowQuery plain = new RowQuery(
                resolved(query.stages()), query.columns(), query.order(), query.find(), query.from(), query.count());
        return RowReader.read(table, plain, segments);
    }

    /** What a segment gives: the rows left after each stage, and what they add to each answer. */
    private record Scanned(long[] counts, List<Partial> partials) {}

    private List<Frame> together(Table table, List<Stage> stages, List<Query> queries) {
        if (table.staying() != null)
            throw new IllegalStateException("Rows that stay elsewhere are not in memory to be asked");
        List<RowFilter[]> filters = RowBlocks.filters(table, resolved(stages));
        Map<Plan.Grouping, List<Query>> groupings = queries.stream()
                .collect(Collectors.groupingBy(Plan.Grouping::of, LinkedHashMap::new, Collectors.toList()));
        List<Plan.Grouping> order = List.copyOf(groupings.keySet());
        List<Plan> plans = groupings.values().stream()
                .map(alike -> new Plan(table, alike, key -> coder(table, key), segments.hasFastLongs()))
                .toList();
        int segment = segment(table.rows(), plans.stream().allMatch(p -> p.dense));
        int count = Math.max(1, (table.rows() + segment - 1) / segment);
        List<Scanned> scanned = segments.run(count, s -> {
            RowBlocks blocks = RowBlocks.of(filters, table.weights());
            List<Partial> partials = plans.stream().map(Partial::new).toList();
            blocks.scan(s * segment, Math.min((s + 1) * segment, table.rows()), (selection, left) -> {
                for (Partial partial : partials) partial.add(selection, left);
            });
            partials.forEach(Partial::unpack);
            return new Scanned(blocks.counts, partials);
        });
        Scanned all = scanned.get(0);
        for (int s = 1; s < count; s++) {
            Scanned next = scanned.get(s);
            for (int i = 0; i < all.counts.length; i++) all.counts[i] += next.counts[i];
            for (int p = 0; p < plans.size(); p++) all.partials.get(p).merge(next.partials.get(p));
        }
        return queries.stream()
                .map(query -> {
                    int p = order.indexOf(Plan.Grouping.of(query));
                    return frame(table, query, plans.get(p), all.partials.get(p), all.counts);
                })
                .toList();
    }

    /** Rows of a segment. */
    private static int segment(int rows, boolean dense) {
        int equal = (rows + SEGMENTS - 1) / SEGMENTS;
        return dense
                ? Math.max(LEAST_SEGMENT, Math.min(MOST_SEGMENT, equal))
                : Math.max(LEAST_OF_MANY_GROUPS, Math.min(MOST_OF_MANY_GROUPS, equal));
    }

    private KeyCoder coder(Table table, GroupKey key) {
        return coders.computeIfAbsent(table, t -> new ConcurrentHashMap<>())
                .computeIfAbsent(key, k -> KeyCoder.of(table, k));
    }

    private static Frame frame(Table table, Query query, Plan plan, Partial all, long[] counts) {
        int count = all.groups();
        int[] present = plan.coders.length == 0 ? new int[] {0} : all.present();
        List<Groups.Key> keys = new ArrayList<>();
        for (int c = 0; c < plan.coders.length; c++) {
            KeyCoder coder = plan.coders[c];
            String[] texts = new String[present.length];
            int[] ranks = new int[present.length];
            for (int i = 0; i < present.length; i++) {
                int code = all.code(present[i], c);
                texts[i] = coder.text(code);
                ranks[i] = coder.rank(code);
            }
            keys.add(new Groups.Key(texts, ranks, coder.size()));
        }
        Groups groups = new Groups(query, keys, present.length);
        List<double[]> values = new ArrayList<>();
        for (Measure measure : query.measures()) values.add(values(measure, plan, all, present, count, groups));
        List<RowTrail.Step> steps = new ArrayList<>();
        steps.add(new RowTrail.Step(phrase("All rows"), table.weight(), RowTrail.Unit.ROWS));
        for (int s = 0; s < counts.length; s++)
            steps.add(new RowTrail.Step(query.stages().get(s).words(), counts[s], RowTrail.Unit.ROWS));
        if (plan.isFilled)
            steps.add(new RowTrail.Step(
                    phrase("Only rows that have a value to group by"), all.filled, RowTrail.Unit.ROWS));
        List<Lacked> lacked = Lacked.of(query);
        steps.addAll(Lacked.steps(
                lacked,
                all.filled,
                lacked.stream().mapToLong(one -> all.having(one.tally())).toArray()));
        return groups.frame(values, steps);
    }

    private static double[] values(Measure measure, Plan plan, Partial all, int[] present, int count, Groups groups) {
        if (measure.summary() == Summary.FORMULA) {
            double[][] parts = PartResults.of(measure.column(), plan, all, count);
            double[][] of = new double[parts.length][];
            for (int p = 0; p < parts.length; p++) of[p] = Groups.picked(parts[p], present);
            return groups.formula(plan.formula(measure.column()), of);
        }
        if (measure.summary() == Summary.DISTINCT)
            return Groups.picked(all.distinct.get(measure.column()).results(count), present);
        if (measure.isGathered())
            return Groups.picked(
                    all.gathered
                            .get(measure.column())
                            .results(count, sorted -> GatherTally.percentile(sorted, measure.fraction())),
                    present);
        return all.values(measure, present);
    }
}
