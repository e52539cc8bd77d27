package sarnik.query;

import java.util.List;
import sarnik.formula.MeasureFormula.Part;
import sarnik.table.Sums;

/** What the parts of a measure formula come to, group by group. */
final class PartResults {

    private PartResults() {}

    /**
     * @return for each part a number for each group; NaN for missing
     */
    static double[][] of(String formula, Plan plan, Partial all, int groups) {
        List<Part> parts = plan.formula(formula).parts();
        double[][] results = new double[parts.size()][];
        for (int p = 0; p < results.length; p++) {
            Part part = parts.get(p);
            String name = Plan.partName(formula, p);
            if (part.known() != null) {
                results[p] = all.distinct.get(name).results(groups, part.known().figures());
            } else if (part.isSummedUp()) {
                Tally tally = all.tallies.get(name);
                results[p] = new double[groups];
                for (int g = 0; g < groups; g++) results[p][g] = tally.result(summary(part), g, all.rows[g]);
            } else {
                results[p] = all.gathered.get(name).results(groups, sorted -> gathered(part, sorted));
                if (part.function().equals("COUNT"))
                    for (int g = 0; g < groups; g++) if (Double.isNaN(results[p][g])) results[p][g] = 0;
            }
        }
        return results;
    }

    private static Summary summary(Part part) {
        return switch (part.function()) {
            case "COUNT" -> Summary.COUNT;
            case "SUM" -> Summary.SUM;
            case "AVG" -> Summary.AVERAGE;
            case "MIN" -> Summary.MINIMUM;
            default -> Summary.MAXIMUM;
        };
    }

    private static double gathered(Part part, double[] sorted) {
        if (part.pair() != null) return Pairs.of(sorted, part.pair()).result(part.function());
        double[] values = part.distinct() ? GatherTally.distinct(sorted) : sorted;
        return switch (part.function()) {
            case "COUNT" -> values.length;
            case "SUM" -> Sums.of(values);
            case "AVG" -> Sums.mean(values);
            case "VAR_SAMP" -> GatherTally.variance(values);
            case "STDDEV_SAMP" -> Math.sqrt(GatherTally.variance(values));
            case "PERCENTILE_CONT" -> GatherTally.percentile(values, part.fraction());
            case "PERCENTILE_DISC" -> GatherTally.percentileOfValues(values, part.fraction());
            default -> GatherTally.mode(values);
        };
    }
}
