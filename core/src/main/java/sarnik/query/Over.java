package sarnik.query;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import sarnik.language.Language;
import sarnik.table.Sums;

/**
 * A measure over the values that a measure has in the groups of an answer, as SQL's window functions (ISO/IEC 9075-2)
 * give it. It is worked out after grouping, before conditions on groups, rank and sort.
 *
 * <p>Steps of time are counted by the calendar, whether or not there are rows in each (frames of a RANGE): twelve months
 * before May is the May before. Of other keys a step is the group before, however far it lies (frames of ROWS).
 *
 * @param kind what is worked out
 * @param steps of {@code MOVING} how many steps are averaged, of {@code DIFFERENCE} how many back; null for the usual
 * @param within whether a share or a rank is among the groups that have all keys but the last in common; what goes
 *     along an order always is. Null for no
 */
public record Over(Kind kind, Integer steps, Boolean within) {

    private static final int USUAL_STEPS = 7;

    /** What is worked out. */
    public enum Kind {
        /** The part of the sum of all groups, 0 to 1. */
        SHARE("share of"),
        /** The sum up to here, in the order of the last key. */
        RUNNING("running total of"),
        /** The place by size, from 1; equals share a place. */
        RANK("rank by"),
        /** The difference to so many steps before; missing where nothing is there. */
        DIFFERENCE("change of"),
        /** The mean of what the last steps have, this one included. */
        MOVING("moving average of");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** What it makes of a measure, in the language that is spoken. */
        public String said(String measure) {
            return switch (this) {
                case SHARE -> Language.phrase("share of {0}", measure);
                case RUNNING -> Language.phrase("running total of {0}", measure);
                case RANK -> Language.phrase("rank by {0}", measure);
                case DIFFERENCE -> Language.phrase("change of {0}", measure);
                case MOVING -> Language.phrase("moving average of {0}", measure);
            };
        }

        /** Whether groups that lie far from each other change it. */
        public boolean isOfAll() {
            return this == SHARE || this == RUNNING || this == RANK;
        }

        boolean goesAlong() {
            return this != SHARE && this != RANK;
        }
    }

    int stepsOrUsual() {
        return steps != null ? Math.max(1, steps) : kind == Kind.DIFFERENCE ? 1 : USUAL_STEPS;
    }

    /** How many steps before its own it needs to be known. */
    public int looksBack() {
        return switch (kind) {
            case DIFFERENCE -> stepsOrUsual();
            case MOVING -> stepsOrUsual() - 1;
            case SHARE, RUNNING, RANK -> 0;
        };
    }

    /** How many leading keys the groups that belong together have in common. */
    int common(int keys) {
        return kind.goesAlong() || Boolean.TRUE.equals(within) ? Math.max(0, keys - 1) : 0;
    }

    /**
     * Works it out.
     *
     * @param values the measure of each group, NaN for missing
     * @param order the groups in the order of their keys
     * @param parts for each group a number that those have in common that belong together
     * @param steps for each group the number of its step of time ({@link TimeStep#number}), which ascends in the order;
     *     null where the last key is none
     */
    double[] of(double[] values, int[] order, long[] parts, long[] steps) {
        double[] out = new double[values.length];
        int start = 0;
        while (start < order.length) {
            int end = start;
            while (end < order.length && parts[order[end]] == parts[order[start]]) end++;
            part(values, Arrays.copyOfRange(order, start, end), steps, out);
            start = end;
        }
        return out;
    }

    private void part(double[] values, int[] groups, long[] steps, double[] out) {
        switch (kind) {
            case SHARE -> {
                double sum = Sums.of(Arrays.stream(groups)
                        .mapToDouble(g -> values[g])
                        .filter(v -> !Double.isNaN(v))
                        .toArray());
                for (int g : groups) out[g] = sum == 0 ? Double.NaN : values[g] / sum;
            }
            case RUNNING -> {
                Sums.Running sum = new Sums.Running();
                boolean any = false;
                for (int g : groups) {
                    if (!Double.isNaN(values[g])) {
                        sum.add(values[g]);
                        any = true;
                    }
                    out[g] = any ? sum.sum() : Double.NaN;
                }
            }
            case RANK -> {
                double[] sorted = Arrays.stream(groups)
                        .mapToDouble(g -> values[g])
                        .filter(v -> !Double.isNaN(v))
                        .map(v -> -v)
                        .sorted()
                        .toArray();
                for (int g : groups) out[g] = Double.isNaN(values[g]) ? Double.NaN : 1 + below(sorted, -values[g]);
            }
            case DIFFERENCE -> {
                int back = stepsOrUsual();
                for (int i = 0, from = 0; i < groups.length; i++) {
                    long wanted = place(groups, steps, i) - back;
                    while (place(groups, steps, from) < wanted) from++;
                    out[groups[i]] = place(groups, steps, from) == wanted
                            ? values[groups[i]] - values[groups[from]]
                            : Double.NaN;
                }
            }
            case MOVING -> {
                int wide = stepsOrUsual();
                for (int i = 0, from = 0; i < groups.length; i++) {
                    while (place(groups, steps, from) <= place(groups, steps, i) - wide) from++;
                    out[groups[i]] = Sums.mean(IntStream.rangeClosed(from, i)
                            .mapToDouble(j -> values[groups[j]])
                            .filter(v -> !Double.isNaN(v))
                            .toArray());
                }
            }
        }
    }

    /** Where a group stands along its part: its step of time, or how many are before it. */
    private static long place(int[] groups, long[] steps, int at) {
        return steps == null ? at : steps[groups[at]];
    }

    /** How many of some ascending numbers lie below a value. */
    private static int below(double[] sorted, double value) {
        int low = 0;
        int high = sorted.length;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (sorted[middle] < value) low = middle + 1;
            else high = middle;
        }
        return low;
    }

    /**
     * The same as SQL.
     *
     * @param measure the column of the measure
     * @param keys the columns of all keys
     * @param step the number of the step of time that the last key says; null where it is none
     */
    String sql(String measure, List<String> keys, String step) {
        int common = common(keys.size());
        String partition = common == 0 ? "" : "PARTITION BY " + String.join(", ", keys.subList(0, common)) + " ";
        String last = keys.isEmpty() ? "" : keys.get(keys.size() - 1);
        String order = keys.isEmpty() ? "" : "ORDER BY " + (step == null ? last : step) + " NULLS LAST ";
        int steps = stepsOrUsual();
        return switch (kind) {
            case SHARE ->
                "CAST(" + measure + " AS DOUBLE PRECISION) / NULLIF(SUM(" + measure + ") OVER (" + partition + "), 0)";
            case RUNNING -> "SUM(" + measure + ") OVER (" + partition + order + "ROWS UNBOUNDED PRECEDING)";
            case RANK ->
                "CASE WHEN " + measure + " IS NOT NULL THEN RANK() OVER (" + partition + "ORDER BY " + measure
                        + " DESC NULLS LAST) END";
            case DIFFERENCE ->
                step == null
                        ? measure + " - LAG(" + measure + ", " + steps + ") OVER (" + partition + order + ")"
                        : "CASE WHEN " + last + " IS NOT NULL THEN " + measure + " - MAX(" + measure + ") OVER ("
                                + partition + order + "RANGE BETWEEN " + steps + " PRECEDING AND " + steps
                                + " PRECEDING) END";
            case MOVING ->
                "AVG(" + measure + ") OVER (" + partition + order + (step == null ? "ROWS " : "RANGE ") + (steps - 1)
                        + " PRECEDING)";
        };
    }
}
