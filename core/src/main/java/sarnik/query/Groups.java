package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import sarnik.language.Language;

/** Groups whose rows are summed up, made an answer: measures over measures, conditions on groups, rank and order. */
public final class Groups {

    /**
     * One key of each group.
     *
     * @param texts null where it is missing
     * @param ranks where each stands in the order of its values, missing ones last
     * @param space above every rank
     */
    public record Key(String[] texts, int[] ranks, int space) {}

    private final Query query;
    private final List<Key> keys;
    private final int size;
    private final Numbered ranks;
    private final WindowResults windows;

    /**
     * @param keys one for each grouping key of the query
     * @param size how many groups there are
     */
    public Groups(Query query, List<Key> keys, int size) {
        this.query = query;
        this.keys = List.copyOf(keys);
        this.size = size;
        this.ranks = numbered(keys.size());
        long[][] places = new long[keys.size()][size];
        for (int k = 0; k < keys.size(); k++)
            for (int g = 0; g < size; g++)
                places[k][g] = keys.get(k).texts[g] == null ? Long.MAX_VALUE : keys.get(k).ranks[g];
        this.windows =
                new WindowResults(query.groupBy().stream().map(GroupKey::column).toList(), places);
    }

    /**
     * What a measure formula comes to.
     *
     * @param parts for each of its parts a number for each group, NaN for missing
     */
    public double[] formula(FormulaMeasure formula, double[][] parts) {
        double[] out = new double[size];
        double[][] sums = new double[size][parts.length + formula.windows().size()];
        for (int g = 0; g < size; g++) for (int p = 0; p < parts.length; p++) sums[g][p] = parts[p][g];
        for (int w = 0; w < formula.windows().size(); w++) {
            double[] over = windows.of(formula.windows().get(w), sums);
            for (int g = 0; g < size; g++) sums[g][parts.length + w] = over[g];
        }
        for (int g = 0; g < size; g++) out[g] = formula.combine().applyAsDouble(sums[g]);
        return out;
    }

    /**
     * The answer.
     *
     * @param measured for each measure the value of each group, before what is worked out over all groups
     * @param trail how the rows came about that were summed up; steps of groups are put behind it
     */
    public Frame frame(List<double[]> measured, List<RowTrail.Step> trail) {
        List<double[]> values = new ArrayList<>(measured);
        List<RowTrail.Step> steps = new ArrayList<>(trail);
        if (!query.groupBy().isEmpty()) {
            steps.add(new RowTrail.Step(
                    phrase(
                            "Grouped by {0}",
                            Language.all(query.groupBy().stream()
                                    .map(key -> RowTrail.named(key.words(), key.column()))
                                    .toList())),
                    size,
                    RowTrail.Unit.GROUPS));
        }
        int[] order = new Arrangement(ranks.of, ranks.space, values)
                .arrange(query, common -> numbered(common).of, times(), steps);
        return new Frame(
                keys.stream().map(key -> picked(key.texts, order)).toList(),
                values.stream().map(of -> picked(of, order)).toList(),
                new RowTrail(steps));
    }

    private static String[] picked(String[] texts, int[] groups) {
        String[] picked = new String[groups.length];
        for (int i = 0; i < groups.length; i++) picked[i] = texts[groups[i]];
        return picked;
    }

    /** The values of some groups. */
    static double[] picked(double[] values, int[] groups) {
        double[] picked = new double[groups.length];
        for (int i = 0; i < groups.length; i++) picked[i] = values[groups[i]];
        return picked;
    }

    static int[] picked(int[] values, int[] groups) {
        int[] picked = new int[groups.length];
        for (int i = 0; i < groups.length; i++) picked[i] = values[groups[i]];
        return picked;
    }

    /**
     * Groups numbered by some keys.
     *
     * @param of for each group a number that ascends with its keys, the same where they are
     * @param space above every number
     */
    private record Numbered(long[] of, long space) {}

    /** The groups numbered by so many first keys. */
    private Numbered numbered(int first) {
        long[] numbers = new long[size];
        long space = 1;
        for (Key key : keys.subList(0, first)) {
            if (space > Long.MAX_VALUE / key.space) space = closeUp(numbers);
            space *= key.space;
            for (int g = 0; g < size; g++) numbers[g] = numbers[g] * key.space + key.ranks[g];
        }
        return new Numbered(numbers, space);
    }

    /** Makes numbers as small as their order allows, and says how many there are. */
    private static long closeUp(long[] numbers) {
        long[] distinct = Arrays.stream(numbers).sorted().distinct().toArray();
        for (int g = 0; g < numbers.length; g++) numbers[g] = Arrays.binarySearch(distinct, numbers[g]);
        return distinct.length;
    }

    /** The number of the step of time of each group, above all where it is missing; null where the last key is none. */
    private long[] times() {
        boolean goesAlong = query.measures().stream()
                .anyMatch(m -> m.over() != null && m.over().kind().goesAlong());
        int last = keys.size() - 1;
        if (!goesAlong || last < 0 || !(query.groupBy().get(last) instanceof GroupKey.Step key)) return null;
        return Arrays.stream(keys.get(last).texts)
                .mapToLong(text -> text == null ? Long.MAX_VALUE : key.step().number(text))
                .toArray();
    }
}
