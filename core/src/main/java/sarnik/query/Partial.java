package sarnik.query;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.table.Column;

/** What one segment of the rows adds to an answer; partials are merged in the order of the rows. */
final class Partial {

    private final Plan plan;
    /** Rows that lack no key, where those that do are left out. */
    long filled;
    /** Null where keys are used as group numbers directly. */
    final GroupIndex index;

    int[] rows;
    final Map<String, Tally> tallies = new LinkedHashMap<>();
    final Map<String, DistinctTally> distinct = new LinkedHashMap<>();
    final Map<String, GatherTally> gathered = new LinkedHashMap<>();
    final Map<String, int[]> counted = new LinkedHashMap<>();

    /** Of each tally, for rows that follow each other; empty where those are added as all are. */
    private final List<PackedSums> packed;

    private int packedRows;

    private final int[] own = new int[RowBlocks.BLOCK];
    private final int[] groups = new int[RowBlocks.BLOCK];
    private final long[] keys = new long[RowBlocks.BLOCK];

    Partial(Plan plan) {
        this.plan = plan;
        index = plan.dense ? null : new GroupIndex(plan.coders);
        int room = plan.dense ? (int) plan.groupSpace : 1 << 10;
        rows = new int[room];
        plan.tallied.forEach((name, extremes) -> tallies.put(name, plan.tally(name, room, extremes)));
        plan.distinct.forEach((name, coder) -> distinct.put(name, new DistinctTally(coder, plan.dense ? room : -1)));
        plan.gathered.forEach((name, column) -> gathered.put(name, new GatherTally(column, plan.weights())));
        plan.counted.forEach(name -> counted.put(name, new int[room]));
        packed = plan.packed(tallies.values());
    }

    /** The code that one of the keys has in a group. */
    int code(int group, int key) {
        return index == null ? GroupIndex.code(plan.coders, plan.coders.length, group, key) : index.code(group, key);
    }

    int groups() {
        return index == null ? (int) plan.groupSpace : index.size();
    }

    /**
     * Adds a block of rows.
     *
     * @param selection the rows that are left after the stages; it is only read
     */
    void add(int[] selection, int count) {
        int left = count;
        int[] chosen = selection;
        if (plan.lacking.length > 0) {
            chosen = own;
            left = 0;
            for (int i = 0; i < count; i++) {
                own[left] = selection[i];
                left += lacksNone(selection[i]) ? 1 : 0;
            }
        }
        if (plan.weights() == null) filled += left;
        else filled += RowBlocks.rows(plan.weights(), chosen, left);
        if (left == 0) return;
        int first = chosen[0];
        if (!packed.isEmpty() && chosen[left - 1] - first == left - 1) {
            if (packedRows + left > PackedSums.ROWS) unpack();
            packedRows += left;
            for (PackedSums sums : packed) sums.add(first, first + left);
            return;
        }
        group(chosen, keys, groups, left);
        add(chosen, groups, left);
    }

    /** To be called once all rows of the segment are added. */
    void unpack() {
        if (packed.isEmpty()) return;
        int next = 0;
        for (Tally tally : tallies.values()) tally.add(packed.get(next++));
        for (int g = 0; g < rows.length; g++) rows[g] += packed.get(0).rows(g);
        packed.forEach(PackedSums::clear);
        packedRows = 0;
    }

    private boolean lacksNone(int row) {
        for (KeyCoder coder : plan.lacking) if (coder.code(row) == coder.size() - 1) return false;
        return true;
    }

    private void group(int[] selection, long[] keys, int[] groups, int count) {
        if (index == null && plan.coders.length == 1) {
            plan.coders[0].groups(groups, selection, count);
            return;
        }
        // Without a key all rows are of group 0, as the array was made.
        if (plan.coders.length == 0) return;
        if (index != null) {
            index.number(groups, keys, selection, count);
            grow(index.size());
            return;
        }
        Arrays.fill(keys, 0, count, 0);
        GroupIndex.add(plan.coders, 0, plan.coders.length, keys, selection, count);
        for (int i = 0; i < count; i++) groups[i] = (int) keys[i];
    }

    private void grow(int groups) {
        if (groups > rows.length) rows = Arrays.copyOf(rows, Math.max(groups, rows.length * 2));
        tallies.values().forEach(tally -> tally.grow(groups));
        counted.replaceAll((name, counts) ->
                groups > counts.length ? Arrays.copyOf(counts, Math.max(groups, counts.length * 2)) : counts);
    }

    private void add(int[] selection, int[] groups, int count) {
        boolean one = plan.coders.length == 0;
        int[] weights = plan.weights();
        if (weights != null) for (int i = 0; i < count; i++) rows[one ? 0 : groups[i]] += weights[selection[i]];
        else if (one) rows[0] += count;
        else for (int i = 0; i < count; i++) rows[groups[i]]++;
        for (Tally tally : tallies.values()) {
            if (one && tally.isPlain()) tally.addToOne(selection, count);
            else tally.add(selection, groups, count);
        }
        for (DistinctTally tally : distinct.values()) tally.add(selection, groups, count);
        for (GatherTally tally : gathered.values()) tally.add(selection, groups, count);
        counted.forEach((name, counts) -> {
            Column column = plan.column(name);
            for (int i = 0; i < count; i++)
                if (!column.isMissing(selection[i])) counts[groups[i]] += weights == null ? 1 : weights[selection[i]];
        });
    }

    /** Adds the rows of the segment that follows. */
    void merge(Partial next) {
        filled += next.filled;
        int[] groupOf = null;
        if (index != null) {
            groupOf = index.numbersOf(next.index);
            grow(index.size());
        }
        int[] from = next.present();
        int[] to = groupOf == null ? from : Groups.picked(groupOf, from);
        for (int i = 0; i < from.length; i++) rows[to[i]] += next.rows[from[i]];
        tallies.forEach((name, tally) -> tally.merge(to, next.tallies.get(name), from));
        counted.forEach((name, counts) -> {
            int[] others = next.counted.get(name);
            for (int i = 0; i < from.length; i++) counts[to[i]] += others[from[i]];
        });
        for (var tally : gathered.entrySet()) tally.getValue().merge(next.gathered.get(tally.getKey()), groupOf);
        for (var tally : distinct.entrySet()) tally.getValue().merge(next.distinct.get(tally.getKey()), groupOf);
    }

    /** The groups that have rows. */
    int[] present() {
        int[] present = new int[groups()];
        int count = 0;
        for (int g = 0; g < present.length; g++) {
            present[count] = g;
            count += rows[g] > 0 ? 1 : 0;
        }
        return Arrays.copyOf(present, count);
    }

    /** How many rows have a value that is tallied or gathered. */
    long having(String name) {
        Tally tally = tallies.get(name);
        return tally == null ? gathered.get(name).size() : tally.isOfAll() ? filled : tally.having();
    }

    /** What a measure that is counted or summed up comes to in some groups; NaN for missing. */
    double[] values(Measure measure, int[] groups) {
        int[] counts = measure.column() == null
                ? rows
                : measure.summary() == Summary.COUNT ? counted.get(measure.column()) : null;
        Tally tally = tallies.get(measure.column());
        double[] values = new double[groups.length];
        for (int i = 0; i < groups.length; i++)
            values[i] =
                    counts != null ? counts[groups[i]] : tally.result(measure.summary(), groups[i], rows[groups[i]]);
        return values;
    }
}
