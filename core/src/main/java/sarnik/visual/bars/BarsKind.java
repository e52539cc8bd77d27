package sarnik.visual.bars;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Ranking;
import sarnik.data.Telling;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Over;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.query.TimeStep;
import sarnik.scale.NumberWords;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Extremes;
import sarnik.table.Rounded;
import sarnik.table.Sums;
import sarnik.visual.AlongTime;
import sarnik.visual.Asked;
import sarnik.visual.Box;
import sarnik.visual.CategoryColours;
import sarnik.visual.Ingredients;
import sarnik.visual.Known;
import sarnik.visual.Period;
import sarnik.visual.Picked;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Reference;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.StepWords;
import sarnik.visual.SureRates;
import sarnik.visual.VisualKind;

/** The kind of visual that says which are the most: a bar for each value of a category. */
public final class BarsKind implements VisualKind<Bars> {

    /** Values that are offered to pin a note to. */
    private static final int MOST_NAMED = 2000;

    private static final int MOST_EACH = 4;

    /** About so many classes a column of numbers is cut into. */
    private static final int CLASSES = 12;

    private static final Slot SERIES =
            Slot.at("/series", "parts", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");
    private static final Slot LAYOUT = Slot.at(
            "/layout", "how the parts stand", "{\"enum\": [\"STACKED\", \"GROUPED\", \"SHARES\", \"BACK\", null]}");
    private static final Slot UPRIGHT = Slot.at("/upright", "direction", "{\"type\": [\"boolean\", \"null\"]}");
    private static final Slot ORDER = Slot.at("/order", "order", "{\"enum\": [\"FIGURE\", \"NAME\", null]}");
    private static final Slot STEP = Slot.at(
            "/step",
            "step of time",
            "{\"enum\": [\"MINUTE\", \"HOUR\", \"DAY\", \"WEEK\", \"MONTH\", \"QUARTER\", \"YEAR\", \"HOUR_OF_DAY\", "
                    + "\"WEEKDAY\", \"MONTH_OF_YEAR\", null]}");
    private static final Slot BREAKS = Slot.at(
            "/classes", "number of classes", "{\"type\": [\"integer\", \"null\"], \"minimum\": 2, \"maximum\": 60}");

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
    public String sign() {
        return "M1 2h8M1 5h6M1 8h3";
    }

    @Override
    public List<Slot> slots() {
        return List.of(
                Slots.DATASET,
                Slots.CATEGORY,
                Slots.MEASURE,
                Slots.RANK,
                SERIES,
                LAYOUT,
                UPRIGHT,
                ORDER,
                STEP,
                BREAKS,
                Slots.REFERENCES,
                Slots.PINNED,
                Slots.COLOUR,
                Slots.FORMAT,
                Choices.RULE);
    }

    @Override
    public String words(Bars bars) {
        return phrase("the bars of {0}", ColumnWords.of(bars.category()));
    }

    @Override
    public Set<Long> datasets(Bars bars) {
        return Set.of(bars.dataset());
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Bars.class);
    }

    @Override
    public boolean uses(Bars bars, String parameter) {
        return Reference.uses(bars.references(), parameter);
    }

    @Override
    public Stream<String> places(Bars bars, String parameter) {
        return Slots.references(bars.references(), parameter);
    }

    // --- picks ------------------------------------------------------------------------------------------

    @Override
    public Optional<Source> picks(Bars bars) {
        return Optional.of(new Source(bars.dataset(), bars.category()));
    }

    @Override
    public Picked picked(Bars bars, Value.Pick pick, Scene scene) {
        GroupKey key = key(bars, scene.dataset(bars.dataset()));
        if (key instanceof GroupKey.Of || !(pick instanceof Value.Values of))
            return VisualKind.super.picked(bars, pick, scene);
        return key instanceof GroupKey.Step step
                ? new Picked.InGroups(step.step(), null, of.values())
                : new Picked.InClasses(((GroupKey.Classes) key).breaks(), of.values());
    }

