package sarnik.visual.funnel;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Telling;
import sarnik.place.PlacedTable;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Summary;
import sarnik.scale.NumberWords;
import sarnik.scale.ValueWords;
import sarnik.statistics.Interval;
import sarnik.statistics.RateOf;
import sarnik.statistics.Rates;
import sarnik.table.Rounded;
import sarnik.visual.Asked;
import sarnik.visual.Axis;
import sarnik.visual.Box;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;
import sarnik.visual.Written;

/**
 * The kind of visual that says which rates are more than chance: a funnel (Spiegelhalter 2005, Statistics in Medicine
 * 24:1185–1202).
 */
public final class FunnelKind implements VisualKind<Funnel> {

    private static final double INNER = 0.95;
    private static final double OUTER = 0.998;

    /** More marks than this are more than can be told apart; those that rest on the most are kept. */
    private static final int MOST_DOTS = 3000;

    private static final int MOST_NAMED = 12;
    private static final int CURVE = 60;
    private static final int FINE = 10_000;

    /** Where so large a part lies beyond limits that a twentieth would, groups differ throughout. */
    private static final double THROUGHOUT = 0.25;

    /** Where the largest rests on more than so many times as much as the middle one, sizes run by factors. */
    private static final double FAR_APART = 8;

    private static final double[] PER = {1, 100, 1000, 10_000, 100_000};

    private static final String MEASURE = "{\"$ref\": \"#/$defs/measure\"}";
    private static final Slot EVENTS =
            Slot.at("/events", "what is counted", MEASURE).needed();
    private static final Slot OVER =
            Slot.at("/over", "what it could happen to", MEASURE).needed();
    private static final Slot OF = Slot.at("/of", "what the rate is of", "{\"enum\": [\"EVENTS\", \"SHARE\", null]}");
    private static final Slot PER_SLOT =
            Slot.at("/per", "for how many", "{\"type\": [\"number\", \"null\"], \"exclusiveMinimum\": 0}");
    private static final Slot SMOOTH =
            Slot.at("/smooth", "drawn toward the whole", "{\"type\": [\"boolean\", \"null\"]}");

    @Override
    public List<String> asked() {
        return List.of("funnel");
    }

    @Override
    public String name() {
        return "funnel";
    }

    @Override
    public Class<Funnel> type() {
        return Funnel.class;
    }

