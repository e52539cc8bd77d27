package sarnik.visual.figure;

import java.util.List;
import java.util.Optional;
import sarnik.brief.Choices;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.scale.Aligned;
import sarnik.table.Column;
import sarnik.table.Rounded;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Period;
import sarnik.visual.Plan;
import sarnik.visual.Scene;
import sarnik.visual.Written;

/**
 * What a figure is compared with, and how that reads.
 *
 * @param asked what has to be known for it; null for nothing
 * @param said what stands where there is nothing to compare with; null where there is
 * @param target the target; null for other comparisons
 * @param period the earlier period; null for other comparisons
 * @param lacks what the earlier period lacks, " (figures begin 3 May 2026)"; empty for nothing
 */
record Compared(Asked asked, String said, Double target, Period period, String lacks) {

    /** @return null where it is compared with nothing */
    static Compared plan(Figure figure, Scene scene, LoadedDataset dataset, List<Stage> shown, Plan plan) {
        Figure.Against against = figure.against();
        if (against == null) return null;
        return switch (against.kind()) {
            case WHOLE ->
                new Compared(
                        plan.ask(
                                dataset,
                                Query.of(scene.whole(dataset, figure.rule()), List.of(), List.of(figure.measure()))),
                        null,
                        null,
                        null,
                        "");
            case TARGET -> against.value() == null ? saying("no target is set") : of(against.value());
            case PARAMETER ->
                Optional.ofNullable(against.parameter())
                        .flatMap(scene::number)
                        .map(Compared::of)
                        .orElseGet(() -> saying("the number it was compared with is not of this dashboard"));
            case BEFORE, YEAR -> earlier(figure, dataset, shown, plan);
        };
    }

    private static Compared saying(String words) {
        return new Compared(null, words, null, null, "");
    }

    private static Compared of(double target) {
        return new Compared(null, null, target, null, "");
    }

    private static Compared earlier(Figure figure, LoadedDataset dataset, List<Stage> shown, Plan plan) {
        String time = figure.against().time();
        Column column = dataset.table()
                .find(time)
                .filter(Choices::isTime)
                .orElseThrow(() -> new MisfitException(
                        "The period before needs a column of dates, and “" + time + "” is none any more"));
        Optional<Period> now = Period.of(time, column, shown);
        if (now.isEmpty())
            return saying("nothing to compare with: what is shown is not narrowed to one stretch of " + time);
        boolean year = figure.against().kind() == Figure.Against.Kind.YEAR;
        Period then = year ? now.get().yearBefore() : now.get().before();
        return new Compared(
                plan.ask(dataset, Query.of(then.in(shown), List.of(), List.of(figure.measure()))),
                null,
                null,
                then,
                then.lacks(column));
    }

    /** It in words: "12 % above the target of 500". */
    String words(double value, Answers answers, Written written) {
        if (said != null) return said;
        if (target != null) return besideTarget(value, written);
        double other = answers.of(asked).value(0, 0);
        return period != null ? besideEarlier(value, other, written) : ofWhole(value, other, written);
    }

    private static String ofWhole(double value, double whole, Written written) {
        if (!(whole != 0)) return "of nothing in all";
        return Double.isNaN(value)
                ? "of " + written.full(whole) + " in all"
                : percent(value / whole) + " of " + written.full(whole) + " in all";
    }

    private String besideTarget(double value, Written written) {
        String of = "the target of " + written.full(target);
        if (Double.isNaN(value)) return of;
        if (value == target) return "just " + of;
        String side = value > target ? " above " : " below ";
        return (target == 0 ? written.full(Math.abs(value)) : percent(Math.abs(value / target - 1))) + side + of;
    }

    private String besideEarlier(double value, double then, Written written) {
        if (Double.isNaN(then)) return "no figure for " + period.words() + lacks;
        String of = written.full(then) + " " + period.within() + lacks;
        if (Double.isNaN(value) || !written.read().isAmount()) return of;
        if (value == then) return "the same as " + of;
        String side = value > then ? " more than " : " less than ";
        // A ratio of shares or across zero would mislead.
        boolean ratio = then > 0 && value >= 0 && !written.isPercent();
        return (ratio ? percent(Math.abs(value / then - 1)) : written.apart(value, then)) + side + of;
    }

    private static String percent(double share) {
        double percent = share * 100;
        return Aligned.written(percent, percent < 10 && Math.abs(percent - Rounded.even(percent)) > 1e-9 ? 1 : 0)
                + " %";
    }
}