    @Override
    public Known known(Bars bars, List<String> values, Datasets datasets) {
        boolean plain = datasets.ready(bars.dataset())
                .map(d -> d.table().find(bars.category()).isEmpty() || key(bars, d) instanceof GroupKey.Of)
                .orElse(true);
        return plain ? VisualKind.super.known(bars, values, datasets) : new Known(values, "");
    }

    @Override
    public String label(Bars bars, String value, Datasets datasets) {
        return datasets.ready(bars.dataset())
                .filter(d -> d.table().find(bars.category()).isPresent())
                .map(d -> label(bars, d, key(bars, d), value))
                .orElse(value);
    }

    /** What makes the bars: values as they are, steps of time, or classes of numbers. */
    private static GroupKey key(Bars bars, LoadedDataset dataset) {
        Column column = dataset.table()
                .find(bars.category())
                .orElseThrow(() -> new MisfitException(phrase("There is no column “{0}” any more", bars.category())));
        if (Choices.isTime(column)) {
            TimeStep step = bars.step() == null ? StepWords.stepFor(column) : bars.step();
            if (step.needsTime() && column.type() != ColumnType.TIME)
                throw new MisfitException(phrase("“{0}” holds days, which have no {1}", bars.category(), step.said()));
            return new GroupKey.Step(bars.category(), step, null);
        }
        return column.type().isNumber()
                ? new GroupKey.Classes(
                        bars.category(), breaks(column, bars.classes() == null ? CLASSES : bars.classes()))
                : new GroupKey.Of(bars.category());
    }

    /** Round breaks that cut a column of numbers into about so many classes. */
    private static List<Double> breaks(Column column, int classes) {
        Optional<Extremes> ends = column.extremes();
        if (ends.isEmpty()) return List.of();
        double low = Double.parseDouble(column.text(ends.get().lowest()));
        double high = Double.parseDouble(column.text(ends.get().highest()));
        if (!(high > low)) return List.of();
        double step = NumberWords.roundUp((high - low) / Math.max(1, classes));
        List<Double> breaks = new ArrayList<>();
        for (double at = Math.floor(low / step) * step + step; at <= high; at += step)
            breaks.add(Rounded.even(at / step) * step);
        return breaks;
    }

    private static String label(Bars bars, LoadedDataset dataset, GroupKey key, String value) {
        if (key instanceof GroupKey.Step step) return StepWords.of(step.step(), value);
        if (!(key instanceof GroupKey.Classes classes)) return dataset.label(bars.category(), value);
        if (value == null) return phrase("(missing)");
        int at = Integer.parseInt(value);
        List<Double> breaks = classes.breaks();
        if (breaks.isEmpty()) return phrase("values|all");
        if (at == 0) return phrase("below {0}", NumberWords.full(breaks.get(0)));
        return at == breaks.size()
                ? phrase("{0} and more", NumberWords.full(breaks.get(at - 1)))
                : NumberWords.full(breaks.get(at - 1)) + " – " + NumberWords.full(breaks.get(at));
    }

    // --- drawing ----------------------------------------------------------------------------------------

    @Override
    public boolean hasKey(Bars visual) {
        return visual.series() != null;
    }

    /**
     * The bars as they can be drawn: parts are of a measure as it is, and stand one behind the other only where they add
     * up.
     *
     * @param notes takes what is not as it was asked for
     */
    private static Bars drawn(Bars bars, LoadedDataset dataset, List<String> notes) {
        if (bars.series() == null) return bars;
        Measure plain = bars.measure().plain();
        if (bars.measure().over() != null) notes.add(phrase("The parts are of “{0}” as it is.", ColumnWords.of(plain)));
        boolean joined = bars.stands() == Bars.Layout.STACKED || bars.stands() == Bars.Layout.SHARES;
        if (!joined || dataset.addsUp(plain)) return bars.of(plain, bars.stands());
        notes.add(phrase("“{0}” does not add up, so its parts stand side by side.", ColumnWords.of(plain)));
        return bars.of(plain, Bars.Layout.GROUPED);
    }

