package sarnik.visual.difference;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Telling;
import sarnik.data.Words;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.scale.NumberWords;
import sarnik.scale.ValueWords;
import sarnik.statistics.Contributions;
import sarnik.statistics.FalseDiscovery;
import sarnik.statistics.RateOf;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Plan;
import sarnik.visual.Scene;
import sarnik.visual.Trail;
import sarnik.visual.Written;

/** What is asked and drawn of what makes the difference. */
final class DifferenceDrawer {

    /** Of so large a share of false ones among those that are called more than chance is borne. */
    private static final double BORNE = 0.05;

    /** A value of fewer rows than this rests on few. */
    private static final int FEW = 30;

    /** What is smaller than this, beside the largest, is a crumb of reckoning. */
    private static final double NOTHING = 1e-9;

    private static final int USUAL_COUNT = 12;
    private static final int MOST_NUMBERS = 4;

    /** A column whose usual value lies nearer than this to that of all is not told, in widths of the middle of all. */
    private static final double NEAR = 0.1;

    /** The width of the middle half of a normal distribution, in standard deviations. */
    private static final double HALF = 1.349;

    private final Difference difference;
    private final LoadedDataset dataset;
    private final Way way;
    private final List<String> columns;
    private final List<String> numbers;
    private final List<Asked> here = new ArrayList<>();
    private final List<Asked> all = new ArrayList<>();
    private final Asked numbersHere;
    private final Asked numbersAll;
    private final Plan plan = new Plan();

    /**
     * How a measure is compared.
     *
     * @param sums what is added up
     * @param sizes what it is divided by; rows where shares of the sum are compared
     * @param isMean whether averages or rates are compared, else shares
     * @param times what quotients are multiplied with
     * @param of what a rate is of; null where it is none
     */
    private record Way(LoadedDataset dataset, Measure sums, Measure sizes, boolean isMean, double times, RateOf of) {

        static Way of(LoadedDataset dataset, Measure measure) {
            Optional<LoadedDataset.Rate> rate = dataset.rate(measure);
            if (rate.isPresent())
                return new Way(
                        rate.get().dataset(),
                        rate.get().events(),
                        rate.get().over(),
                        true,
                        rate.get().times(),
                        rate.get().counted() ? RateOf.SHARE : rate.get().isForMany() ? RateOf.EVENTS : null);
            if (measure.over() == null && measure.summary() == Summary.AVERAGE)
                return new Way(
                        dataset,
                        new Measure(Summary.SUM, measure.column()),
                        new Measure(Summary.COUNT, measure.column()),
                        true,
                        1,
                        null);
            if (dataset.addsUp(measure)) return new Way(dataset, measure, Measure.ROWS, false, 1, null);
            throw new MisfitException(phrase(
                    "{0} does not add up over groups, so it cannot be told what makes it differ. Choose a sum, a number of rows, an average or a rate.",
                    ColumnWords.of(measure)));
        }
    }

    DifferenceDrawer(Difference difference, Scene scene) {
        this.difference = difference;
        LoadedDataset plain = scene.dataset(difference.dataset());
        this.way = Way.of(plain, difference.measure());
        this.dataset = way.dataset;
        this.columns = difference.columns().stream()
                .filter(c -> dataset.table().find(c).isPresent())
                .toList();
        List<Stage> shown = scene.shown(dataset, difference.rule());
        List<Stage> whole = scene.whole(dataset, difference.rule());
        List<Measure> measures = List.of(way.sums, way.sizes, Measure.ROWS);
        for (String column : columns) {
            here.add(plan.ask(dataset, Query.of(shown, List.of(column), measures)));
            all.add(plan.ask(dataset, Query.of(whole, List.of(column), measures)));
        }
        this.numbers = Telling.amounts(dataset).stream()
                .filter(c -> !c.equals(difference.measure().column()))
                .limit(MOST_NUMBERS)
                .toList();
        List<Measure> usual = new ArrayList<>(List.of(Measure.ROWS));
        for (String number : numbers)
            for (double at : new double[] {25, 50, 75}) usual.add(new Measure(Summary.PERCENTILE, number, at, null));
        this.numbersHere = plan.ask(dataset, Query.of(shown, List.of(), usual));
        this.numbersAll = plan.ask(dataset, Query.of(whole, List.of(), usual));
    }

