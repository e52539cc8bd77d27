package sarnik.visual.figure;

import java.util.List;
import java.util.Optional;
import sarnik.brief.Choices;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.language.Language;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.query.Summary;
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
 * @param lacks the day on which figures begin of an earlier period that lacks some; null for none
 * @param isPart whether the figure is a part of what it is compared with
 */
record Compared(Asked asked, String said, Double target, Period period, String lacks, boolean isPart) {

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
                        null,
                        dataset.addsUp(figure.measure()) || figure.measure().summary() == Summary.DISTINCT);
            case TARGET -> against.value() == null ? saying(Language.phrase("no target is set")) : of(against.value());
            case PARAMETER ->
                Optional.ofNullable(against.parameter())
                        .flatMap(scene::number)
                        .map(Compared::of)
                        .orElseGet(() ->
                                saying(Language.phrase("the number it was compared with is not of this dashboard")));
            case BEFORE, YEAR -> earlier(figure, dataset, shown, plan);
        };
    }

    private static Compared saying(String words) {
        return new Compared(null, words, null, null, null, false);
    }

    private static Compared of(double target) {
        return new Compared(null, null, target, null, null, false);
    }

    private static Compared earlier(Figure figure, LoadedDataset dataset, List<Stage> shown, Plan plan) {
        String time = figure.against().time();
        Column column = dataset.table()
                .find(time)
                .filter(Choices::isTime)
                .orElseThrow(() -> new MisfitException(Language.phrase(
                        "The period before needs a column of dates, and “{0}” is none any more", time)));
        Optional<Period> now = Period.of(time, column, shown);
        if (now.isEmpty())
            return saying(Language.phrase(
                    "nothing to compare with: what is shown is not narrowed to one stretch of {0}", time));
        boolean year = figure.against().kind() == Figure.Against.Kind.YEAR;
        Period then = year ? now.get().yearBefore() : now.get().before();
        return new Compared(
                plan.ask(dataset, Query.of(then.in(shown), List.of(), List.of(figure.measure()))),
                null,
                null,
                then,
                then.lacks(column).orElse(null),
                false);
    }

    /** It in words: "12 % above the target of 500". */
    String words(double value, Answers answers, Written written) {
        if (said != null) return said;
        if (target != null) return besideTarget(value, written);
        double other = answers.of(asked).value(0, 0);
        if (period != null) return besideEarlier(value, other, written);
        return isPart ? ofWhole(value, other, written) : besideWhole(value, other, written);
    }

    private static String ofWhole(double value, double whole, Written written) {
        if (!(whole != 0)) return Language.phrase("of nothing in all");
        return Double.isNaN(value)
                ? Language.phrase("of {0} in all", written.full(whole))
                : Language.phrase("{0} of {1} in all", percent(value / whole), written.full(whole));
    }

    /** What does not add up is no part of what it is in all rows. */
    private static String besideWhole(double value, double whole, Written written) {
        if (Double.isNaN(whole)) return Language.phrase("of nothing in all");
        return beside(value, whole, Language.phrase("{0} of all together", written.full(whole)), written);
    }

    private String besideTarget(double value, Written written) {
        String of = written.full(target);
        if (Double.isNaN(value)) return Language.phrase("the target of {0}", of);
        if (value == target) return Language.phrase("just the target of {0}", of);
        String apart = apart(value, target, written);
        return value > target
                ? Language.phrase("{0} above the target of {1}", apart, of)
                : Language.phrase("{0} below the target of {1}", apart, of);
    }

    private String besideEarlier(double value, double then, Written written) {
        if (Double.isNaN(then)) return lacking(Language.phrase("no figure for {0}", period.words()));
        String of = lacking(Language.phrase("amount, when|{0} {1}", written.full(then), period.within()));
        return beside(value, then, of, written);
    }

    /** @param of the other in words */
    private static String beside(double value, double then, String of, Written written) {
        if (Double.isNaN(value) || !written.read().isAmount()) return of;
        if (value == then) return Language.phrase("the same as {0}", of);
        String apart = apart(value, then, written);
        return value > then
                ? Language.phrase("{0} more than {1}", apart, of)
                : Language.phrase("{0} less than {1}", apart, of);
    }

    /** How far two amounts are apart; as a ratio unless one of shares or across zero would mislead. */
    private static String apart(double value, double other, Written written) {
        boolean ratio = other > 0 && value >= 0 && !written.isPercent();
        return ratio ? percent(Math.abs(value / other - 1)) : written.apart(value, other);
    }

    private String lacking(String words) {
        return lacks == null ? words : Language.phrase("{0}, whose figures begin only {1}", words, lacks);
    }

    private static String percent(double share) {
        double percent = share * 100;
        return Aligned.written(percent, percent < 10 && Math.abs(percent - Rounded.even(percent)) > 1e-9 ? 1 : 0)
                + " %";
    }
}