    @Override
    public Plan plan(Bars asWished, Scene scene) {
        LoadedDataset dataset = scene.dataset(asWished.dataset());
        List<String> notes = new ArrayList<>();
        Bars bars = drawn(asWished, dataset, notes);
        GroupKey key = key(bars, dataset);
        boolean ranked = bars.rank() != null && key instanceof GroupKey.Of;
        List<Stage> shown = scene.shown(dataset, bars.rule());
        Query query = query(bars, key, shown, ranked);
        Query rank = ranked
                ? query(bars, key, bars.rank().held() ? scene.whole(dataset, bars.rule()) : shown, true)
                        .ranked(rank(bars))
                        .with(dataset.measures())
                : null;
        if (ranked && bars.rank().held()) {
            List<Stage> kept = new ArrayList<>(shown);
            kept.add(new Stage(
                    phrase(
                            "{0, select, top {Only the top {1} of all, before picks} bottom {Only the bottom {1} of all, before picks} other {Only the top and bottom {1} of all, before picks}}",
                            bars.rank().end().words(), bars.rank().count()),
                    List.of(new Condition.Among(bars.category(), dataset.table(), rank, 0, false))));
            query = query(bars, key, kept, true);
        } else if (ranked) {
            query = query.ranked(rank(bars));
        }
        Plan plan = new Plan();
        AlongTime asked = new AlongTime(
                plan,
                dataset,
                query,
                key instanceof GroupKey.Step
                        ? Period.of(bars.category(), dataset.table().column(bars.category()), shown)
                        : Optional.empty());
        asked.note(notes);
        Asked others = ranked && Boolean.TRUE.equals(bars.rank().others())
                ? plan.ask(dataset, others(bars, dataset, shown, rank))
                : null;
        Asked parts = bars.series() == null ? null : plan.ask(dataset, parts(bars, key, shown));
        Asked held = held(bars, key, scene, plan);
        CategoryColours colours =
                bars.series() == null ? null : CategoryColours.of(dataset, bars.series(), bars.colour(), scene);
        LoadedDataset.Rate rate = bars.series() != null
                ? null
                : SureRates.rate(dataset, bars.measure()).orElse(null);
        Asked sums = rate == null
                ? null
                : plan.ask(rate.dataset(), Query.by(shown, List.of(key), List.of(rate.events(), rate.over())));
        return plan.drawn(answers -> {
            Frame frame = asked.of(answers);
            return new BarsDrawer(
                            bars,
                            dataset,
                            scene,
                            value -> label(bars, dataset, key, value),
                            held == null ? null : answers.of(held),
                            notes)
                    .draw(
                            frame,
                            others == null ? Double.NaN : ofOthers(bars, frame, answers.of(others)),
                            parts == null ? null : answers.of(parts),
                            colours,
                            rate == null ? Map.of() : SureRates.byKey(rate, answers.of(sums)));
        });
    }

    /** While time is played, the axis is held over what each step shows; null where it is not. */
    private static Asked held(Bars bars, GroupKey key, Scene scene, Plan plan) {
        LoadedDataset dataset = scene.dataset(bars.dataset());
        if (bars.measure().over() != null) return null;
        return scene.steps(dataset)
                .map(step -> plan.ask(
                        dataset,
                        Query.by(
                                        scene.scaled(dataset, bars.rule()),
                                        bars.series() == null
                                                ? List.of(key, step)
                                                : List.of(key, step, new GroupKey.Of(bars.series())),
                                        List.of(bars.measure()))
                                .filled()))
                .orElse(null);
    }

    private static Rank rank(Bars bars) {
        Ranking ranking = bars.rank();
        Rank.End end = ranking.end();
        if (firstIsMost(bars) && end != Rank.End.BOTH) end = end == Rank.End.TOP ? Rank.End.BOTTOM : Rank.End.TOP;
        return new Rank(0, end, ranking.count(), false);
    }

    /** Whether the least number stands for the most: a place by size. */
    private static boolean firstIsMost(Bars bars) {
        return bars.measure().over() != null && bars.measure().over().kind() == Over.Kind.RANK;
    }

