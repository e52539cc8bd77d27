package sarnik.visual.bars;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Ranking;
import sarnik.data.Telling;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.scale.ValueWords;
import sarnik.visual.Asked;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;

/** The kind of visual that says which are the most: a bar for each value of a category. */
public final class BarsKind implements VisualKind<Bars> {

    /** Without a rank at most this many bars are drawn; how many more there are is said. */
    public static final int MOST_BARS = 60;

    private static final int MOST_EACH = 4;

    /** What a bar of the earliest date has of the span of all. */
    private static final double BEFORE_THE_FIRST = 0.05;

    private static final Slot HELD = Slot.within("/rank/held", "what is ranked");

    @Override
    public String name() {
        return "bars";
    }

    @Override
    public Class<Bars> type() {
        return Bars.class;
    }

    @Override
    public Class<BarsDrawing> drawing() {
        return BarsDrawing.class;
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, Slots.CATEGORY, Slots.MEASURE, Slots.RANK, HELD, Choices.RULE);
    }

    @Override
    public String words(Bars bars) {
        return "the bars of " + ColumnWords.of(bars.category());
    }

    @Override
    public Set<Long> datasets(Bars bars) {
        return Set.of(bars.dataset());
    }

    @Override
    public Optional<Source> picks(Bars bars) {
        return Optional.of(new Source(bars.dataset(), bars.category()));
    }

    @Override
    public Plan plan(Bars bars, Scene scene) {
        LoadedDataset dataset = scene.dataset(bars.dataset());
        Ranking ranking = bars.rank();
        List<Stage> stages = new ArrayList<>(scene.shown(dataset, bars.rule()));
        Query query = query(bars, stages);
        if (ranking != null && ranking.held()) {
            Query whole = query(bars, scene.whole(dataset, bars.rule())).ranked(rank(ranking));
            stages.add(new Stage(
                    "Only the %s %d of all, before picks"
                            .formatted(ranking.end().words(), ranking.count()),
                    List.of(new Condition.Among(
                            bars.category(), dataset.table(), whole.with(dataset.measures()), 0, false))));
            query = query(bars, stages);
        } else if (ranking != null) {
            query = query.ranked(rank(ranking));
        }
        Plan plan = new Plan();
        Asked asked = plan.ask(dataset, query);
        return plan.drawn(answers -> draw(bars, dataset, answers.of(asked)));
    }

    private static Rank rank(Ranking ranking) {
        return new Rank(0, ranking.end(), ranking.count(), false);
    }

    private static Query query(Bars bars, List<Stage> stages) {
        boolean ascending = bars.rank() != null && bars.rank().end() == Rank.End.BOTTOM;
        Query query = Query.of(stages, List.of(bars.category()), List.of(bars.measure()))
                .sorted(new Sort(0, !ascending), Integer.MAX_VALUE);
        // A missing value is no rival in a rank; without a rank it has a bar of its own.
        return bars.rank() == null ? query : query.filled();
    }

    private static BarsDrawing draw(Bars bars, LoadedDataset dataset, Frame frame) {
        int shown = Math.min(frame.size(), MOST_BARS);
        double[] values = frame.values().get(0);
        ValueWords read = dataset.read(bars.measure());
        double least = IntStream.range(0, shown)
                .mapToDouble(g -> values[g])
                .filter(Double::isFinite)
                .min()
                .orElse(0);
        double most = IntStream.range(0, shown)
                .mapToDouble(g -> values[g])
                .filter(Double::isFinite)
                .max()
                .orElse(0);
        // Dates have no zero to start at: their bars start a little before the first.
        double low = read.isAmount() ? Math.min(0, least) : least - (most - least) * BEFORE_THE_FIRST;
        double high = read.isAmount() ? Math.max(0, most) : most;
        double span = high - low == 0 ? 1 : high - low;
        List<BarsDrawing.Bar> drawn = new ArrayList<>();
        for (int g = 0; g < shown; g++) {
            double value = !Double.isNaN(values[g]) ? values[g] : read.isAmount() ? 0 : low;
            double from = read.isAmount() ? Math.min(0, value) : low;
            drawn.add(new BarsDrawing.Bar(
                    frame.key(0, g),
                    dataset.label(bars.category(), frame.key(0, g)),
                    (from - low) / span,
                    (Math.max(read.isAmount() ? 0 : low, value) - low) / span,
                    read.brief(values[g]),
                    read.full(values[g])));
        }
        String words = ColumnWords.of(bars.measure());
        return new BarsDrawing(
                Scene.titleOf(bars, words + " by " + ColumnWords.of(bars.category())),
                words,
                drawn,
                frame.size() - shown,
                Trail.of(frame.trail()));
    }

    @Override
    public void brief(Bars bars, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(bars.dataset());
        Ranking rank = bars.rank();
        line.say("Bars: ");
        boolean held = rank != null && rank.held();
        List<Option> ranks = new ArrayList<>();
        for (Rank.End end : Rank.End.values())
            for (int count : new int[] {3, 5, 10, 20})
                ranks.add(new Option(rankWords(end, count), "", new Ranking(end, count, held)));
        line.slot(
                Slots.RANK.named("which bars"),
                rank == null ? "all values" : rankWords(rank.end(), rank.count()),
                Kind.CHOSEN,
                false,
                rank != null,
                ranks);
        line.say(" of ");
        line.choose(Slots.CATEGORY, ColumnWords.of(bars.category()), Choices.categories(dataset));
        line.say(" in " + dataset.name() + " by ");
        line.choose(Slots.MEASURE, ColumnWords.of(bars.measure()), choices.measures(dataset));
        if (rank != null) {
            line.say(", ranked ");
            line.choose(
                    HELD,
                    held ? "of all" : "of what is picked",
                    List.of(
                            new Option("of what is picked", "picks narrow first, then the rank is taken", false),
                            new Option("of all", "the rank is taken first, then picks narrow", true)));
        }
        Choices.rule(line, bars.rule(), dataset);
        line.say(".");
    }

    private static String rankWords(Rank.End end, int count) {
        return "the " + end.words() + " " + Choices.count(count);
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.WHICH_MOST) return List.of();
        Measure measure = Telling.sums(dataset).stream().findFirst().orElse(Measure.ROWS);
        return Telling.categories(dataset).stream()
                .limit(MOST_EACH)
                .map(category -> new Proposal(
                        "The top ten of %s, by %s".formatted(ColumnWords.of(category), ColumnWords.of(measure)),
                        new Bars(
                                null,
                                null,
                                "",
                                dataset.id(),
                                category,
                                measure,
                                new Ranking(Rank.End.TOP, 10, false),
                                null),
                        10,
                        8))
                .toList();
    }
}
