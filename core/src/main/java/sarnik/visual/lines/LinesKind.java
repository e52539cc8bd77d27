package sarnik.visual.lines;

import static sarnik.language.Language.phrase;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.Format;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Ranking;
import sarnik.data.Telling;
import sarnik.language.Language;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.Stage;
import sarnik.query.TimeStep;
import sarnik.state.Value;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.visual.AlongTime;
import sarnik.visual.Asked;
import sarnik.visual.Box;
import sarnik.visual.CategoryColours;
import sarnik.visual.Clock;
import sarnik.visual.Ingredients;
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
import sarnik.visual.VisualKind;

/** The kind of visual that says how something has changed: lines over time. Gaps stay gaps. */
public final class LinesKind implements VisualKind<Lines> {

    /** More lines than this cannot be told apart. */
    static final int MOST_LINES = 8;

    /** More steps than this are more than there are pixels to draw them with. */
    static final int MOST_STEPS = 20_000;

    private static final Slot TIME =
            Slot.at("/time", "column of time", "{\"$ref\": \"#/$defs/column\"}").needed();
    private static final Slot STEP = Slot.at(
            "/step",
            "step of time",
            "{\"enum\": [\"MINUTE\", \"HOUR\", \"DAY\", \"WEEK\", \"MONTH\", \"QUARTER\", \"YEAR\", null]}");
    private static final Slot ZONE = Slot.at("/zone", "clock", Clock.SCHEMA);
    private static final Slot MEASURES = Slot.at(
                    "/measures",
                    "measures",
                    "{\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/measure\"}, \"minItems\": 1, \"maxItems\": 8}")
            .needed();
    private static final Slot CATEGORY =
            Slot.at("/category", "a line for each", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");
    private static final Slot STYLE = Slot.at(
            "/style",
            "how they are drawn",
            "{\"enum\": [\"LINES\", \"DOTS\", \"STEPS\", \"AREAS\", \"STACKED\", null]}");
    private static final Slot BEFORE = Slot.at("/before", "the year before", "{\"type\": [\"boolean\", \"null\"]}");

    @Override
    public List<String> asked() {
        return List.of("lines", "stairs", "stacked areas", "areas");
    }

    @Override
    public String name() {
        return "lines";
    }

    @Override
    public Class<Lines> type() {
        return Lines.class;
    }

    @Override
    public Class<LinesDrawing> drawing() {
        return LinesDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 8l3-4 2 2 3-5";
    }

    @Override
    public List<Slot> slots() {
        return List.of(
                Slots.DATASET,
                TIME,
                STEP,
                ZONE,
                MEASURES,
                CATEGORY,
                Slots.RANK,
                STYLE,
                BEFORE,
                Slots.REFERENCES,
                Slots.PINNED,
                Slots.COLOUR,
                Slots.FORMAT,
                Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Lines.class, Reference.class, Format.class);
    }

    @Override
    public String words(Lines lines) {
        return phrase("the lines of {0}", ColumnWords.of(lines.measures().get(0)));
    }

    @Override
    public Set<Long> datasets(Lines lines) {
        return Set.of(lines.dataset());
    }

    @Override
    public boolean spanned() {
        return true;
    }

    @Override
    public Optional<Source> picks(Lines lines) {
        return Optional.of(new Source(lines.dataset(), lines.time()));
    }

    @Override
    public Picked picked(Lines lines, Value.Pick pick, Scene scene) {
        if (lines.zone() == null || !(pick instanceof Value.Span span))
            return VisualKind.super.picked(lines, pick, scene);
        // What a clock shows is no stretch of the moments themselves where it goes back or each place has its own.
        TimeStep step = step(scene.dataset(lines.dataset()).table().find(lines.time()), lines);
        TimeStep by = step.needsTime() ? step : TimeStep.DAY;
        long first = by.number(span.from());
        long last = Math.min(by.number(span.to()), first + MOST_STEPS);
        return new Picked.InGroups(
                by,
                lines.zone(),
                LongStream.rangeClosed(first, last).mapToObj(by::text).toList());
    }

    private static TimeStep step(Optional<Column> time, Lines lines) {
        return lines.step() != null
                ? lines.step()
                : time.map(StepWords::stepFor).orElse(TimeStep.DAY);
    }

    @Override
    public String pickWords(Lines lines, Value.Pick pick, Datasets datasets) {
        if (!(pick instanceof Value.Span span)) return VisualKind.super.pickWords(lines, pick, datasets);
        return span.from().equals(span.to())
                ? phrase("column, day|{0} {1}", ColumnWords.of(lines.time()), day(span.from()))
                : phrase("day|{0} from {1} to {2}", ColumnWords.of(lines.time()), day(span.from()), day(span.to()));
    }

    private static String day(String text) {
        try {
            return Language.day(LocalDate.parse(text.length() > 10 ? text.substring(0, 10) : text));
        } catch (DateTimeException unreadable) {
            return text;
        }
    }

    @Override
    public boolean uses(Lines lines, String parameter) {
        return Reference.uses(lines.references(), parameter);
    }

    @Override
    public Stream<String> places(Lines lines, String parameter) {
        return Slots.references(lines.references(), parameter);
    }

    // --- drawing ----------------------------------------------------------------------------------------

    @Override
    public boolean hasKey(Lines visual) {
        return visual.category() != null || visual.measures().size() > 1;
    }

    @Override
    public Plan plan(Lines lines, Scene scene) {
        LoadedDataset dataset = scene.dataset(lines.dataset());
        Column column = dataset.table()
                .find(lines.time())
                .orElseThrow(() -> new MisfitException(phrase("There is no column “{0}” any more", lines.time())));
        if (!Choices.isTime(column))
            throw new MisfitException(phrase(
                    "“{0}” holds {1} and no dates any more, so there is no line over it",
                    lines.time(), column.type().said()));
        TimeStep step = step(Optional.of(column), lines);
        if (step.needsTime() && column.type() != ColumnType.TIME)
            throw new MisfitException(phrase(
                    "“{0}” holds days, which cannot be cut into steps shorter than a day. Choose a longer step",
                    lines.time()));
        List<Stage> shown = scene.shown(dataset, lines.rule());
        GroupKey time = new GroupKey.Step(lines.time(), step, lines.zone());
        List<GroupKey> keys =
                lines.category() == null ? List.of(time) : List.of(new GroupKey.Of(lines.category()), time);
        List<Measure> measures =
                lines.category() == null ? lines.measures() : lines.measures().subList(0, 1);
        Plan plan = new Plan();
        Optional<Period> kept = Period.of(lines.time(), column, shown);
        AlongTime asked =
                new AlongTime(plan, dataset, Query.by(shown, keys, measures).filled(), kept);
        Asked ranked = lines.category() == null
                ? null
                : plan.ask(
                        dataset,
                        Query.of(
                                        shown,
                                        List.of(lines.category()),
                                        List.of(measures.get(0).plain()))
                                .filled()
                                .ranked(rank(lines)));
        boolean before = Boolean.TRUE.equals(lines.before()) && lines.category() == null;
        List<Stage> always = Period.without(lines.time(), shown);
        // Running totals and shares of a year before are of the same stretch alone.
        Optional<Period> then = kept.map(period -> period.toEndOf(step))
                .map(period -> step == TimeStep.WEEK ? period.weeksBefore() : period.yearBefore());
        AlongTime yearBefore = before
                ? new AlongTime(
                        plan,
                        dataset,
                        Query.by(then.map(period -> period.in(shown)).orElse(always), keys, measures)
                                .filled(),
                        then)
                : null;
        boolean isStretch = then.isPresent() || always.equals(shown);
        CategoryColours colours =
                lines.category() == null ? null : CategoryColours.of(dataset, lines.category(), lines.colour(), scene);
        return plan.drawn(answers -> new LinesDrawer(lines, dataset, step, measures, scene)
                .of(
                        asked,
                        ranked == null ? null : answers.of(ranked),
                        yearBefore == null ? null : yearBefore.of(answers),
                        isStretch,
                        colours,
                        answers));
    }

    private static Rank rank(Lines lines) {
        Ranking rank = lines.rank();
        return rank == null
                ? new Rank(0, Rank.End.TOP, MOST_LINES, false)
                : new Rank(0, rank.end(), Math.min(rank.count(), MOST_LINES), false);
    }

    // --- its sentence ----------------------------------------------------------------------------------

    @Override
    public void brief(Lines lines, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(lines.dataset());
        Lines.Style style = lines.style() == null ? Lines.Style.LINES : lines.style();
        List<Option> styles = new ArrayList<>();
        for (Lines.Style s : Lines.Style.values()) styles.add(new Option(s.words(), "", s.name()));
        String first = style.words();
        line.choose(STYLE, Character.toUpperCase(first.charAt(0)) + first.substring(1), styles);
        line.say(" of ");
        line.slot(
                MEASURES,
                String.join(
                        " and ", lines.measures().stream().map(ColumnWords::of).toList()),
                Kind.SET,
                false,
                false,
                choices.measures(dataset));
        Slots.over(line, "/measures/0", lines.measures().get(0), dataset, true);
        for (int m = 1; m < lines.measures().size(); m++)
            Slots.percentile(line, "/measures/" + m, lines.measures().get(m));
        line.say(" in " + dataset.name() + " by ");
        List<Option> steps = new ArrayList<>();
        for (TimeStep s : TimeStep.values()) if (!s.comesAgain()) steps.add(new Option(s.words(), "", s.name()));
        line.slot(
                STEP,
                lines.step() == null ? "a step that suits" : lines.step().words(),
                Kind.CHOSEN,
                false,
                lines.step() != null,
                steps);
        line.say(" of ");
        line.choose(TIME, ColumnWords.of(lines.time()), Choices.times(dataset));
        Clock.write(line, "/zone", lines.zone(), dataset, lines.time());
        line.say(lines.category() == null ? " " : ", one for each ");
        line.may(
                CATEGORY,
                lines.category() == null ? "+ a line for each" : ColumnWords.of(lines.category()),
                lines.category() == null,
                Choices.categories(dataset));
        if (lines.category() != null) Slots.rank(line, lines.rank(), MOST_LINES);
        if (lines.category() == null) {
            boolean before = Boolean.TRUE.equals(lines.before());
            line.say(" ");
            line.may(
                    BEFORE,
                    before ? "with the year before" : "+ the year before",
                    !before,
                    List.of(new Option("with the year before", "as a ghost behind the line", true)));
        }
        Slots.references(line, lines.references(), choices);
        Slots.pinned(line, lines.pinned(), Slots.steps(dataset, lines.time(), lines.step()));
        Choices.rule(line, lines.rule(), dataset);
        line.say(".");
        Slots.format(looks, lines.format());
        if (lines.category() != null) Slots.categoryColour(looks, lines.colour(), choices);
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.CHANGED) return List.of();
        Optional<String> time = Telling.time(dataset);
        if (time.isEmpty()) return List.of();
        List<Proposal> proposals = new ArrayList<>();
        List<Measure> measures =
                new ArrayList<>(Telling.measures(dataset).stream().limit(2).toList());
        measures.add(Measure.ROWS);
        for (Measure measure : measures)
            proposals.add(new Proposal(
                    "How has it changed? " + ColumnWords.of(measure) + " over " + ColumnWords.of(time.get()),
                    of(dataset, time.get(), measure, null),
                    14,
                    8));
        Telling.categories(dataset).stream()
                .filter(c -> Telling.distinct(dataset, c) <= MOST_LINES && !c.startsWith("@"))
                .findFirst()
                .ifPresent(category -> proposals.add(new Proposal(
                        "A line for each " + ColumnWords.of(category) + ": " + ColumnWords.of(measures.get(0)),
                        of(dataset, time.get(), measures.get(0), category),
                        14,
                        8)));
        return proposals;
    }