    private static Query query(Bars bars, GroupKey key, List<Stage> stages, boolean ranked) {
        boolean ascending = bars.rank() != null && bars.rank().end() == Rank.End.BOTTOM;
        boolean byKey = bars.order() == Bars.Order.NAME || !(key instanceof GroupKey.Of);
        Query query = Query.by(stages, List.of(key), List.of(bars.measure()))
                .sorted(byKey ? Sort.BY_KEY : new Sort(0, ascending == firstIsMost(bars)), Integer.MAX_VALUE);
        // A missing value is no rival in a rank; without a rank it has a bar of its own.
        return ranked ? query.filled() : query;
    }

    /**
     * What the others come to, NaN where there are none. What is worked out over all bars is theirs only as a share, and
     * not where a rank that is held leaves their rows out of it.
     */
    private static double ofOthers(Bars bars, Frame kept, Frame others) {
        if (!(others.value(1, 0) > 0)) return Double.NaN;
        if (bars.measure().over() == null) return others.value(0, 0);
        if (bars.measure().over().kind() != Over.Kind.SHARE || bars.rank().held()) return Double.NaN;
        return 1
                - Sums.of(Arrays.stream(kept.values().get(0))
                        .filter(Double::isFinite)
                        .toArray());
    }

    /** All rows that the rank leaves out, as one. */
    private static Query others(Bars bars, LoadedDataset dataset, List<Stage> shown, Query rank) {
        List<Stage> rest = new ArrayList<>(shown);
        rest.add(new Stage(
                phrase("The others"), List.of(new Condition.Among(bars.category(), dataset.table(), rank, 0, true))));
        return Query.of(rest, List.of(), List.of(bars.measure().plain(), Measure.ROWS));
    }

    private static Query parts(Bars bars, GroupKey key, List<Stage> shown) {
        return Query.by(
                shown,
                List.of(key, new GroupKey.Of(bars.series())),
                List.of(bars.measure().plain()));
    }

    @Override
    public void brief(Bars bars, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(bars.dataset());
        Column column = dataset.table().find(bars.category()).orElse(null);
        boolean plain = column instanceof CodedColumn || column == null;
        Ranking rank = bars.rank();
        line.say("Bars: ");
        if (plain) {
            boolean held = rank != null && rank.held();
            List<Option> ranks = new ArrayList<>();
            for (Rank.End end : Rank.End.values())
                for (int count : new int[] {3, 5, 10, 20})
                    ranks.add(new Option(Slots.rankWords(end, count), "", new Ranking(end, count, held)));
            line.slot(
                    Slots.RANK.named("which bars"),
                    rank == null ? "all values" : Slots.rankWords(rank.end(), rank.count()),
                    Kind.CHOSEN,
                    false,
                    rank != null,
                    ranks);
        } else if (Choices.isTime(column)) {
            List<Option> steps = new ArrayList<>();
            for (TimeStep s : TimeStep.values())
                if (!s.needsTime() || column.type() == ColumnType.TIME) steps.add(new Option(s.words(), "", s.name()));
            line.slot(
                    STEP,
                    bars.step() == null ? "a step that suits" : bars.step().words(),
                    Kind.CHOSEN,
                    false,
                    bars.step() != null,
                    steps);
        } else {
            List<Option> counts = new ArrayList<>();
            for (int n : new int[] {5, 8, 12, 20, 30})
                counts.add(new Option("about " + Choices.count(n) + " classes", "", n));
            line.slot(
                    BREAKS,
                    "about " + Choices.count(bars.classes() == null ? CLASSES : bars.classes()) + " classes",
                    Kind.CHOSEN,
                    false,
                    bars.classes() != null,
                    counts);
        }
        line.say(" of ");
        line.choose(
                Slots.CATEGORY,
                ColumnWords.of(bars.category()),
                Choices.columns(
                        dataset,
                        c -> c instanceof CodedColumn
                                || Choices.isTime(c)
                                || c.type().isNumber()));
        line.say(" in " + dataset.name() + " by ");
        line.choose(Slots.MEASURE, ColumnWords.of(bars.measure()), choices.measures(dataset));
        if (bars.series() == null || bars.measure().over() != null)
            Slots.over(line, "/measure", bars.measure(), dataset, !plain);
        if (plain && rank != null) Slots.ranked(line, rank);
        line.say(bars.series() == null ? " " : ", in parts by ");
        line.may(
                SERIES,
                bars.series() == null ? "+ parts" : ColumnWords.of(bars.series()),
                bars.series() == null,
                Choices.categories(dataset));
        if (bars.series() != null) {
            line.say(" ");
            Bars.Layout layout = bars.stands();
            line.choose(
                    LAYOUT,
                    layout.words(),
                    Arrays.stream(Bars.Layout.values())
                            .map(l -> new Option(l.words(), "", l.name()))
                            .toList());
        }
        Slots.references(line, bars.references(), choices);
        Slots.pinned(line, bars.pinned(), values(bars, dataset));
        Choices.rule(line, bars.rule(), dataset);
        line.say(".");
        looks.say(" · bars ");
        boolean upright = Boolean.TRUE.equals(bars.upright());
        looks.choose(
                UPRIGHT,
                upright ? "stand upright" : "lie level",
                List.of(new Option("lie level", "room for names", false), new Option("stand upright", "", true)));
        if (plain) {
            looks.say(" · ordered ");
            Bars.Order order = bars.order() == null ? Bars.Order.FIGURE : bars.order();
            looks.choose(
                    ORDER,
                    order.words(),
                    Arrays.stream(Bars.Order.values())
                            .map(o -> new Option(o.words(), "", o.name()))
                            .toList());
        }
        Slots.format(looks, bars.format());
        if (bars.series() != null) Slots.categoryColour(looks, bars.colour(), choices);
    }

