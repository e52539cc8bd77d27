package sarnik.query;

import java.util.Arrays;
import java.util.stream.IntStream;
import sarnik.language.Language;
import sarnik.table.Sums;

/**
 * A measure over the values that a measure has in the groups of an answer, as SQL's window functions (ISO/IEC 9075-2)
 * give it. It is worked out after grouping, before conditions on groups, rank and sort.
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
        /** The difference to the step before. */
        DIFFERENCE("change of"),
        /** The mean of the last steps, this one included. */
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

        boolean goesAlong() {
            return this != SHARE && this != RANK;
        }
    }

    int stepsOrUsual() {
        return steps != null ? Math.max(1, steps) : kind == Kind.DIFFERENCE ? 1 : USUAL_STEPS;
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
     */
    double[] of(double[] values, int[] order, long[] parts) {
        double[] out = new double[values.length];
        int start = 0;
        while (start < order.length) {
            int end = start;
            while (end < order.length && parts[order[end]] == parts[order[start]]) end++;
            part(values, Arrays.copyOfRange(order, start, end), out);
            start = end;
        }
        return out;
    }

    private void part(double[] values, int[] groups, double[] out) {
        switch (kind) {
            case SHARE -> {
                double sum = Sums.of(Arrays.stream(groups)
                        .mapToDouble(g -> values[g])
                        .filter(v -> !Double.isNaN(v))
                        .toArray());
                for (int g : groups) out[g] = sum == 0 ? Double.NaN : values[g] / sum;
            }
            case RUNNING -> {
                double sum = 0;
                boolean any = false;
                for (int g : groups) {
                    if (!Double.isNaN(values[g])) {
                        sum += values[g];
                        any = true;
                    }
                    out[g] = any ? sum : Double.NaN;
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
                for (int i = 0; i < groups.length; i++)
                    out[groups[i]] = i < back ? Double.NaN : values[groups[i]] - values[groups[i - back]];
            }
            case MOVING -> {
                int wide = stepsOrUsual();
                for (int i = 0; i < groups.length; i++)
                    out[groups[i]] = Sums.mean(IntStream.rangeClosed(Math.max(0, i - wide + 1), i)
                            .mapToDouble(j -> values[groups[j]])
                            .filter(v -> !Double.isNaN(v))
                            .toArray());
            }
        }
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
     */
    String sql(String measure, java.util.List<String> keys) {
        int common = common(keys.size());
        String partition = common == 0 ? "" : "PARTITION BY " + String.join(", ", keys.subList(0, common)) + " ";
        String order = keys.isEmpty() ? "" : "ORDER BY " + keys.get(keys.size() - 1) + " NULLS LAST ";
        return switch (kind) {
            case SHARE ->
                "CAST(" + measure + " AS DOUBLE PRECISION) / NULLIF(SUM(" + measure + ") OVER (" + partition + "), 0)";
            case RUNNING -> "SUM(" + measure + ") OVER (" + partition + order + "ROWS UNBOUNDED PRECEDING)";
            case RANK ->
                "CASE WHEN " + measure + " IS NOT NULL THEN RANK() OVER (" + partition + "ORDER BY " + measure
                        + " DESC NULLS LAST) END";
            case DIFFERENCE ->
                measure + " - LAG(" + measure + ", " + stepsOrUsual() + ") OVER (" + partition + order + ")";
            case MOVING ->
                "AVG(" + measure + ") OVER (" + partition + order + "ROWS " + (stepsOrUsual() - 1) + " PRECEDING)";
        };
    }
}