    @Override
    public Class<FunnelDrawing> drawing() {
        return FunnelDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 1c2 3 5 3 8 3.4M1 9c2-3 5-3 8-3.4M3 5h.6M6 5h.6M5 2h.6";
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, Slots.CATEGORY, EVENTS, OVER, OF, PER_SLOT, SMOOTH, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Funnel.class);
    }

    @Override
    public String words(Funnel funnel) {
        return phrase("the funnel of {0}", ColumnWords.of(funnel.category()));
    }

    @Override
    public Set<Long> datasets(Funnel funnel) {
        return Set.of(funnel.dataset());
    }

    @Override
    public Optional<Source> picks(Funnel funnel) {
        return Optional.of(new Source(funnel.dataset(), funnel.category()));
    }

    // --- drawing ---------------------------------------------------------------------------------------

    @Override
    public Plan plan(Funnel funnel, Scene scene) {
        LoadedDataset dataset = scene.dataset(funnel.dataset());
        Plan plan = new Plan();
        List<Measure> measures = List.of(funnel.events(), funnel.over());
        for (Measure measure : measures)
            if (!adds(measure))
                throw new MisfitException(phrase(
                        "A rate is worked out of sums and of numbers of rows; {0} is neither.",
                        ColumnWords.of(measure)));
        Asked asked =
                plan.ask(dataset, Query.of(scene.shown(dataset, funnel.rule()), List.of(funnel.category()), measures));
        // While time is played, the axes are held over what each step shows.
        Asked held = scene.steps(dataset)
                .map(step -> plan.ask(
                        dataset,
                        Query.by(
                                scene.scaled(dataset, funnel.rule()),
                                List.of(new GroupKey.Of(funnel.category()), step),
                                measures)))
                .orElse(null);
        return plan.drawn(answers -> draw(funnel, dataset, answers.of(asked), held == null ? null : answers.of(held)));
    }

    private static boolean adds(Measure measure) {
        return measure.over() == null && (measure.summary() == Summary.SUM || measure.summary() == Summary.COUNT);
    }

    /** The groups that have a rate. */
    private record Groups(double[] events, double[] over, int[] known) {

        static Groups of(Frame frame) {
            double[] events = frame.values().get(0);
            double[] over = frame.values().get(1);
            return new Groups(
                    events,
                    over,
                    IntStream.range(0, events.length)
                            .filter(g -> Double.isFinite(events[g]) && Double.isFinite(over[g]) && over[g] > 0)
                            .toArray());
        }

        double sum(double[] values) {
            double sum = 0;
            for (int g : known) sum += values[g];
            return sum;
        }

        double rate() {
            return sum(events) / sum(over);
        }
    }

    /** What a rate is of, and how it is written. */
    private record Reckoned(RateOf of, double per, Written written, String words) {

        String text(double rate) {
            return written.brief(rate * per);
        }
    }

    private static FunnelDrawing draw(Funnel funnel, LoadedDataset dataset, Frame frame, Frame held) {
        Groups groups = Groups.of(frame);
        check(funnel, groups);
        RateOf of = funnel.of() == null ? guessed(funnel, groups) : funnel.of();
        double rate = groups.known().length == 0 ? 0 : groups.rate();
        Reckoned reckoned = reckoned(funnel, dataset, of, rate);
        double[] rates = rates(funnel, groups);
        double[] smoothed = Rates.smoothed(groups.events(), groups.over());
        Groups room = held == null ? groups : Groups.of(held);
        Axis across = across(dataset, funnel, room);
        Axis up = up(reckoned, rates, room, groups, rate);
        int[] drawn = IntStream.of(groups.known())
                .boxed()
                .sorted(Comparator.comparingDouble((Integer g) -> -groups.over()[g]))
                .limit(MOST_DOTS)
                .mapToInt(g -> g)
                .toArray();
        int[] beyond = IntStream.of(drawn)
                .map(g -> beyond(reckoned, rate, groups.events()[g] / groups.over()[g], groups.over()[g]))
                .toArray();
        Set<Integer> named = named(reckoned, rate, groups, drawn, beyond);
        Written counted = Written.of(dataset, funnel.events(), null);
        Written sized = Written.of(dataset, funnel.over(), null);
        List<FunnelDrawing.Dot> dots = new ArrayList<>();
        for (int d = 0; d < drawn.length; d++) {
            int g = drawn[d];
            double events = groups.events()[g];
            double over = groups.over()[g];
            Interval interval = reckoned.of().interval(events, over);
            dots.add(new FunnelDrawing.Dot(
                    frame.key(0, g),
                    dataset.label(funnel.category(), frame.key(0, g)),
                    fine(across.at(over)),
                    fine(up.at(rates[g] * reckoned.per())),
                    beyond[d],
                    reckoned.of().isUnsure(events, over),
                    named.contains(d),
                    List.of(
                            reckoned.text(events / over),
                            phrase("{0} to {1}", reckoned.text(interval.low()), reckoned.text(interval.high())),
                            reckoned.text(smoothed[g]),
                            counted.full(events),
                            sized.full(over))));
        }
        return new FunnelDrawing(
                Scene.titleOf(funnel, reckoned.words()),
                across,
                up,
                clipped(up.at(rate * reckoned.per())),
                phrase("{0} of all together", reckoned.text(rate)),
                drawn.length == 0
                        ? List.of()
                        : List.of(
                                limit(phrase("95 of 100"), INNER, reckoned, rate, across, up),
                                limit(phrase("998 of 1,000"), OUTER, reckoned, rate, across, up)),
                dots,
                List.of(
                        reckoned.words(),
                        phrase("may well lie (95 %)"),
                        phrase("drawn toward the whole"),
                        dataset.words(funnel.events()),
                        dataset.words(funnel.over())),
                notes(funnel, of, frame, groups, dots),
                Trail.of(frame.trail()));
    }

    private static void check(Funnel funnel, Groups groups) {
        for (int g : groups.known())
            if (groups.events()[g] < 0)
                throw new MisfitException(phrase(
                        "{0} is below zero in places; a rate is of what is counted.", ColumnWords.of(funnel.events())));
        if (funnel.of() != RateOf.SHARE) return;
        for (int g : groups.known())
            if (groups.events()[g] > groups.over()[g])
                throw new MisfitException(phrase(
                        "{0} is more than {1} in places, so it is no share of it. Say in the brief that it counts events.",
                        ColumnWords.of(funnel.events()), ColumnWords.of(funnel.over())));
    }

    /** A share where rows are counted and no group has more than it has rows; events in any other case. */
    private static RateOf guessed(Funnel funnel, Groups groups) {
        boolean fits = funnel.over().equals(Measure.ROWS)
                && IntStream.of(groups.known()).allMatch(g -> groups.events()[g] <= groups.over()[g]);
        return fits ? RateOf.SHARE : RateOf.EVENTS;
    }

    private static Reckoned reckoned(Funnel funnel, LoadedDataset dataset, RateOf of, double rate) {
        String events = dataset.words(funnel.events());
        String over = dataset.words(funnel.over());
        if (of == RateOf.SHARE && funnel.per() == null)
            return new Reckoned(
                    of, 1, new Written(ValueWords.NUMBER, null, true), phrase("{0}, share of {1}", events, over));
        double per = funnel.per() != null ? funnel.per() : suiting(rate);
        return new Reckoned(
                of,
                per,
                new Written(ValueWords.NUMBER, null, false),
                phrase("{0} for {1} of {2}", events, NumberWords.full(per), over));
    }

    /** For so many that the rate of all together is one or more. */
    private static double suiting(double rate) {
        for (double per : PER) if (rate * per >= 1) return per;
        return PER[PER.length - 1];
    }

    private static double[] rates(Funnel funnel, Groups groups) {
        if (Boolean.TRUE.equals(funnel.smooth())) return Rates.smoothed(groups.events(), groups.over());
        double[] rates = new double[groups.events().length];
        Arrays.fill(rates, Double.NaN);
        for (int g : groups.known()) rates[g] = groups.events()[g] / groups.over()[g];
        return rates;
    }

    private static Axis across(LoadedDataset dataset, Funnel funnel, Groups room) {
        Written written = Written.of(dataset, funnel.over(), null);
        String words = dataset.words(funnel.over());
        double[] sorted = IntStream.of(room.known())
                .mapToDouble(g -> room.over()[g])
                .sorted()
                .toArray();
        if (sorted.length == 0) return Axis.of(0, 1, true, written, words);
        double most = sorted[sorted.length - 1];
        return sorted[0] > 0 && most > FAR_APART * sorted[sorted.length / 2]
                ? Axis.logarithmic(sorted[0], most, written, words)
                : Axis.of(0, most, true, written, words);
    }

    private static Axis up(Reckoned reckoned, double[] rates, Groups room, Groups groups, double rate) {
        double most = rate;
        for (int g : groups.known()) most = Math.max(most, rates[g]);
        if (room != groups) for (int g : room.known()) most = Math.max(most, room.events()[g] / room.over()[g]);
        return Axis.of(0, most * reckoned.per(), true, reckoned.written(), reckoned.words());
    }

    private static int beyond(Reckoned reckoned, double rate, double own, double over) {
        Interval outer = reckoned.of().limits(rate, over, OUTER);
        Interval inner = reckoned.of().limits(rate, over, INNER);
        int side = own > rate ? 1 : -1;
        if (!outer.holds(own)) return 2 * side;
        return inner.holds(own) ? 0 : side;
    }

    private static FunnelDrawing.Limit limit(
            String words, double confidence, Reckoned reckoned, double rate, Axis across, Axis up) {
        int[] x = new int[CURVE + 1];
        int[] low = new int[CURVE + 1];
        int[] high = new int[CURVE + 1];
        for (int i = 0; i <= CURVE; i++) {
            // Closer to each other on the left, where the curves bend the most.
            double at = across.logarithmic() ? (double) i / CURVE : Math.max(1e-3, (double) i * i / CURVE / CURVE);
            double size = across.logarithmic()
                    ? across.low() * Math.pow(across.high() / across.low(), at)
                    : across.low() + at * (across.high() - across.low());
            Interval interval = reckoned.of().limits(rate, size, confidence);
            x[i] = fine(at);
            low[i] = fine(clipped(up.at(interval.low() * reckoned.per())));
            high[i] = fine(clipped(up.at(interval.high() * reckoned.per())));
        }
        return new FunnelDrawing.Limit(words, x, low, high);
    }

    private static double clipped(double at) {
        return Double.isNaN(at) ? 0 : Math.max(0, Math.min(1, at));
    }

    private static int fine(double at) {
        return (int) Rounded.up(at * FINE);
    }

    /** Of those beyond the outer limits the ones that lie the furthest off, in what chance lets them vary. */
    private static Set<Integer> named(Reckoned reckoned, double rate, Groups groups, int[] drawn, int[] beyond) {
        return Set.copyOf(IntStream.range(0, drawn.length)
                .filter(d -> Math.abs(beyond[d]) == 2)
                .boxed()
                .sorted(Comparator.comparingDouble((Integer d) -> {
                    double over = groups.over()[drawn[d]];
                    double away = Math.abs(groups.events()[drawn[d]] / over - rate);
                    return -away
                            / Math.sqrt(Math.max(
                                    1e-12,
                                    reckoned.of().limits(rate, over, INNER).width() * rate));
                }))
                .limit(MOST_NAMED)
                .toList());
    }

    private static List<String> notes(
            Funnel funnel, RateOf of, Frame frame, Groups groups, List<FunnelDrawing.Dot> dots) {
        List<String> notes = new ArrayList<>();
        int known = groups.known().length;
        if (known == 0) return notes;
        long inner = dots.stream().filter(dot -> dot.beyond() != 0).count();
        long outer = dots.stream().filter(dot -> Math.abs(dot.beyond()) == 2).count();
        notes.add(phrase(
                "{0} of {1} lie beyond the inner limits, where chance alone would put about {2}; {3} beyond the outer, where it would put {4}.",
                inner,
                dots.size(),
                NumberWords.brief(Rounded.up(dots.size() * (1 - INNER))),
                outer,
                dots.size() * (1 - OUTER) < 1
                        ? phrase("hardly any")
                        : NumberWords.brief(Rounded.up(dots.size() * (1 - OUTER)))));
        if (dots.size() >= 20 && inner > THROUGHOUT * dots.size())
            notes.add(
                    phrase(
                            "So many lie beyond that they differ throughout, not here and there: something is at work that this does not tell."));
        long unsure = dots.stream().filter(FunnelDrawing.Dot::unsure).count();
        if (unsure > 0)
            notes.add(phrase(
                    "{0, plural, one {# rests on too few to be trusted and is drawn hollow.} other {# rest on too few to be trusted and are drawn hollow.}}",
                    (int) unsure));
        if (Boolean.TRUE.equals(funnel.smooth()))
            notes.add(phrase("Rates are drawn toward the whole, the more the fewer they rest on (Marshall 1991)."));
        if (funnel.of() == null)
            notes.add(
                    of == RateOf.SHARE
                            ? phrase("Taken for a share, of which each row is one or not.")
                            : phrase("Taken for events, of which each may have several."));
        if (IntStream.of(groups.known()).anyMatch(g -> groups.events()[g] != Math.rint(groups.events()[g])))
            notes.add(phrase("What is counted is not in whole numbers: limits and intervals hold for counts only."));
        int uncounted = (int) IntStream.range(0, frame.size())
                .filter(g -> !Double.isFinite(groups.events()[g]) && groups.over()[g] > 0)
                .count();
        if (uncounted > 0)
            notes.add(phrase(
                    "{0, plural, one {# has no number of what is counted and is left out.} other {# have no number of what is counted and are left out.}}",
                    uncounted));
        if (frame.size() > known + uncounted)
            notes.add(phrase(
                    "{0, plural, one {# has nothing that it could happen to and is left out.} other {# have nothing that it could happen to and are left out.}}",
                    frame.size() - known - uncounted));
        if (known > MOST_DOTS)
            notes.add(phrase("Only the {0} that rest on the most of {1} are drawn.", MOST_DOTS, known));
        return notes;
    }

    // --- its sentence ----------------------------------------------------------------------------------

    @Override
    public void brief(Funnel funnel, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(funnel.dataset());
        List<Option> measures = choices.measures(dataset, FunnelKind::adds);
        line.say("A funnel: the rate of ");
        line.choose(EVENTS, ColumnWords.of(funnel.events()), measures);
        line.say(" over ");
        line.choose(OVER, ColumnWords.of(funnel.over()), measures);
        line.say(" of each ");
        line.choose(Slots.CATEGORY.named("marks"), ColumnWords.of(funnel.category()), Choices.categories(dataset));
        line.say(" in " + dataset.name() + ", between the limits of chance; ");
        line.may(
                OF,
                funnel.of() == null ? "+ what it is of (guessed)" : funnel.of().words(),
                funnel.of() == null,
                Arrays.stream(RateOf.values())
                        .map(of -> new Option(of.words(), "", of.name()))
                        .toList());
        line.say(" ");
        line.slot(
                PER_SLOT,
                funnel.per() == null ? "+ for how many" : "for " + NumberWords.full(funnel.per()),
                Brief.Kind.NUMBER,
                funnel.per() == null,
                funnel.per() != null,
                List.of());
        boolean smooth = Boolean.TRUE.equals(funnel.smooth());
        line.say(smooth ? ", " : " ");
        line.may(
                SMOOTH,
                smooth ? "drawn toward the whole" : "+ drawn toward the whole",
                !smooth,
                List.of(new Option("drawn toward the whole", "the more the fewer a rate rests on", true)));
        Choices.rule(line, funnel.rule(), dataset);
        line.say(".");
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.TOGETHER) return List.of();
        List<Measure> sums =
                Telling.measures(dataset).stream().filter(FunnelKind::adds).toList();
        if (sums.isEmpty()) return List.of();
        String marks =
                dataset.isPlaced() && dataset.table().find(PlacedTable.PLACE).isPresent()
                        ? PlacedTable.PLACE
                        : Telling.categories(dataset).stream().findFirst().orElse(null);
        if (marks == null) return List.of();
        Measure events = sums.get(0);
        Measure over = sums.size() > 1 ? sums.get(1) : Measure.ROWS;
        return List.of(new Proposal(
                "More than chance? " + ColumnWords.of(events) + " over " + ColumnWords.of(over),
                new Funnel(null, null, "", dataset.id(), marks, events, over, null, null, null, null),
                12,
                10));
    }

    @Override
    public Ingredients ingredients(Funnel funnel) {
        return new Ingredients(
                funnel.dataset(),
                List.of(funnel.category()),
                List.of(funnel.events(), funnel.over()),
                null,
                funnel.rule(),
                null,
                null);
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        Optional<String> category = from.categories().stream()
                .findFirst()
                .or(() -> Telling.categories(dataset).stream().findFirst());
        List<Measure> adding = from.measuresOrRows().stream()
                .map(Measure::plain)
                .filter(FunnelKind::adds)
                .toList();
        if (category.isEmpty() || adding.isEmpty()) return Optional.empty();
        Measure over = adding.size() > 1 ? adding.get(1) : Measure.ROWS;
        return Optional.of(new Become(
                new Funnel(
                        page,
                        at,
                        title,
                        dataset.id(),
                        category.get(),
                        adding.get(0),
                        over,
                        null,
                        null,
                        null,
                        from.rule()),
                from.left(category.get(), adding.get(0), false)));
    }
}