    Plan plan() {
        return plan.drawn(this::draw);
    }

    /** A value of a column, here and in the rest. */
    private record Group(
            String column,
            String key,
            double sum,
            double size,
            double rows,
            double restSum,
            double restSize,
            double restRows,
            Part part,
            double chance) {}

    /**
     * What a value does for the difference.
     *
     * @param own its part, so that those of all values of a column add up
     * @param beyond how much more that is than its size alone would bring, were the difference the same everywhere;
     *     where shares are compared the same
     */
    private record Part(double own, double beyond) {}

    private DifferenceDrawing draw(Answers answers) {
        Frame one = answers.of(numbersHere);
        Frame every = answers.of(numbersAll);
        double rows = one.size() == 0 ? 0 : one.value(0, 0);
        double allRows = every.size() == 0 ? 0 : every.value(0, 0);
        List<String> notes = new ArrayList<>();
        String title = Scene.titleOf(difference, phrase("What makes the difference?"));
        if (columns.isEmpty()) notes.add(phrase("None of its columns is there any more. Choose others in the brief."));
        if (rows == 0 || rows >= allRows) {
            notes.add(
                    rows == 0 && allRows > 0
                            ? phrase("Nothing is left of what is picked.")
                            : phrase(
                                    "Pick a place, a bar or a stretch of time: what parts it from the rest is shown here."));
            return new DifferenceDrawing(title, "", words(), List.of(), List.of(), notes, Trail.of(one.trail()));
        }
        List<Group> groups = new ArrayList<>();
        List<String> left = new ArrayList<>();
        double[] totals = null;
        for (int c = 0; c < columns.size(); c++) {
            Map<String, double[]> of = joined(answers.of(here.get(c)), answers.of(all.get(c)));
            if (totals == null) totals = totals(of);
            // A column that nothing here has in common with the rest tells nothing but what is picked.
            if (of.values().stream().noneMatch(v -> v[2] > 0 && v[5] > 0)) left.add(ColumnWords.of(columns.get(c)));
            else groups.addAll(groups(columns.get(c), of));
        }
        double scale =
                groups.stream().mapToDouble(g -> Math.abs(g.part.beyond)).max().orElse(0);
        double[] falses = FalseDiscovery.adjusted(
                groups.stream().mapToDouble(Group::chance).toArray());
        int[] order = IntStream.range(0, groups.size())
                .boxed()
                .filter(g -> Math.abs(groups.get(g).part.beyond) > NOTHING * scale)
                .sorted(Comparator.comparingDouble((Integer g) -> -Math.abs(groups.get(g).part.beyond))
                        .thenComparing(g -> groups.get(g).column)
                        .thenComparing(g -> String.valueOf(groups.get(g).key)))
                .limit(difference.count() == null ? USUAL_COUNT : difference.count())
                .mapToInt(g -> g)
                .toArray();
        double most = Arrays.stream(order)
                .mapToDouble(g -> Math.abs(groups.get(g).part.beyond))
                .max()
                .orElse(1);
        double[] whole = totals == null ? new double[6] : totals;
        List<String> own = signed(Arrays.stream(order).mapToDouble(g -> groups.get(g).part.own));
        List<String> beyond = signed(Arrays.stream(order).mapToDouble(g -> groups.get(g).part.beyond));
        List<DifferenceDrawing.Line> lines = IntStream.range(0, order.length)
                .mapToObj(n -> line(groups.get(order[n]), most, own.get(n), beyond.get(n), falses[order[n]], whole))
                .toList();
        if (!left.isEmpty())
            notes.add(phrase("Left out, for it tells nothing but what is picked: {0}.", Words.list(left, "and")));
        if (way.isMean)
            notes.add(
                    phrase(
                            "The parts of all values of a column add up to the whole difference (Kitagawa 1955). Ranked is how much more or less each brings than its size alone would; columns overlap, and none of it says why."));
        else
            notes.add(
                    phrase(
                            "Compared are shares, so the parts of all values of a column add up to nothing; columns overlap, and none of it says why."));
        if (lines.stream().anyMatch(DifferenceDrawing.Line::chance))
            notes.add(phrase("What chance alone may well have made is pale (false finds held to 5 of 100)."));
        return new DifferenceDrawing(
                title, head(whole), words(), lines, numbers(one, every), notes, Trail.of(one.trail()));
    }