    private static Lines of(LoadedDataset dataset, String time, Measure measure, String category) {
        return new Lines(
                null,
                null,
                "",
                dataset.id(),
                time,
                null,
                null,
                List.of(measure),
                category,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
    }

    @Override
    public Ingredients ingredients(Lines lines) {
        return new Ingredients(
                lines.dataset(),
                lines.category() == null ? List.of() : List.of(lines.category()),
                lines.measures(),
                lines.time(),
                lines.rule(),
                lines.rank(),
                lines.colour());
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        if (from.dataset() == null) return Optional.empty();
        LoadedDataset dataset = datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        Optional<String> time = Optional.ofNullable(from.time()).or(() -> Telling.time(dataset));
        if (time.isEmpty()) return Optional.empty();
        String category = from.categories().stream()
                .filter(c -> Telling.distinct(dataset, c) <= 200)
                .findFirst()
                .orElse(null);
        List<String> left = from.categories().stream()
                .filter(c -> !c.equals(category))
                .map(ColumnWords::of)
                .toList();
        return Optional.of(new Become(
                new Lines(
                        page,
                        at,
                        title,
                        dataset.id(),
                        time.get(),
                        null,
                        null,
                        from.measuresOrRows(),
                        category,
                        from.rank(),
                        null,
                        null,
                        null,
                        null,
                        from.colour(),
                        null,
                        from.rule()),
                left));
    }
}