    /** The values of the category, as something that a note can be pinned to. */
    private static List<Option> values(Bars bars, LoadedDataset dataset) {
        if (bars.step() != null) return Slots.steps(dataset, bars.category(), bars.step());
        if (!(dataset.table().find(bars.category()).orElse(null) instanceof CodedColumn coded)) return List.of();
        return coded.dictionary().stream()
                .limit(MOST_NAMED)
                .map(value -> new Option(dataset.label(bars.category(), value), "", value))
                .sorted(Comparator.comparing(Option::text, String.CASE_INSENSITIVE_ORDER))
                .toList();
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.WHICH_MOST) return List.of();
        Measure measure = Telling.amount(dataset);
        return Telling.categories(dataset).stream()
                .limit(MOST_EACH)
                .map(category -> new Proposal(
                        "The top ten of %s, by %s".formatted(ColumnWords.of(category), ColumnWords.of(measure)),
                        of(dataset.id(), category, measure, new Ranking(Rank.End.TOP, 10, false)),
                        10,
                        8))
                .toList();
    }

    private static Bars of(long dataset, String category, Measure measure, Ranking rank) {
        return new Bars(
                null, null, "", dataset, category, measure, rank, null, null, null, null, null, null, null, null, null,
                null, null);
    }

    @Override
    public Ingredients ingredients(Bars bars) {
        List<String> categories = new ArrayList<>(List.of(bars.category()));
        if (bars.series() != null) categories.add(bars.series());
        return new Ingredients(
                bars.dataset(), categories, List.of(bars.measure()), null, bars.rule(), bars.rank(), bars.colour());
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        Optional<String> category = from.categories().stream()
                .findFirst()
                .or(() -> Optional.ofNullable(from.time()))
                .or(() -> Telling.categories(dataset).stream().findFirst());
        if (category.isEmpty()) return Optional.empty();
        Measure measure = from.measuresOrRows().get(0);
        String series = from.categories().size() > 1 ? from.categories().get(1) : null;
        boolean many = Telling.distinct(dataset, category.get()) > 20
                && Telling.distinct(dataset, category.get()) < Integer.MAX_VALUE;
        Ranking rank = from.rank() != null ? from.rank() : many ? new Ranking(Rank.End.TOP, 10, false) : null;
        return Optional.of(new Become(
                new Bars(
                        page,
                        at,
                        title,
                        dataset.id(),
                        category.get(),
                        measure,
                        rank,
                        from.rule(),
                        series,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        series == null ? null : from.colour(),
                        null),
                from.left(category.get(), measure, category.get().equals(from.time())).stream()
                        .filter(l -> series == null || !l.equals(ColumnWords.of(series)))
                        .toList()));
    }
}