    /** By value: sum, size and rows of what is picked, and of the rest. */
    private static Map<String, double[]> joined(Frame here, Frame all) {
        Map<String, double[]> of = new LinkedHashMap<>();
        for (int g = 0; g < all.size(); g++) {
            double[] values = new double[6];
            for (int m = 0; m < 3; m++) values[3 + m] = known(all.value(m, g));
            of.put(all.key(0, g), values);
        }
        for (int g = 0; g < here.size(); g++) {
            double[] values = of.computeIfAbsent(here.key(0, g), k -> new double[6]);
            for (int m = 0; m < 3; m++) {
                values[m] = known(here.value(m, g));
                // Sums of decimals leave a crumb where nothing is left.
                double rest = values[3 + m] - values[m];
                values[3 + m] = Math.abs(rest) < 1e-9 * Math.abs(values[m]) ? 0 : rest;
            }
        }
        return of;
    }

    private static double known(double value) {
        return Double.isFinite(value) ? value : 0;
    }

    private static double[] totals(Map<String, double[]> of) {
        double[] totals = new double[6];
        of.values().forEach(v -> Arrays.setAll(totals, i -> totals[i] + v[i]));
        return totals;
    }

    private List<Group> groups(String column, Map<String, double[]> of) {
        double[] totals = totals(of);
        double[][] by = new double[4][];
        for (int i = 0; i < 4; i++) {
            int which = i < 2 ? i : i + 1;
            by[i] = of.values().stream().mapToDouble(v -> v[which]).toArray();
        }
        boolean hasMeans = way.isMean && totals[1] > 0 && totals[4] > 0;
        Contributions.Part[] parts = hasMeans ? Contributions.ofMean(by[0], by[1], by[2], by[3]) : null;
        double whole = hasMeans ? totals[0] / totals[1] - totals[3] / totals[4] : 0;
        List<Group> groups = new ArrayList<>();
        int g = 0;
        for (Map.Entry<String, double[]> each : of.entrySet()) {
            double[] v = each.getValue();
            double shares = share(v[0], totals[0]) - share(v[3], totals[3]);
            Part part = !way.isMean
                    ? new Part(shares, shares)
                    : parts == null ? new Part(0, 0) : part(parts[g], v, totals, whole);
            double chance = parts == null ? chance(v, totals) : chance(v, totals, parts[g], part);
            groups.add(new Group(column, each.getKey(), v[0], v[1], v[2], v[3], v[4], v[5], part, chance));
            g++;
        }
        return groups;
    }

    private Part part(Contributions.Part part, double[] v, double[] totals, double whole) {
        double size = (share(v[1], totals[1]) + share(v[4], totals[4])) / 2;
        return new Part(part.whole() * way.times, (part.whole() - size * whole) * way.times);
    }

    private static double share(double of, double all) {
        return all == 0 ? 0 : of / all;
    }

    /** How likely such a difference of shares is by chance alone, by numbers of rows. */
    private static double chance(double[] v, double[] totals) {
        return Contributions.chanceOfShares(v[2], totals[2], v[5], totals[5]);
    }

    /**
     * How likely it is by chance alone that the rates of a value differ by more or less than all together do; NaN where
     * that cannot be told, or where it is rather that there are more or fewer of it.
     */
    private double chance(double[] v, double[] totals, Contributions.Part part, Part shown) {
        boolean isOfShare = Math.abs(part.ofShare() * way.times) >= Math.abs(shown.beyond - part.ofShare() * way.times);
        if (way.of == null || isOfShare) return Double.NaN;
        return Contributions.chanceOfEvents(v[0], v[1] * totals[0] / totals[1], v[3], v[4] * totals[3] / totals[4]);
    }

    /**
     * @param most the part that is ranked first
     * @param own its part, and {@code beyond} how much more that is than its size alone would bring, as they are
     *     written
     */
    private DifferenceDrawing.Line line(
            Group group, double most, String own, String beyond, double falses, double[] totals) {
        Written written = written();
        List<String> figures = way.isMean
                ? List.of(
                        own,
                        written.brief(group.sum / group.size * way.times),
                        written.brief(group.restSum / group.restSize * way.times),
                        percent(share(group.size, totals[1])),
                        percent(share(group.restSize, totals[4])))
                : List.of(
                        percent(share(group.sum, totals[0])),
                        percent(share(group.restSum, totals[3])),
                        NumberWords.brief(group.sum),
                        NumberWords.brief(group.restSum));
        return new DifferenceDrawing.Line(
                DifferenceKind.key(group.column, group.key),
                ColumnWords.of(group.column),
                dataset.label(group.column, group.key),
                group.part.beyond / most,
                way.isMean ? beyond : phrase("{0} points", beyond),
                figures,
                falses > BORNE,
                group.rows < FEW || group.restRows < FEW);
    }

    private static String sign(double value) {
        return value < 0 ? "−" : "+";
    }

    private static String signed(Written written, double value) {
        return sign(value) + written.brief(Math.abs(value));
    }

    /** Parts as they stand below each other; shares in points. */
    private List<String> signed(DoubleStream parts) {
        double[] all = parts.map(part -> way.isMean ? part : part * 100).toArray();
        List<String> texts = written().column(Arrays.stream(all).map(Math::abs).toArray());
        return IntStream.range(0, all.length)
                .mapToObj(n -> sign(all[n]) + texts.get(n))
                .toList();
    }

    private Written written() {
        return way.of == RateOf.SHARE && way.times == 1
                ? new Written(ValueWords.NUMBER, null, true)
                : new Written(ValueWords.NUMBER, null, false);
    }

    private static String percent(double share) {
        return new Written(ValueWords.NUMBER, null, true).brief(share);
    }

    private String head(double[] totals) {
        String words = dataset.words(difference.measure());
        if (!way.isMean)
            return phrase(
                    "{0}: {1} of what is picked, {2} of the rest; compared are the shares of each value.",
                    words, NumberWords.brief(totals[0]), NumberWords.brief(totals[3]));
        double own = totals[0] / totals[1] * way.times;
        double rest = totals[3] / totals[4] * way.times;
        return phrase(
                "{0}: {1} of what is picked, {2} of the rest, a difference of {3}.",
                words, written().brief(own), written().brief(rest), signed(written(), own - rest));
    }

    private List<String> words() {
        return way.isMean
                ? List.of(
                        phrase("of the difference"),
                        phrase("of what is picked"),
                        phrase("of the rest"),
                        phrase("share of what is picked"),
                        phrase("share of the rest"))
                : List.of(
                        phrase("share of what is picked"),
                        phrase("share of the rest"),
                        phrase("of what is picked"),
                        phrase("of the rest"));
    }

    private List<DifferenceDrawing.Number> numbers(Frame here, Frame all) {
        double[] away = new double[numbers.size()];
        for (int n = 0; n < away.length; n++) {
            double width = (all.value(3 + 3 * n, 0) - all.value(1 + 3 * n, 0)) / HALF;
            away[n] = width > 0 ? (here.value(2 + 3 * n, 0) - all.value(2 + 3 * n, 0)) / width : 0;
        }
        double most = Arrays.stream(away).map(Math::abs).max().orElse(1);
        return IntStream.range(0, away.length)
                .boxed()
                .filter(n -> Math.abs(away[n]) >= NEAR)
                .sorted(Comparator.comparingDouble(n -> -Math.abs(away[n])))
                .map(n -> {
                    Measure median = new Measure(Summary.MEDIAN, numbers.get(n));
                    Written written = Written.of(dataset, median, null);
                    return new DifferenceDrawing.Number(
                            dataset.words(median),
                            written.brief(here.value(2 + 3 * n, 0)),
                            written.brief(all.value(2 + 3 * n, 0)),
                            away[n] / most);
                })
                .toList();
    }
}
